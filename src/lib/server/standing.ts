import { advanced, type Standing } from '../../core/reading/log.ts';
import type { Database } from './db/open.ts';
import { runTask } from './jobs/run.ts';
import { actsAfter, findSnapshot, storeSnapshot } from './repositories/readings.ts';

/** After so many acts it is remembered where the log stands. Set by hand: replaying them takes a few milliseconds. */
const SNAPSHOT_AFTER = 500;

/** Where the log of a reading stands; of a long one from the last place that was remembered. */
export async function standingOf(db: Database, readingId: number, person: string): Promise<Standing> {
  const from = await findSnapshot(db, readingId);
  const since = (await actsAfter(db, readingId, from.revision, Number.MAX_SAFE_INTEGER - 1)).acts.map((a) => a.command);
  if (since.length < SNAPSHOT_AFTER) return advanced(from, since);
  const standing = await runTask('standing', { standing: from, since }, undefined, undefined, person);
  await storeSnapshot(db, readingId, standing);
  return standing;
}
