import { LibsqlError } from '@libsql/client';
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Facts } from '../../../core/analysis/facts.ts';
import { replay, type Act } from '../../../core/reading/log.ts';
import type { Command } from '../../../core/reading/commands/index.ts';
import type { Database } from '../db/client.ts';
import { commands, readings } from '../db/schema.ts';
import type { EditionInput } from '../../../core/edition/open-edition.ts';
import { findDocument, findPiece, findStudy, type Piece } from './pieces.ts';
import { OWNER } from '../owner.ts';
import type { Appended, Missed } from '../../shapes.ts';
import { listSources } from './sources.ts';

export type ReadingRow = typeof readings.$inferSelect;

export async function firstReading(db: Database, pieceId: number): Promise<ReadingRow | undefined> {
  return (await db.select().from(readings).where(eq(readings.pieceId, pieceId)).orderBy(asc(readings.id)).limit(1))[0];
}

/** Readings of a piece, the oldest first. */
export const listReadings = (db: Database, pieceId: number): Promise<ReadingRow[]> =>
  db.select().from(readings).where(eq(readings.pieceId, pieceId)).orderBy(asc(readings.id));

/** A new reading of the same piece with the same acts so far; both go their own ways from there. */
export async function copyReading(db: Database, id: number, name: string, author = OWNER): Promise<ReadingRow | undefined> {
  const model = await findReading(db, id);
  if (!model) return undefined;
  return db.transaction(async (tx) => {
    const [copy] = await tx.insert(readings).values({ pieceId: model.pieceId, name, author }).returning();
    await tx.run(
      sql`insert into ${commands} (reading_id, seq, command, author) select ${copy.id}, seq, command, author from ${commands} where reading_id = ${id}`
    );
    return copy;
  });
}

export async function renameReading(db: Database, id: number, name: string): Promise<boolean> {
  return (await db.update(readings).set({ name }).where(eq(readings.id, id)).returning()).length > 0;
}

/** Takes a reading away with all its acts; the last one of a piece stays. */
export async function removeReading(db: Database, id: number): Promise<'removed' | 'last' | 'missing'> {
  // In one statement: two windows that each remove one of the last two readings must not both succeed.
  const others = sql`exists (select 1 from ${readings} as other where other.piece_id = ${readings.pieceId} and other.id <> ${readings.id})`;
  const removed = await db
    .delete(readings)
    .where(and(eq(readings.id, id), others))
    .returning({ id: readings.id });
  if (removed.length) return 'removed';
  return (await findReading(db, id)) ? 'last' : 'missing';
}

export async function findReading(db: Database, id: number): Promise<ReadingRow | undefined> {
  return (await db.select().from(readings).where(eq(readings.id, id)))[0];
}

/** Acts after a revision, in order. */
export async function actsAfter(db: Database, readingId: number, revision: number): Promise<Act[]> {
  const rows = await db
    .select()
    .from(commands)
    .where(and(eq(commands.readingId, readingId), gt(commands.seq, revision)))
    .orderBy(asc(commands.seq));
  return rows.map(({ origin, command }) => ({ origin, command: command as Command }));
}

/** The whole log of a reading. */
export const logOf = async (db: Database, readingId: number): Promise<Command[]> =>
  (await actsAfter(db, readingId, 0)).map((a) => a.command);

/**
 * Appends acts if the log still ends at `base`; else changes nothing and returns what was missed.
 * The keys on (reading, seq) and (reading, origin) guard against two writers who read the same revision.
 */
export async function append(
  db: Database,
  readingId: number,
  base: number,
  acts: readonly Act[],
  author = OWNER
): Promise<Appended | Missed> {
  const missedSince = async (): Promise<Missed> => {
    const missed = await actsAfter(db, readingId, base);
    return { conflict: true, revision: base + missed.length, missed };
  };
  const [{ last }] = await db
    .select({ last: sql<number>`coalesce(max(${commands.seq}), 0)` })
    .from(commands)
    .where(eq(commands.readingId, readingId));
  if (last !== base) return missedSince();
  const sent = acts.flatMap((a) => a.origin ?? []);
  const stored = await db
    .select({ origin: commands.origin })
    .from(commands)
    .where(and(eq(commands.readingId, readingId), inArray(commands.origin, sent)));
  const already = stored.flatMap((r) => r.origin ?? []);
  const fresh = acts.filter((a) => a.origin === null || !already.includes(a.origin));
  try {
    if (fresh.length) await db.insert(commands).values(fresh.map((act, k) => ({ readingId, seq: base + 1 + k, author, ...act })));
  } catch (error) {
    if (isConstraint(error)) return missedSince();
    throw error;
  }
  return { revision: base + fresh.length, already };
}

/** A key of the table spoke against it: somebody else was quicker. */
const isConstraint = (error: unknown): boolean =>
  error instanceof LibsqlError ? error.code.startsWith('SQLITE_CONSTRAINT') : error instanceof Error && isConstraint(error.cause);

/** A reading with all that its pages and files are made of. */
export async function findEditionInput(
  db: Database,
  id: number
): Promise<{ piece: Piece; row: ReadingRow; input: EditionInput } | undefined> {
  const row = await findReading(db, id);
  const piece = row && (await findPiece(db, row.pieceId));
  const document = piece && (await findDocument(db, piece.sourceHash));
  if (!row || !piece || document === undefined) return undefined;
  const reading = replay(await logOf(db, id));
  const study = await findStudy(db, piece.sourceHash);
  const { title, composer, instrument, sourceName } = piece;
  return {
    piece,
    row,
    input: {
      document,
      reading,
      others: (await listSources(db, piece.id)).map(({ hash, name, document }) => ({ hash, name, document })),
      names: { title, composer, instrument, source: sourceName },
      facts: study ? (JSON.parse(study.facts) as Facts) : null
    }
  };
}
