import Joi from 'joi';
import { ENGINE } from '../../../core/analysis/engine.ts';
import { schemaKit } from '../../../core/schema-kit.ts';
import type { Database } from '../db/open.ts';
import { pieces, studies } from '../db/schema.ts';
import type { StoredStudy } from '../study.ts';
import { EDITIONS } from './editions.ts';
import type { ArchivePart } from './part.ts';
import { READINGS } from './readings.ts';
import { SOURCES, storeSources, type ReadSource } from './sources.ts';
import { PAPER, WRITING } from './writing.ts';
import { line, LONGEST_LINE, notLater, seconds } from './values.ts';

const ARCHIVE_FORMAT = 'nuvelo-archive/1';

/** The sets of tables of which a piece is made, in the order in which they come back. */
const PARTS = { sources: SOURCES, readings: READINGS, editions: EDITIONS, writing: WRITING, paper: PAPER };

type PartKey = keyof typeof PARTS;
type PartValue<K extends PartKey> = (typeof PARTS)[K] extends ArchivePart<infer T> ? T[] : never;

/** All data of a piece in one record; times in seconds since 1970. Described in docs/archive.md. */
export type Archive = {
  format: typeof ARCHIVE_FORMAT;
  piece: { title: string; composer: string; instrument: string; bars: number; createdAt: number };
} & { [K in PartKey]: PartValue<K> };

const KEYS = Object.keys(PARTS) as PartKey[];
const partOf = (key: PartKey): ArchivePart<unknown> => PARTS[key] as ArchivePart<unknown>;

const kit = schemaKit(Joi);
const schemasOf = (keys: readonly PartKey[]) => Object.fromEntries(keys.map((key) => [key, partOf(key).schema]));
export const archiveSchema = kit.record(
  {
    format: kit.oneOf([ARCHIVE_FORMAT]),
    piece: kit.record({ title: line, composer: line, instrument: line, bars: kit.integer.min(1), createdAt: seconds }),
    ...schemasOf(KEYS.filter((key) => !partOf(key).later))
  },
  schemasOf(KEYS.filter((key) => partOf(key).later))
);

/** The archive of a piece as JSON, in pieces of text, an item of it at once. */
export async function* exportPiece(db: Database, row: typeof pieces.$inferSelect): AsyncGenerator<string> {
  const { title, composer, instrument, bars, createdAt } = row;
  const piece: Archive['piece'] = { title: fits(title), composer: fits(composer), instrument: fits(instrument), bars, createdAt };
  yield `{\n"format": ${JSON.stringify(ARCHIVE_FORMAT)},\n"piece": ${JSON.stringify(piece)}`;
  for (const key of KEYS) {
    yield `,\n${JSON.stringify(key)}: [`;
    let first = true;
    for await (const item of partOf(key).export(db, row.id)) {
      yield `${first ? '' : ','}\n${JSON.stringify(item)}`;
      first = false;
    }
    yield ']';
  }
  yield '\n}\n';
}

/** Titles were longer once than an archive takes. */
const fits = (words: string): string => words.slice(0, LONGEST_LINE);

/** An archive whose sources have been read here, with the study of the first. */
export interface ReadArchive extends Omit<Archive, 'sources'> {
  sources: ReadSource[];
  study: StoredStudy;
}

/** Puts an archived piece on the shelf, all or nothing. */
export async function importPiece(db: Database, owner: string, archive: ReadArchive): Promise<number> {
  return db.transaction(async (tx) => {
    await storeSources(tx, archive.sources);
    const [first] = archive.sources;
    const { facts, survey } = archive.study;
    await tx.insert(studies).values({ sourceHash: first.hash, engine: ENGINE, facts, survey }).onConflictDoNothing();
    const { title, composer, instrument, createdAt } = archive.piece;
    const [piece] = await tx
      .insert(pieces)
      .values({
        ...{ title: title.trim() || 'Untitled', composer, instrument, bars: first.bars, createdAt: notLater(createdAt) },
        ...{ owner, sourceHash: first.hash, sourceName: first.name.trim() || 'The source' }
      })
      .returning({ id: pieces.id });
    for (const key of KEYS) await partOf(key).import(tx, piece.id, archive[key]);
    return piece.id;
  });
}
