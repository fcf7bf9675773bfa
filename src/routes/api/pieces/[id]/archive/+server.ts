import { idOf } from '$lib/server/params';
import { downloadParts } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** All data of a piece as one JSON file, described in docs/archive.md. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  return downloadParts(piece.archive(), 'application/json; charset=utf-8', piece.row.title, '.nuvelo.json');
};
