import { json } from '@sveltejs/kit';
import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { copySchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Copies a reading of this piece under a new name; the answer is its number. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const { from, name } = valid<{ from: number; name: string }>(copySchema, await limitedJson(request), 'The copy');
  return json({ id: await piece.copyReading(from, name) }, { status: 201 });
};
