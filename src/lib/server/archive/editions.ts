import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import type { EditionInput } from '../../../core/edition/open-edition.ts';
import { schemaKit } from '../../../core/schema-kit.ts';
import { editions } from '../db/schema.ts';
import type { ArchivePart } from './part.ts';
import { base64, line, seconds } from './values.ts';

export interface ArchivedEdition {
  number: number;
  readingName: string;
  note: string;
  createdAt: number;
  content: EditionInput;
  pdf: string;
}

const kit = schemaKit(Joi);

const content = kit
  .record({
    document: Joi.string(),
    reading: Joi.object().unknown(),
    others: Joi.array().items(kit.record({ hash: kit.hash, name: line, document: Joi.string() })),
    names: kit.record({ title: line, composer: line, instrument: line, source: line }),
    facts: Joi.object().unknown().allow(null)
  })
  .unknown();

/** The frozen editions of a piece. */
export const EDITIONS: ArchivePart<ArchivedEdition[]> = {
  schema: Joi.array()
    .items(kit.record({ number: kit.integer.min(1), readingName: line, note: line, createdAt: seconds, content, pdf: base64 }))
    .unique('number')
    .max(1000),
  async export(db, pieceId) {
    const rows = await db.select().from(editions).where(eq(editions.pieceId, pieceId)).orderBy(asc(editions.number));
    return rows.map(({ number, readingName, note, createdAt, content, pdf }) => ({
      number,
      readingName,
      note,
      createdAt,
      content: content as EditionInput,
      pdf: pdf.toString('base64')
    }));
  },
  async import(tx, pieceId, list) {
    for (const e of list) await tx.insert(editions).values({ ...e, pieceId, pdf: Buffer.from(e.pdf, 'base64') });
  }
};
