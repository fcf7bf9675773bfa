import { error } from '@sveltejs/kit';
import { replay } from '$core/reading/commands';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findDocument, findPiece } from '$lib/server/repositories/pieces';
import { findReading, logAfter } from '$lib/server/repositories/readings';
import { idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The edition as MusicXML: the source's own document with the markings of the reading written into it. */
export const GET: RequestHandler = async ({ params }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const db = await database();
  const reading = await findReading(db, id);
  const piece = reading && (await findPiece(db, reading.pieceId));
  const document = piece && (await findDocument(db, piece.sourceHash));
  if (!document) error(404, 'This reading is not here any more.');
  const { markings } = replay(await logAfter(db, id, 0));
  const xml = await runTask('edition', { document, markings });
  const name =
    piece.title
      .normalize('NFD')
      .replace(/[^\w]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'edition';
  return new Response(xml, {
    headers: {
      'content-type': 'application/vnd.recordare.musicxml+xml; charset=utf-8',
      'content-disposition': `attachment; filename="${name}.musicxml"`
    }
  });
};
