import { error } from '@sveltejs/kit';
import type { PageSettings } from '$core/edition/paper';
import { replay } from '$core/reading/commands';
import { database } from '$lib/server/db/client';
import { fileName, valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findDocument, findPiece } from '$lib/server/repositories/pieces';
import { findReading, logAfter } from '$lib/server/repositories/readings';
import { idSchema, pagesSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The edition as a PDF, made in a worker: `?paper=A4&landscape=false&staff=usual&variant=study`. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const settings = valid<PageSettings>(pagesSchema, Object.fromEntries(url.searchParams), 'The setting of the pages');
  const db = await database();
  const found = await findReading(db, id);
  const piece = found && (await findPiece(db, found.pieceId));
  const document = piece && (await findDocument(db, piece.sourceHash));
  if (!document) error(404, 'This reading is not here any more.');
  const reading = replay(await logAfter(db, id, 0));
  const { title, composer, instrument } = piece;
  const pdf = await runTask('pdf', { document, reading, title, composer, instrument, settings }, () => {}, request.signal);
  return new Response(pdf as BodyInit, {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${fileName(title)}.pdf"` }
  });
};
