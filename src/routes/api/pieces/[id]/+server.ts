import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { groupSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

export const DELETE: RequestHandler = async ({ params, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  await piece.remove();
  return new Response(null, { status: 204 });
};

/** Puts a piece into a group of the shelf: `{"group": "For the jury"}`, or out of all: `{"group": null}`. */
export const PATCH: RequestHandler = async ({ params, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const { group } = valid<{ group: string | null }>(groupSchema, await limitedJson(request), 'The group');
  await piece.moveTo(group);
  return new Response(null, { status: 204 });
};
