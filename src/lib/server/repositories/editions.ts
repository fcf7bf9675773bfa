import { asc, eq, max, sql } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
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

/** A frozen edition; what it was made of as text. */
export async function findEdition(
  db: Database,
  id: number
): Promise<{ pieceId: number; number: number; title: string; content: string } | undefined> {
  const [row] = await db
    .select({
      pieceId: editions.pieceId,
      number: editions.number,
      title: sql<string>`json_extract(${editions.content}, '$.names.title')`,
      content: sql<string>`${editions.content}`
    })
    .from(editions)
    .where(eq(editions.id, id));
  return row;
}

/** The PDF as it was frozen. */
export async function findPdf(db: Database, id: number): Promise<Buffer | undefined> {
  return (await db.select({ pdf: editions.pdf }).from(editions).where(eq(editions.id, id)))[0]?.pdf;
}
