import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import { schemaKit } from '../../../core/schema-kit.ts';
import { comparedSources, pieces, sources } from '../db/schema.ts';
import { hashOf } from '../hash.ts';
import { ArchiveError, type ArchivePart, type Tables } from './part.ts';
import { base64, line, seconds } from './values.ts';

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

/** Stores the sources themselves, before the piece that hangs on them. @throws ArchiveError where one is damaged or was read in another way here */
export async function storeSources(tx: Tables, list: readonly ArchivedSource[]): Promise<void> {
  for (const { hash, name, fileName, format, createdAt, document, bytes } of list) {
    const file = Buffer.from(bytes, 'base64');
    if (hashOf(file) !== hash)
      throw new ArchiveError(`The source “${name}” in the archive is damaged: its bytes are not those that its sum was made of.`);
    const [known] = await tx.select({ document: sources.document }).from(sources).where(eq(sources.hash, hash));
    if (known && known.document !== document)
      throw new ArchiveError(`The source “${name}” is here already and was read in another way by another version of this program.`);
    if (!known) await tx.insert(sources).values({ hash, fileName, format, createdAt, document, bytes: file });
  }
}

/** The sources of a piece; the first one is that which the pages follow. */
export const SOURCES: ArchivePart<ArchivedSource[]> = {
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
  async export(db, pieceId) {
    const [piece] = await db.select().from(pieces).where(eq(pieces.id, pieceId));
    const further = await db.select().from(comparedSources).where(eq(comparedSources.pieceId, pieceId)).orderBy(asc(comparedSources.id));
    const found: ArchivedSource[] = [];
    for (const { sourceHash, name } of [{ sourceHash: piece.sourceHash, name: piece.sourceName }, ...further]) {
      const [{ hash, fileName, format, createdAt, bytes, document }] = await db.select().from(sources).where(eq(sources.hash, sourceHash));
      found.push({ hash, name, fileName, format, createdAt, bytes: bytes.toString('base64'), document });
    }
    return found;
  },
  async import(tx, pieceId, [, ...further]) {
    for (const { hash, name } of further) await tx.insert(comparedSources).values({ pieceId, sourceHash: hash, name });
  }
};
