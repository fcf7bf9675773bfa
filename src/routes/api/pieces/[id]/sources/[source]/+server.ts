import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

/** Takes a further source away from a piece. */
export const DELETE: RequestHandler = async ({ params, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  await piece.removeSource(idOf(params.source, 'The number of the source'));
  return new Response(null, { status: 204 });
};
