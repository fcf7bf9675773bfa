import { setTimeout as wait } from 'node:timers/promises';
import type { Database } from './db/open.ts';
import { runTask } from './jobs/run.ts';
import { claimStudy, findDocument, findStudy, storeStudy, unclaimStudy } from './repositories/pieces.ts';
import type { SentStudy } from './study.ts';

/** How often one looks whether another process has finished, in milliseconds. */
const LOOK_MS = 150;

const underWay = new Map<string, Promise<SentStudy>>();

/**
 * The study of a source; worked out again where the engine is newer than what is stored, once for all who ask at the same
 * time, in this process and in others on the same database.
 */
export async function studyOfSource(db: Database, hash: string, person: string): Promise<SentStudy> {
  const known = await findStudy(db, hash);
  if (known) return known;
  let made = underWay.get(hash);
  if (!made) {
    made = workedOut(db, hash, person).finally(() => underWay.delete(hash));
    underWay.set(hash, made);
  }
  return made;
}

async function workedOut(db: Database, hash: string, person: string): Promise<SentStudy> {
  while (!(await claimStudy(db, hash))) {
    await wait(LOOK_MS);
    const theirs = await findStudy(db, hash);
    if (theirs) return theirs;
  }
  try {
    // It may have been stored between the look and the claim.
    const theirs = await findStudy(db, hash);
    if (theirs) return theirs;
    const fresh = await runTask('study', { document: (await findDocument(db, hash))! }, undefined, undefined, person);
    await storeStudy(db, hash, fresh);
    return { facts: JSON.stringify(fresh.facts), survey: fresh.survey };
  } finally {
    await unclaimStudy(db, hash);
  }
}
