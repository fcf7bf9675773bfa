import { asc, eq, max } from 'drizzle-orm';
import type { Database } from '../db/client.ts';
import { editions } from '../db/schema.ts';
import { OWNER } from '../owner.ts';
import type { EditionRow } from '../../shapes.ts';
import type { EditionInput } from '../../../core/edition/open-edition.ts';

const ROW = {
  id: editions.id,
  number: editions.number,
  readingName: editions.readingName,
  note: editions.note,
  createdAt: editions.createdAt
};

/** Editions of a piece, the first one first. */
export const listEditions = (db: Database, pieceId: number): Promise<EditionRow[]> =>
  db.select(ROW).from(editions).where(eq(editions.pieceId, pieceId)).orderBy(asc(editions.number));

/** Freezes what a reading is now, with its pages, under the piece's next number. */
export async function addEdition(
  db: Database,
  pieceId: number,
  edition: { readingName: string; note: string; content: EditionInput; pdf: Uint8Array },
  author = OWNER
): Promise<EditionRow> {
  return db.transaction(async (tx) => {
    const [{ last }] = await tx
      .select({ last: max(editions.number) })
      .from(editions)
      .where(eq(editions.pieceId, pieceId));
    const [row] = await tx
      .insert(editions)
      .values({ ...edition, author, pieceId, number: (last ?? 0) + 1, pdf: Buffer.from(edition.pdf) })
      .returning(ROW);
    return row;
  });
}

export async function findEdition(
  db: Database,
  id: number
): Promise<{ pieceId: number; number: number; content: EditionInput; pdf: Buffer } | undefined> {
  const [row] = await db.select().from(editions).where(eq(editions.id, id));
  return row && { pieceId: row.pieceId, number: row.number, content: row.content as EditionInput, pdf: row.pdf };
}
