import Joi from 'joi';
import { eq } from 'drizzle-orm';
import { ENGINE } from '../../../core/analysis/engine.ts';
import { schemaKit } from '../../../core/schema-kit.ts';
import type { Database } from '../db/client.ts';
import { pieces, studies } from '../db/schema.ts';
import type { StoredStudy } from '../study.ts';
import { EDITIONS } from './editions.ts';
import type { ArchivePart } from './part.ts';
import { READINGS } from './readings.ts';
import { SOURCES, storeSources } from './sources.ts';
import { line, seconds } from './values.ts';

const ARCHIVE_FORMAT = 'nuvelo-archive/1';

/** The sets of tables of which a piece is made, in the order in which they come back. */
const PARTS = { sources: SOURCES, readings: READINGS, editions: EDITIONS };

type PartKey = keyof typeof PARTS;
type PartValue<K extends PartKey> = (typeof PARTS)[K] extends ArchivePart<infer T> ? T : never;

/** All data of a piece in one record; times in seconds since 1970. Described in docs/archive.md. */
export type Archive = {
  format: typeof ARCHIVE_FORMAT;
  piece: { title: string; composer: string; instrument: string; bars: number; createdAt: number };
} & { [K in PartKey]: PartValue<K> };

const KEYS = Object.keys(PARTS) as PartKey[];
const partOf = (key: PartKey): ArchivePart<unknown> => PARTS[key] as ArchivePart<unknown>;

const kit = schemaKit(Joi);
export const archiveSchema = kit.record({
  format: kit.oneOf([ARCHIVE_FORMAT]),
  piece: kit.record({ title: line, composer: line, instrument: line, bars: kit.integer.min(1), createdAt: seconds }),
  ...Object.fromEntries(KEYS.map((key) => [key, partOf(key).schema]))
});

/** A piece with everything that belongs to it; undefined when it is not there. */
export async function exportPiece(db: Database, pieceId: number): Promise<Archive | undefined> {
  const [piece] = await db.select().from(pieces).where(eq(pieces.id, pieceId));
  if (!piece) return undefined;
  const { title, composer, instrument, bars, createdAt } = piece;
  const archive: Record<string, unknown> = { format: ARCHIVE_FORMAT, piece: { title, composer, instrument, bars, createdAt } };
  for (const key of KEYS) archive[key] = await partOf(key).export(db, pieceId);
  return archive as unknown as Archive;
}

/**
 * Puts an archived piece on the shelf, all or nothing; the archive fits its schema.
 * @param study of the first source, worked out by this engine
 * @throws ArchiveError when a source is damaged or stands here in another version
 */
export async function importPiece(db: Database, owner: string, archive: Archive, study: StoredStudy): Promise<number> {
  return db.transaction(async (tx) => {
    await storeSources(tx, archive.sources);
    const [first] = archive.sources;
    await tx
      .insert(studies)
      .values({ sourceHash: first.hash, engine: ENGINE, facts: study.facts, survey: study.survey })
      .onConflictDoNothing();
    const [piece] = await tx
      .insert(pieces)
      .values({ ...archive.piece, owner, sourceHash: first.hash, sourceName: first.name })
      .returning({ id: pieces.id });
    for (const key of KEYS) await partOf(key).import(tx, piece.id, archive[key]);
    return piece.id;
  });
}
