import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { shelveSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The piece that a writing stands on the shelf as: `{"piece": 7}`. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const { piece } = valid<{ piece: number }>(shelveSchema, await limitedJson(request), 'The piece');
  await (await locals.studio.writing(idOf(params.id, 'The number of the writing'))).shelve(piece);
  return new Response(null, { status: 204 });
};

/** The piece on the shelf follows what is written from now on; its readings stay. */
export const POST: RequestHandler = async ({ params, locals }) => {
  await (await locals.studio.writing(idOf(params.id, 'The number of the writing'))).correct();
  return new Response(null, { status: 204 });
};
