import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { ENGINE, UNBUILT } from '../../../core/analysis/engine.ts';
import { LIMITS } from '../../../core/style/limits.ts';
import type { PieceBounds } from '../../../core/schema-kit.ts';
import type { Survey } from '../../../core/survey/survey.ts';
import type { Database } from '../db/open.ts';
import { claims, comparedSources, editions, firstPictures, pieces, readings, sources, studies } from '../db/schema.ts';
import type { ShelfPiece } from '../../shapes.ts';
import type { ReadyLine } from '../../../core/edition/first-picture.ts';
import { hashOf } from '../hash.ts';
import { OWNER } from '../owner.ts';
import type { Intake, SentStudy, StoredStudy } from '../study.ts';

export type Piece = typeof pieces.$inferSelect;

/** Stores a file as it came in, once per content. */
export async function storeSource(
  db: Pick<Database, 'insert'>,
  fileName: string,
  bytes: Uint8Array,
  intake: Pick<Intake, 'format' | 'document' | 'parts'>
): Promise<void> {
  await db
    .insert(sources)
    .values({
      hash: hashOf(bytes),
      fileName,
      format: intake.format,
      bytes: Buffer.from(bytes),
      document: intake.document,
      parts: intake.parts
    })
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

/** A piece follows another source from now on: the same score, corrected. Its readings stay. */
export async function correctPiece(db: Database, id: number, fileName: string, bytes: Uint8Array, intake: Intake): Promise<void> {
  const hash = hashOf(bytes);
  await db.transaction(async (tx) => {
    await storeSource(tx, fileName, bytes, intake);
    await tx.insert(studies).values({ sourceHash: hash, engine: ENGINE, facts: intake.facts, survey: intake.survey }).onConflictDoNothing();
    const { title, composer, instrument, bars } = intake;
    await tx.update(pieces).set({ title, composer, instrument, bars, sourceHash: hash }).where(eq(pieces.id, id));
  });
}

/** The file of a source as it came in. */
export async function findSourceFile(db: Database, hash: string): Promise<{ format: string; bytes: Buffer; document: string } | undefined> {
  const [row] = await db
    .select({ format: sources.format, bytes: sources.bytes, document: sources.document })
    .from(sources)
    .where(eq(sources.hash, hash));
  return row;
}

/** Pieces of an owner that stand on the shelf, the newest first. */
export const listPieces = (db: Database, owner = OWNER): Promise<Piece[]> =>
  db
    .select()
    .from(pieces)
    .where(and(eq(pieces.owner, owner), isNull(pieces.removedAt)))
    .orderBy(desc(pieces.createdAt), desc(pieces.id));

/** The same with how far the work on each has come: acts in its readings, and editions that were frozen. */
export const listShelf = (db: Database, owner: string): Promise<ShelfPiece[]> =>
  db
    .select({
      id: pieces.id,
      title: pieces.title,
      composer: pieces.composer,
      instrument: pieces.instrument,
      bars: pieces.bars,
      group: pieces.shelfGroup,
      period: pieces.period,
      openedAt: pieces.openedAt,
      createdAt: pieces.createdAt,
      acts: sql<number>`(select count(*) from commands join readings on readings.id = commands.reading_id where readings.piece_id = pieces.id)`,
      editions: sql<number>`(select count(*) from editions where editions.piece_id = pieces.id)`
    })
    .from(pieces)
    .where(and(eq(pieces.owner, owner), isNull(pieces.removedAt)))
    .orderBy(desc(pieces.createdAt), desc(pieces.id));

/** Puts a piece into a group of the shelf, or out of all. */
export async function groupPiece(db: Database, id: number, group: string | null): Promise<void> {
  await db.update(pieces).set({ shelfGroup: group }).where(eq(pieces.id, id));
}

/** A room of a piece was opened; written at most once a minute. */
export async function pieceOpened(db: Database, id: number): Promise<void> {
  const stale = sql`coalesce(${pieces.openedAt}, 0) < unixepoch() - 60`;
  await db
    .update(pieces)
    .set({ openedAt: sql`(unixepoch())` })
    .where(and(eq(pieces.id, id), stale));
}

/** All pieces of an owner, those in the bin too. */
export const allPieces = (db: Database, owner: string): Promise<Piece[]> =>
  db.select().from(pieces).where(eq(pieces.owner, owner)).orderBy(pieces.id);

export async function countPieces(db: Database, owner = OWNER): Promise<{ shelf: number; bin: number }> {
  const [row] = await db
    .select({ shelf: sql<number>`count(*) filter (where ${pieces.removedAt} is null)`, bin: sql<number>`count(${pieces.removedAt})` })
    .from(pieces)
    .where(eq(pieces.owner, owner));
  return row;
}

/** A piece in the bin; `editions` counts what was frozen of it. */
export type BinnedPiece = Pick<Piece, 'id' | 'title' | 'composer'> & { removedAt: number; editions: number };

/** The pieces in the bin, what came last first. */
export const listBin = (db: Database, owner = OWNER): Promise<BinnedPiece[]> =>
  db
    .select({
      id: pieces.id,
      title: pieces.title,
      composer: pieces.composer,
      removedAt: sql<number>`${pieces.removedAt}`,
      editions: sql<number>`(select count(*) from editions where editions.piece_id = pieces.id)`
    })
    .from(pieces)
    .where(and(eq(pieces.owner, owner), isNotNull(pieces.removedAt)))
    .orderBy(desc(pieces.removedAt), desc(pieces.id));

/** The newest piece of an owner that was made of a file; null when the file is new. */
export async function pieceOf(db: Database, owner: string, hash: string): Promise<Pick<Piece, 'id' | 'title'> | null> {
  const [found] = await db
    .select({ id: pieces.id, title: pieces.title })
    .from(pieces)
    .where(and(eq(pieces.owner, owner), eq(pieces.sourceHash, hash), isNull(pieces.removedAt)))
    .orderBy(desc(pieces.id))
    .limit(1);
  return found ?? null;
}

export async function findPiece(db: Database, id: number): Promise<Piece | undefined> {
  return (await db.select().from(pieces).where(eq(pieces.id, id)))[0];
}

/** What a piece has, for checking what is said of it. */
export async function boundsOf(db: Database, piece: Pick<Piece, 'id' | 'bars' | 'sourceHash'>): Promise<PieceBounds> {
  const [row] = await db.select({ parts: sources.parts }).from(sources).where(eq(sources.hash, piece.sourceHash));
  const further = await db.select({ hash: comparedSources.sourceHash }).from(comparedSources).where(eq(comparedSources.pieceId, piece.id));
  return { measures: piece.bars, parts: row?.parts ?? undefined, sources: further.map((s) => s.hash) };
}

/** Puts a piece into the bin. @returns false when it is not on the shelf */
export async function binPiece(db: Database, id: number): Promise<boolean> {
  const onShelf = and(eq(pieces.id, id), isNull(pieces.removedAt));
  return (
    (
      await db
        .update(pieces)
        .set({ removedAt: sql`(unixepoch())` })
        .where(onShelf)
        .returning({ id: pieces.id })
    ).length > 0
  );
}

/** Takes a piece out of the bin again. */
export async function unbinPiece(db: Database, id: number): Promise<boolean> {
  const inBin = and(eq(pieces.id, id), isNotNull(pieces.removedAt));
  return (await db.update(pieces).set({ removedAt: null }).where(inBin).returning({ id: pieces.id })).length > 0;
}

/** Removes a piece for good with all that hangs on it, and the sources that no other piece is made of. */
export async function removePiece(db: Database, id: number): Promise<boolean> {
  return db.transaction(async (tx) => {
    const gone = await tx.delete(pieces).where(eq(pieces.id, id)).returning({ id: pieces.id });
    await removeUnusedSources(tx);
    return gone.length > 0;
  });
}

/** Removes sources that no piece is made of or compared with, and what was worked out about them. */
export async function removeUnusedSources(db: Pick<Database, 'delete' | 'select'>): Promise<void> {
  const used = sql`exists (select 1 from ${pieces} where ${pieces.sourceHash} = ${sources.hash}) or exists (select 1 from ${comparedSources} where ${comparedSources.sourceHash} = ${sources.hash})`;
  await db.delete(sources).where(sql`not (${used})`);
}

/** Removes for good what has lain in the bin for its days; a piece with frozen editions stays until its owner says so. */
export async function emptyBin(db: Database): Promise<number> {
  const frozen = sql`exists (select 1 from ${editions} where ${editions.pieceId} = ${pieces.id})`;
  const old = sql`${pieces.removedAt} < unixepoch() - ${LIMITS.binDays * 86_400}`;
  return db.transaction(async (tx) => {
    const gone = await tx
      .delete(pieces)
      .where(and(isNotNull(pieces.removedAt), old, sql`not ${frozen}`))
      .returning({ id: pieces.id });
    if (gone.length) await removeUnusedSources(tx);
    return gone.length;
  });
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

/** Keeps a study; those that an earlier engine made of the same source go. */
export async function storeStudy(db: Database, hash: string, study: StoredStudy): Promise<void> {
  await db.delete(studies).where(and(eq(studies.sourceHash, hash), sql`${studies.engine} <> ${ENGINE}`));
  await db.insert(studies).values({ sourceHash: hash, engine: ENGINE, facts: study.facts, survey: study.survey }).onConflictDoNothing();
}

/** The first systems of a source as this engine engraved them. */
export async function findPicture(db: Database, hash: string, line: ReadyLine): Promise<string | undefined> {
  if (ENGINE === UNBUILT) return undefined;
  const of = and(eq(firstPictures.sourceHash, hash), eq(firstPictures.line, line), eq(firstPictures.engine, ENGINE));
  return (await db.select({ svg: firstPictures.svg }).from(firstPictures).where(of))[0]?.svg;
}

/** Keeps them in the place of what an earlier engine made. A source that has gone meanwhile keeps none. */
export async function storePicture(db: Database, hash: string, line: ReadyLine, svg: string): Promise<void> {
  if ((await findDocument(db, hash)) === undefined) return;
  const { sourceHash, line: ofLine } = firstPictures;
  await db
    .insert(firstPictures)
    .values({ sourceHash: hash, line, engine: ENGINE, svg })
    .onConflictDoUpdate({ target: [sourceHash, ofLine], set: { engine: ENGINE, svg } });
}

/** Seconds for which a claim on a study holds: longer than any task may take. */
const CLAIM_SECONDS = 90;

/** Says that a study is being worked out here. @returns false when another process is at it */
export async function claimStudy(db: Database, hash: string): Promise<boolean> {
  const until = sql`unixepoch() + ${CLAIM_SECONDS}`;
  const [won] = await db
    .insert(claims)
    .values({ sourceHash: hash, engine: ENGINE, until: sql`${until}` })
    .onConflictDoUpdate({
      target: [claims.sourceHash, claims.engine],
      set: { until: sql`${until}` },
      setWhere: sql`${claims.until} < unixepoch()`
    })
    .returning({ hash: claims.sourceHash });
  return won !== undefined;
}

/** It is not worked out here any more. */
export async function unclaimStudy(db: Database, hash: string): Promise<void> {
  await db.delete(claims).where(and(eq(claims.sourceHash, hash), eq(claims.engine, ENGINE)));
}
