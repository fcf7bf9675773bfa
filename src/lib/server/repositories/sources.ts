import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { comparedSources, pieces, sources } from '../db/schema.ts';
import { hashOf } from '../hash.ts';
import type { Intake } from '../study.ts';
import { removeUnusedSources, storeSource } from './pieces.ts';

/** A source that is compared with the one that a piece's pages follow, without its text. */
export interface NamedSource {
  id: number;
  hash: string;
  name: string;
}

/** Names of the further sources of a piece, in the order in which they came. */
export const nameSources = (db: Database, pieceId: number): Promise<NamedSource[]> =>
  db
    .select({ id: comparedSources.id, hash: comparedSources.sourceHash, name: comparedSources.name })
    .from(comparedSources)
    .where(eq(comparedSources.pieceId, pieceId))
    .orderBy(asc(comparedSources.id));

/** The same with their documents, which may be long. */
export const listSources = (db: Database, pieceId: number): Promise<(NamedSource & { document: string })[]> =>
  db
    .select({ id: comparedSources.id, hash: sources.hash, name: comparedSources.name, document: sources.document })
    .from(comparedSources)
    .innerJoin(sources, eq(sources.hash, comparedSources.sourceHash))
    .where(eq(comparedSources.pieceId, pieceId))
    .orderBy(asc(comparedSources.id));

/** Adds a source to a piece. @returns false when the piece has that very file already */
export async function addSource(
  db: Database,
  pieceId: number,
  name: string,
  fileName: string,
  bytes: Uint8Array,
  intake: Intake
): Promise<boolean> {
  const hash = hashOf(bytes);
  return db.transaction(async (tx) => {
    const [first] = await tx.select({ hash: pieces.sourceHash }).from(pieces).where(eq(pieces.id, pieceId));
    const [same] = await tx
      .select({ id: comparedSources.id })
      .from(comparedSources)
      .where(and(eq(comparedSources.pieceId, pieceId), eq(comparedSources.sourceHash, hash)));
    if (!first || first.hash === hash || same) return false;
    await storeSource(tx, fileName, bytes, intake);
    await tx.insert(comparedSources).values({ pieceId, sourceHash: hash, name });
    return true;
  });
}

export async function removeSource(db: Database, pieceId: number, id: number): Promise<boolean> {
  const gone = and(eq(comparedSources.pieceId, pieceId), eq(comparedSources.id, id));
  return db.transaction(async (tx) => {
    const removed = (await tx.delete(comparedSources).where(gone).returning()).length > 0;
    await removeUnusedSources(tx);
    return removed;
  });
}

/** Names the source that the pages follow. */
export async function nameSource(db: Database, pieceId: number, name: string): Promise<boolean> {
  return (await db.update(pieces).set({ sourceName: name }).where(eq(pieces.id, pieceId)).returning()).length > 0;
}
