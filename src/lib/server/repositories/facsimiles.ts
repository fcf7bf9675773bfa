import { and, asc, count, eq, sql } from 'drizzle-orm';
import type { CutSystem } from '../../../core/writing/facsimile.ts';
import type { Database } from '../db/open.ts';
import { facsimilePages } from '../db/schema.ts';
import type { FacsimilePage } from '../../shapes.ts';

export type Mime = (typeof facsimilePages.$inferSelect)['mime'];

/** Pages of paper that belong to one score, at most. */
export const MOST_PAGES = 80;

/** The kind of a picture by its first bytes; null where it is none. */
export function pictureKind(bytes: Uint8Array): Mime | null {
  const begins = (...sign: number[]): boolean => sign.every((b, k) => bytes[k] === b);
  // PNG (W3C, 2003), 5.2; JPEG (ITU-T T.81), B.2.1.
  if (begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  return begins(0xff, 0xd8, 0xff) ? 'image/jpeg' : null;
}

/** Pages of a writing in their order, without their pictures. */
export async function listPages(db: Database, writingId: number): Promise<FacsimilePage[]> {
  const rows = await db
    .select({ id: facsimilePages.id, cuts: facsimilePages.cuts })
    .from(facsimilePages)
    .where(eq(facsimilePages.writingId, writingId))
    .orderBy(asc(facsimilePages.id));
  return rows.map(({ id, cuts }) => ({ id, cuts: cuts as CutSystem[] }));
}

export async function addPage(db: Database, writingId: number, mime: Mime, bytes: Uint8Array, cuts: CutSystem[]): Promise<number> {
  const [row] = await db
    .insert(facsimilePages)
    .values({ writingId, mime, bytes: Buffer.from(bytes), cuts })
    .returning({ id: facsimilePages.id });
  return row.id;
}

export async function countPages(db: Database, writingId: number): Promise<number> {
  const [{ n }] = await db.select({ n: count() }).from(facsimilePages).where(eq(facsimilePages.writingId, writingId));
  return n;
}

const one = (writingId: number, id: number) => and(eq(facsimilePages.writingId, writingId), eq(facsimilePages.id, id));

export async function findPicture(db: Database, writingId: number, id: number): Promise<{ mime: Mime; bytes: Buffer } | undefined> {
  const [row] = await db.select({ mime: facsimilePages.mime, bytes: facsimilePages.bytes }).from(facsimilePages).where(one(writingId, id));
  return row;
}

/** @returns whether the page is there */
export async function cutPage(db: Database, writingId: number, id: number, cuts: CutSystem[]): Promise<boolean> {
  const cut = await db.update(facsimilePages).set({ cuts }).where(one(writingId, id)).returning({ id: facsimilePages.id });
  return cut.length > 0;
}

/** @returns whether the page was there */
export async function removePage(db: Database, writingId: number, id: number): Promise<boolean> {
  const removed = await db.delete(facsimilePages).where(one(writingId, id)).returning({ id: facsimilePages.id });
  return removed.length > 0;
}

/** Gives another writing the same pages. */
export async function copyPages(db: Database, from: number, to: number): Promise<void> {
  const { mime, bytes, cuts } = facsimilePages;
  await db.insert(facsimilePages).select(
    db
      .select({ id: sql<number>`null`.as('id'), writingId: sql<number>`${to}`.as('writing_id'), mime, bytes, cuts })
      .from(facsimilePages)
      .where(eq(facsimilePages.writingId, from))
      .orderBy(asc(facsimilePages.id))
  );
}
