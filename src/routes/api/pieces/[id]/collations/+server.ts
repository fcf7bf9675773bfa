import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findDocument, findPiece } from '$lib/server/repositories/pieces';
import { listSources } from '$lib/server/repositories/sources';
import { idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Every further source of a piece with the bars that belong together and the differences. */
export const GET: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const db = await database();
  const piece = await findPiece(db, id);
  const document = piece && (await findDocument(db, piece.sourceHash));
  if (document === undefined) error(404, 'This piece is not on the shelf.');
  const collations = [];
  for (const { document: other, ...source } of await listSources(db, id))
    collations.push({ ...source, ...(await runTask('collate', { document, other }, () => {}, request.signal)) });
  return json({ collations });
};
