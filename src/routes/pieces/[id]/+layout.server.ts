import { ENGINE } from '$core/analysis/engine';
import { error } from '@sveltejs/kit';
import { idOf } from '$lib/server/params';
import type { LayoutServerLoad } from './$types';

/** A piece with one of its readings: that of `?reading=`, else the first. */
export const load: LayoutServerLoad = async ({ params, url, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  // Only the order of the shelf hangs on it: a piece opens although it cannot be written.
  await piece.opened().catch(() => {});
  const readings = await piece.readings();
  const wanted = url.searchParams.get('reading');
  const reading = wanted === null ? readings[0] : readings.find((r) => String(r.id) === wanted);
  if (!reading) error(404, 'This reading is not here any more.');
  const survey = await piece.survey();
  const { id, title, composer, instrument, bars, sourceName, sourceHash } = piece.row;
  return {
    piece: { id, title, composer, instrument, bars },
    readings: readings.map(({ id, name }) => ({ id, name })),
    editions: await piece.editions(),
    source: sourceName,
    otherSources: await piece.otherSources(),
    survey,
    workspace: {
      pieceId: id,
      readingId: reading.id,
      sourceHash,
      engine: ENGINE,
      paper: await piece.paper(),
      otherSources: (await piece.otherSources()).map(({ hash, name }) => ({ hash, name })),
      players: await locals.studio.players(),
      ...(await piece.standing(reading.id))
    }
  };
};
