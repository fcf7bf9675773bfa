import { json } from '@sveltejs/kit';
import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

/** Every further source of a piece with the bars that belong together and the differences. */
export const GET: RequestHandler = async ({ params, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  return json({ collations: await piece.collations(request.signal) });
};
