import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import type { EditionInput } from '../../../core/edition/open-edition.ts';
import { readingSchema } from '../../../core/reading/reading-schema.ts';
import { schemaKit } from '../../../core/schema-kit.ts';
import { editions } from '../db/schema.ts';
import type { ArchivePart } from './part.ts';
import { base64, line, notLater, seconds } from './values.ts';

export interface ArchivedEdition {
  number: number;
  readingName: string;
  note: string;
  createdAt: number;
  content: EditionInput;
  pdf: string;
}

const kit = schemaKit(Joi);

const content = kit.record(
  {
    document: Joi.string(),
    reading: readingSchema(kit),
    others: kit.list(kit.record({ hash: kit.hash, name: line, document: Joi.string() }), 20),
    names: kit.record({ title: line, composer: line, instrument: line, source: line })
  },
  // What an analysis found is never taken on trust: it is worked out anew from the document.
  { facts: Joi.any().empty(Joi.any()).default(null) }
);

/** A PDF begins so (ISO 32000-1, 7.5.2). */
const PDF = Buffer.from('%PDF-').toString('base64').slice(0, 6);

/** The frozen editions of a piece. */
export const EDITIONS: ArchivePart<ArchivedEdition> = {
  schema: Joi.array()
    .items(
      kit.record({
        number: kit.integer.min(1),
        readingName: line,
        note: line,
        createdAt: seconds,
        content,
        pdf: base64.pattern(new RegExp(`^${PDF}`)).messages({ 'string.pattern.base': '{#label} is no PDF' })
      })
    )
    .unique('number')
    .max(1000),
  async *export(db, pieceId) {
    const numbers = await db.select({ id: editions.id }).from(editions).where(eq(editions.pieceId, pieceId)).orderBy(asc(editions.number));
    for (const { id } of numbers) {
      const [{ number, readingName, note, createdAt, content, pdf }] = await db.select().from(editions).where(eq(editions.id, id));
      yield { number, readingName, note, createdAt, content: { ...(content as EditionInput), facts: null }, pdf: pdf.toString('base64') };
    }
  },
  async import(tx, pieceId, list) {
    for (const e of list)
      await tx.insert(editions).values({ ...e, createdAt: notLater(e.createdAt), pieceId, pdf: Buffer.from(e.pdf, 'base64') });
  }
};
