import { error } from '@sveltejs/kit';
import { exportPiece } from '$lib/server/archive';
import { database } from '$lib/server/db/client';
import { fileName, valid } from '$lib/server/http';
import { idSchema } from '$lib/server/schemas';
import { download } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** All data of a piece as one JSON file, described in docs/archive.md. */
export const GET: RequestHandler = async ({ params }) => {
  const archive = await exportPiece(await database(), valid<number>(idSchema, params.id, 'The number of the piece'));
  if (!archive) error(404, 'This piece is not on the shelf.');
  return download(JSON.stringify(archive, null, 1), 'application/json; charset=utf-8', `${fileName(archive.piece.title)}.nuvelo.json`);
};
