import { and, desc, eq, sql } from 'drizzle-orm';
import { ENGINE, UNBUILT } from '../../../core/analysis/engine.ts';
import type { Survey } from '../../../core/survey/survey.ts';
import type { Database } from '../db/client.ts';
import { pieces, readings, sources, studies } from '../db/schema.ts';
import { hashOf } from '../hash.ts';
import { OWNER } from '../owner.ts';
import type { Intake, SentStudy, StoredStudy } from '../study.ts';

export type Piece = typeof pieces.$inferSelect;

/** Stores a file as it came in, once per content. */
export async function storeSource(
  db: Pick<Database, 'insert'>,
  fileName: string,
  bytes: Uint8Array,
  intake: Pick<Intake, 'format' | 'document'>
): Promise<void> {
  await db
    .insert(sources)
    .values({ hash: hashOf(bytes), fileName, format: intake.format, bytes: Buffer.from(bytes), document: intake.document })
    .onConflictDoNothing();
}

/** Stores a source (once per content), its first study, a piece and an empty reading, all or nothing. */
export async function addPiece(db: Database, fileName: string, bytes: Uint8Array, intake: Intake, owner = OWNER): Promise<Piece> {
  const hash = hashOf(bytes);
  return db.transaction(async (tx) => {
    await storeSource(tx, fileName, bytes, intake);
    await tx.insert(studies).values({ sourceHash: hash, engine: ENGINE, facts: intake.facts, survey: intake.survey }).onConflictDoNothing();
    const [piece] = await tx
      .insert(pieces)
      .values({ title: intake.title, composer: intake.composer, instrument: intake.instrument, bars: intake.bars, sourceHash: hash, owner })
      .returning();
    await tx.insert(readings).values({ pieceId: piece.id, name: 'First reading', author: owner });
    return piece;
  });
}

export const listPieces = (db: Database, owner = OWNER): Promise<Piece[]> =>
  db.select().from(pieces).where(eq(pieces.owner, owner)).orderBy(desc(pieces.createdAt), desc(pieces.id));

/** The newest piece of an owner that was made of a file; null when the file is new. */
export async function pieceOf(db: Database, owner: string, hash: string): Promise<Pick<Piece, 'id' | 'title'> | null> {
  const [found] = await db
    .select({ id: pieces.id, title: pieces.title })
    .from(pieces)
    .where(and(eq(pieces.owner, owner), eq(pieces.sourceHash, hash)))
    .orderBy(desc(pieces.id))
    .limit(1);
  return found ?? null;
}

export async function findPiece(db: Database, id: number): Promise<Piece | undefined> {
  return (await db.select().from(pieces).where(eq(pieces.id, id)))[0];
}

/** Takes a piece with its readings off the shelf; the source stays for other pieces made of it. */
export async function removePiece(db: Database, id: number): Promise<boolean> {
  return (await db.delete(pieces).where(eq(pieces.id, id)).returning()).length > 0;
}

export async function findDocument(db: Database, hash: string): Promise<string | undefined> {
  return (await db.select({ document: sources.document }).from(sources).where(eq(sources.hash, hash)))[0]?.document;
}

/** The stored study of this very engine; undefined when the engine has changed since, or has no name of its own. */
export async function findStudy(db: Database, hash: string): Promise<SentStudy | undefined> {
  if (ENGINE === UNBUILT) return undefined;
  const [row] = await db
    .select({ facts: sql<string>`${studies.facts}`, survey: studies.survey })
    .from(studies)
    .where(and(eq(studies.sourceHash, hash), eq(studies.engine, ENGINE)));
  return row && { facts: row.facts, survey: row.survey as Survey };
}

export async function storeStudy(db: Database, hash: string, study: StoredStudy): Promise<void> {
  await db.insert(studies).values({ sourceHash: hash, engine: ENGINE, facts: study.facts, survey: study.survey }).onConflictDoNothing();
}
