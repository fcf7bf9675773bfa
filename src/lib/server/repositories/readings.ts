import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { ENGINE, UNBUILT } from '../../../core/analysis/engine.ts';
import { AT_THE_BEGINNING, type Act, type Standing } from '../../../core/reading/log.ts';
import type { Command } from '../../../core/reading/commands/index.ts';
import { isConstraint } from '../db/faults.ts';
import type { Database } from '../db/open.ts';
import { commands, pieces, readings, snapshots } from '../db/schema.ts';
import type { Period } from '../../../core/style/profiles.ts';
import type { EditionSource } from '../jobs/edition-source.ts';
import { findDocument, findStudy, type Piece } from './pieces.ts';
import { OWNER } from '../owner.ts';
import type { ActsAfter, Appended, Missed } from '../../shapes.ts';
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

/** Acts that are handed out at once, at most. Set by hand. */
const PORTION = 2000;

const storedAct = ({ origin, command }: Pick<typeof commands.$inferSelect, 'origin' | 'command'>): Act => ({
  origin,
  command: command as Command
});

/** Acts after a revision, in order: a portion of them. */
export async function actsAfter(db: Database, readingId: number, revision: number, most = PORTION): Promise<ActsAfter> {
  const rows = await db
    .select({ origin: commands.origin, command: commands.command })
    .from(commands)
    .where(and(eq(commands.readingId, readingId), gt(commands.seq, revision)))
    .orderBy(asc(commands.seq))
    .limit(most + 1);
  return { acts: rows.slice(0, most).map(storedAct), more: rows.length > most };
}

/** The whole log of a reading. */
export const logOf = async (db: Database, readingId: number): Promise<Command[]> =>
  (await actsAfter(db, readingId, 0, Number.MAX_SAFE_INTEGER - 1)).acts.map((a) => a.command);

/** How many acts a reading has. */
export async function revisionOf(db: Database, readingId: number): Promise<number> {
  const [{ last }] = await db
    .select({ last: sql<number>`coalesce(max(${commands.seq}), 0)` })
    .from(commands)
    .where(eq(commands.readingId, readingId));
  return last;
}

/** Where a long log stood, as far as that is known of this very engine. */
export async function findSnapshot(db: Database, readingId: number): Promise<Standing> {
  const [row] = await db
    .select({ state: snapshots.state })
    .from(snapshots)
    .where(and(eq(snapshots.readingId, readingId), eq(snapshots.engine, ENGINE)));
  return row && ENGINE !== UNBUILT ? (row.state as Standing) : AT_THE_BEGINNING;
}

/** Remembers where a log stands, unless a later place is known. */
export async function storeSnapshot(db: Database, readingId: number, standing: Standing): Promise<void> {
  const row = { readingId, seq: standing.revision, engine: ENGINE, state: standing };
  await db
    .insert(snapshots)
    .values(row)
    .onConflictDoUpdate({
      target: snapshots.readingId,
      set: row,
      setWhere: sql`${snapshots.seq} < ${standing.revision} or ${snapshots.engine} <> ${ENGINE}`
    });
}

/** A log never was so long as somebody says: whoever says so knows another history. */
export class OtherHistory extends Error {}

/**
 * Appends acts if the log still ends at `base`; else changes nothing and returns what was missed.
 * @throws OtherHistory when the log never was so long
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
    const { acts: missed } = await actsAfter(db, readingId, base);
    return { conflict: true, revision: base + missed.length, missed };
  };
  const last = await revisionOf(db, readingId);
  if (last < base) throw new OtherHistory();
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
    const period = periodIn(fresh.map((a) => a.command));
    if (period)
      await db
        .update(pieces)
        .set({ period })
        .where(sql`${pieces.id} = (select piece_id from readings where id = ${readingId})`);
  } catch (error) {
    if (isConstraint(error)) return missedSince();
    throw error;
  }
  return { revision: base + fresh.length, already };
}

/** The period that the last of some acts chose, in itself or among what it carries out together; null where none did. */
function periodIn(acts: readonly Command[]): Period | null {
  const chosen = acts.flatMap((c) => (c.type === 'together' ? c.commands : [c])).findLast((c) => c.type === 'set-period');
  return chosen?.type === 'set-period' ? chosen.period : null;
}

/** All that the pages and files of a reading are made of, as it is stored: what is long stays text. */
export async function findEditionSource(db: Database, piece: Piece, readingId: number): Promise<EditionSource | undefined> {
  const document = await findDocument(db, piece.sourceHash);
  if (document === undefined) return undefined;
  const standing = await findSnapshot(db, readingId);
  const { acts } = await actsAfter(db, readingId, standing.revision, Number.MAX_SAFE_INTEGER - 1);
  const study = await findStudy(db, piece.sourceHash);
  const { title, composer, instrument, sourceName } = piece;
  return {
    document,
    standing,
    since: acts.map((a) => a.command),
    others: (await listSources(db, piece.id)).map(({ hash, name, document }) => ({ hash, name, document })),
    names: { title, composer, instrument, source: sourceName },
    facts: study?.facts ?? null
  };
}
