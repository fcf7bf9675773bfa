import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { nameSources } from '$lib/server/repositories/sources';
import { listEditions } from '$lib/server/repositories/editions';
import { findDocument, findPiece, findStudy, storeStudy } from '$lib/server/repositories/pieces';
import { listReadings, logOf } from '$lib/server/repositories/readings';
import { idSchema } from '$lib/server/schemas';
import type { LayoutServerLoad } from './$types';

/** A piece with one of its readings: that of `?reading=`, else the first. */
export const load: LayoutServerLoad = async ({ params, url }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const db = await database();
  const piece = await findPiece(db, id);
  const readings = piece ? await listReadings(db, id) : [];
  const wanted = url.searchParams.get('reading');
  const reading = wanted === null ? readings[0] : readings.find((r) => String(r.id) === wanted);
  if (!piece || !readings.length) error(404, 'This piece is not on the shelf.');
  if (!reading) error(404, 'This reading is not here any more.');
  let study = await findStudy(db, piece.sourceHash);
  if (!study) {
    // The engine is newer than what was stored: work it out again, once.
    const fresh = await runTask('study', { document: (await findDocument(db, piece.sourceHash))! });
    await storeStudy(db, piece.sourceHash, fresh);
    study = { facts: JSON.stringify(fresh.facts), survey: fresh.survey };
  }
  return {
    piece: { id: piece.id, title: piece.title, composer: piece.composer, instrument: piece.instrument, bars: piece.bars },
    readings: readings.map(({ id, name }) => ({ id, name })),
    editions: await listEditions(db, id),
    source: piece.sourceName,
    otherSources: await nameSources(db, id),
    survey: study.survey,
    workspace: {
      pieceId: id,
      readingId: reading.id,
      sourceHash: piece.sourceHash,
      facts: study.facts,
      log: await logOf(db, reading.id)
    }
  };
};
