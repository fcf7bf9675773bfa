import type { ReadyLine } from '../../core/edition/first-picture.ts';
import type { Facts } from '../../core/analysis/facts.ts';
import type { Database } from './db/open.ts';
import { runTask } from './jobs/run.ts';
import { findDocument, findPicture, storePicture } from './repositories/pieces.ts';
import { studyOfSource } from './studies.ts';

const underWay = new Map<string, Promise<string>>();

/** The first systems of a source as a picture, engraved once for all who ask and kept with the source. */
export async function pictureOf(db: Database, hash: string, line: ReadyLine, person: string): Promise<string> {
  const known = await findPicture(db, hash, line);
  if (known !== undefined) return known;
  const key = `${hash} ${line}`;
  let made = underWay.get(key);
  if (!made) {
    made = engraved(db, hash, line, person).finally(() => underWay.delete(key));
    underWay.set(key, made);
  }
  return made;
}

async function engraved(db: Database, hash: string, line: ReadyLine, person: string): Promise<string> {
  const { phrases } = JSON.parse((await studyOfSource(db, hash, person)).facts) as Facts;
  const svg = await runTask('picture', { document: (await findDocument(db, hash))!, phrases, line }, undefined, undefined, person);
  await storePicture(db, hash, line, svg);
  return svg;
}
