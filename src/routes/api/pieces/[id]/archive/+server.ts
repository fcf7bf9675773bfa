import { fileName } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { download } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** All data of a piece as one JSON file, described in docs/archive.md. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const archive = await piece.archive();
  return download(JSON.stringify(archive, null, 1), 'application/json; charset=utf-8', `${fileName(archive.piece.title)}.nuvelo.json`);
};
