import { json } from '@sveltejs/kit';
import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { excerptSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Makes a piece of its own of some bars (measure indices, both included); what is in force where they begin goes with them. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const { from, to } = valid<{ from: number; to: number }>(excerptSchema, await limitedJson(request), 'The range of bars');
  return json({ piece: await piece.excerpt(from, to) });
};
