import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

export const DELETE: RequestHandler = async ({ params, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  await piece.remove();
  return new Response(null, { status: 204 });
};
