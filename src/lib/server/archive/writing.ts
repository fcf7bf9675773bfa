import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import { schemaKit } from '../../../core/schema-kit.ts';
import type { CutSystem } from '../../../core/writing/facsimile.ts';
import { writtenSchema } from '../../../core/writing/schema.ts';
import type { Written } from '../../../core/writing/written.ts';
import { facsimilePages, pieces, writings } from '../db/schema.ts';
import { MOST_PAGES, pictureKind } from '../repositories/facsimiles.ts';
import { addWriting, writingOfPiece } from '../repositories/writings.ts';
import { cutSystems } from '../schemas.ts';
import type { ArchivePart } from './part.ts';
import { base64 } from './values.ts';

const kit = schemaKit(Joi);

/** What a piece was written in; an older archive has none. */
export const WRITING: ArchivePart<{ content: Written }> = {
  later: true,
  schema: Joi.array()
    .items(kit.record({ content: writtenSchema(kit) }))
    .max(1)
    .default([]),
  async *export(db, pieceId) {
    const [row] = await db.select({ content: writings.content }).from(writings).where(eq(writings.pieceId, pieceId)).limit(1);
    if (row) yield { content: row.content as Written };
  },
  async import(tx, pieceId, [writing]) {
    if (!writing) return;
    const [piece] = await tx.select({ owner: pieces.owner }).from(pieces).where(eq(pieces.id, pieceId));
    await addWriting(tx, piece.owner, writing.content, pieceId);
  }
};

export interface ArchivedPage {
  /** The picture, in base64: PNG or JPEG. */
  bytes: string;
  cuts: CutSystem[];
}

/** Base64 of the first bytes of a picture that is taken. */
const picture = base64.custom((value: string, helpers) =>
  pictureKind(Buffer.from(value.slice(0, 16), 'base64')) ? value : helpers.message({ custom: '{#label} is no picture' })
);

/** The pages of paper that it was written from, in their order. */
export const PAPER: ArchivePart<ArchivedPage> = {
  later: true,
  schema: Joi.array()
    .items(kit.record({ bytes: picture, cuts: cutSystems }))
    .max(MOST_PAGES)
    .default([]),
  async *export(db, pieceId) {
    const writing = await writingOfPiece(db, pieceId);
    if (writing === undefined) return;
    const ids = await db
      .select({ id: facsimilePages.id })
      .from(facsimilePages)
      .where(eq(facsimilePages.writingId, writing))
      .orderBy(asc(facsimilePages.id));
    for (const { id } of ids) {
      const [{ bytes, cuts }] = await db.select().from(facsimilePages).where(eq(facsimilePages.id, id));
      yield { bytes: bytes.toString('base64'), cuts: cuts as CutSystem[] };
    }
  },
  async import(tx, pieceId, pages) {
    const writingId = await writingOfPiece(tx, pieceId);
    if (writingId === undefined) return;
    for (const { bytes, cuts } of pages) {
      const picture = Buffer.from(bytes, 'base64');
      await tx.insert(facsimilePages).values({ writingId, mime: pictureKind(picture)!, bytes: picture, cuts });
    }
  }
};
