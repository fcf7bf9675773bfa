import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import { schemaKit } from '../../../core/schema-kit.ts';
import { comparedSources, pieces, sources } from '../db/schema.ts';
import { openScore } from '../../../core/score/read-file.ts';
import { hashOf } from '../hash.ts';
import type { Tables } from '../db/open.ts';
import { ArchiveError, type ArchivePart } from './part.ts';
import { base64, line, notLater, seconds } from './values.ts';

export interface ArchivedSource {
  hash: string;
  name: string;
  fileName: string;
  format: 'musicxml' | 'abc';
  createdAt: number;
  /** The file as it came in, in base64, and the document in which all places count. */
  bytes: string;
  document: string;
}

const kit = schemaKit(Joi);

/** A source as its bytes were read here, whatever the archive said of it. */
export interface ReadSource extends ArchivedSource {
  parts: number;
  bars: number;
}

/** Reads a source anew from its bytes. @throws ArchiveError where they are damaged */
export function readSource(source: ArchivedSource): ReadSource {
  const bytes = Buffer.from(source.bytes, 'base64');
  if (hashOf(bytes) !== source.hash)
    throw new ArchiveError(`The source “${source.name}” in the archive is damaged: its bytes are not those that its sum was made of.`);
  const { text, format, score } = openScore(bytes, source.fileName);
  return { ...source, format, document: text, parts: score.parts.length, bars: score.measures.length };
}

/** Stores the sources themselves, before the piece that hangs on them. */
export async function storeSources(tx: Tables, list: readonly ReadSource[]): Promise<void> {
  for (const { hash, fileName, format, createdAt, document, bytes, parts } of list)
    await tx
      .insert(sources)
      .values({ hash, fileName, format, createdAt: notLater(createdAt), document, parts, bytes: Buffer.from(bytes, 'base64') })
      .onConflictDoNothing();
}

/** The sources of a piece; the first one is that which the pages follow. */
export const SOURCES: ArchivePart<ArchivedSource> = {
  schema: Joi.array()
    .items(
      kit.record({
        hash: kit.hash,
        name: line,
        fileName: line,
        format: kit.oneOf(['musicxml', 'abc']),
        createdAt: seconds,
        bytes: base64,
        document: Joi.string()
      })
    )
    .min(1)
    .max(20),
  async *export(db, pieceId) {
    const [piece] = await db.select().from(pieces).where(eq(pieces.id, pieceId));
    const further = await db.select().from(comparedSources).where(eq(comparedSources.pieceId, pieceId)).orderBy(asc(comparedSources.id));
    for (const { sourceHash, name } of [{ sourceHash: piece.sourceHash, name: piece.sourceName }, ...further]) {
      const [{ hash, fileName, format, createdAt, bytes, document }] = await db.select().from(sources).where(eq(sources.hash, sourceHash));
      yield { hash, name, fileName, format, createdAt, bytes: bytes.toString('base64'), document };
    }
  },
  async import(tx, pieceId, [, ...further]) {
    for (const { hash, name } of further) await tx.insert(comparedSources).values({ pieceId, sourceHash: hash, name });
  }
};
