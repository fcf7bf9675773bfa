import { and, asc, count, eq } from 'drizzle-orm';
import type { CutSystem } from '../../../core/writing/facsimile.ts';
import type { Database } from '../db/open.ts';
import { facsimilePages } from '../db/schema.ts';
import type { FacsimilePage } from '../../shapes.ts';

export type Mime = (typeof facsimilePages.$inferSelect)['mime'];

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

export const cutPage = async (db: Database, writingId: number, id: number, cuts: CutSystem[]): Promise<void> => {
  await db.update(facsimilePages).set({ cuts }).where(one(writingId, id));
};

export const removePage = async (db: Database, writingId: number, id: number): Promise<void> => {
  await db.delete(facsimilePages).where(one(writingId, id));
};
