import { asc, eq } from 'drizzle-orm';
import { ENGINE } from '../../core/analysis/analyse.ts';
import type { Command } from '../../core/reading/commands/index.ts';
import type { Database } from './db/client.ts';
import { commands, comparedSources, editions, pieces, readings, sources, studies } from './db/schema.ts';
import type { EditionInput } from '../../core/edition/open-edition.ts';
import { hashOf, type Study } from './repositories/pieces.ts';

const ARCHIVE_FORMAT = 'nuvelo-archive/1';

interface ArchivedSource {
  hash: string;
  name: string;
  fileName: string;
  format: 'musicxml' | 'abc';
  createdAt: number;
  /** The file as it came in, in base64, and the document in which all places count. */
  bytes: string;
  document: string;
}

/** All data of a piece in one record; times in seconds since 1970. Described in docs/archive.md. */
export interface Archive {
  format: typeof ARCHIVE_FORMAT;
  piece: { title: string; composer: string; instrument: string; bars: number; createdAt: number };
  /** The first one is that which the pages follow. */
  sources: ArchivedSource[];
  readings: { name: string; createdAt: number; acts: { command: Command; at: number }[] }[];
  editions: { number: number; readingName: string; note: string; createdAt: number; content: EditionInput; pdf: string }[];
}

/** An archive that cannot be taken in, in one sentence. */
export class ArchiveError extends Error {}

/** A piece with everything that belongs to it; undefined when it is not there. */
export async function exportPiece(db: Database, pieceId: number): Promise<Archive | undefined> {
  const [piece] = await db.select().from(pieces).where(eq(pieces.id, pieceId));
  if (!piece) return undefined;
  const { title, composer, instrument, bars, createdAt } = piece;
  const further = await db.select().from(comparedSources).where(eq(comparedSources.pieceId, pieceId)).orderBy(asc(comparedSources.id));
  const named = [{ sourceHash: piece.sourceHash, name: piece.sourceName }, ...further];
  const archive: Archive = {
    format: ARCHIVE_FORMAT,
    piece: { title, composer, instrument, bars, createdAt },
    sources: [],
    readings: [],
    editions: []
  };
  for (const { sourceHash, name } of named) {
    const [s] = await db.select().from(sources).where(eq(sources.hash, sourceHash));
    archive.sources.push({
      hash: s.hash,
      name,
      fileName: s.fileName,
      format: s.format,
      createdAt: s.createdAt,
      bytes: s.bytes.toString('base64'),
      document: s.document
    });
  }
  for (const r of await db.select().from(readings).where(eq(readings.pieceId, pieceId)).orderBy(asc(readings.id))) {
    const log = await db.select().from(commands).where(eq(commands.readingId, r.id)).orderBy(asc(commands.seq));
    archive.readings.push({
      name: r.name,
      createdAt: r.createdAt,
      acts: log.map((c) => ({ command: c.command as Command, at: c.createdAt }))
    });
  }
  for (const e of await db.select().from(editions).where(eq(editions.pieceId, pieceId)).orderBy(asc(editions.number)))
    archive.editions.push({
      number: e.number,
      readingName: e.readingName,
      note: e.note,
      createdAt: e.createdAt,
      content: e.content as EditionInput,
      pdf: e.pdf.toString('base64')
    });
  return archive;
}

/** How many rows go into the database at once. */
const ROWS = 400;

/**
 * Puts an archived piece on the shelf, all or nothing; the archive fits its schema.
 * @param study of the first source, worked out by this engine
 * @throws ArchiveError when a source is damaged or stands here in another version
 */
export async function importPiece(db: Database, archive: Archive, study: Study): Promise<number> {
  for (const s of archive.sources)
    if (hashOf(Buffer.from(s.bytes, 'base64')) !== s.hash)
      throw new ArchiveError(`The source “${s.name}” in the archive is damaged: its bytes are not those that its sum was made of.`);
  return db.transaction(async (tx) => {
    for (const s of archive.sources) {
      const [known] = await tx.select({ document: sources.document }).from(sources).where(eq(sources.hash, s.hash));
      if (known && known.document !== s.document)
        throw new ArchiveError(`The source “${s.name}” is here already and was read in another way by another version of this program.`);
      if (known) continue;
      const { hash, fileName, format, createdAt, document } = s;
      await tx.insert(sources).values({ hash, fileName, format, createdAt, document, bytes: Buffer.from(s.bytes, 'base64') });
    }
    const [first, ...further] = archive.sources;
    await tx
      .insert(studies)
      .values({ sourceHash: first.hash, engine: ENGINE, facts: study.facts, survey: study.survey })
      .onConflictDoNothing();
    const [piece] = await tx
      .insert(pieces)
      .values({ ...archive.piece, sourceHash: first.hash, sourceName: first.name })
      .returning({ id: pieces.id });
    for (const s of further) await tx.insert(comparedSources).values({ pieceId: piece.id, sourceHash: s.hash, name: s.name });
    for (const r of archive.readings) {
      const [row] = await tx
        .insert(readings)
        .values({ pieceId: piece.id, name: r.name, createdAt: r.createdAt })
        .returning({ id: readings.id });
      for (let k = 0; k < r.acts.length; k += ROWS)
        await tx
          .insert(commands)
          .values(r.acts.slice(k, k + ROWS).map(({ command, at }, i) => ({ readingId: row.id, seq: k + i + 1, command, createdAt: at })));
    }
    for (const e of archive.editions) await tx.insert(editions).values({ ...e, pieceId: piece.id, pdf: Buffer.from(e.pdf, 'base64') });
    return piece.id;
  });
}
