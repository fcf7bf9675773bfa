import { and, desc, eq, sql } from 'drizzle-orm';
import type { Written } from '../../../core/writing/written.ts';
import type { Database, Tables } from '../db/open.ts';
import { writings } from '../db/schema.ts';
import type { WritingLine, WritingState } from '../../shapes.ts';

const titleOf = (w: Written): string => w.head.title.trim() || 'Untitled';

/** What a person is writing, the latest first; what stands on the shelf too. */
export const listWritings = (db: Database, owner: string): Promise<WritingLine[]> =>
  db
    .select({ id: writings.id, title: writings.title, pieceId: writings.pieceId, updatedAt: writings.updatedAt })
    .from(writings)
    .where(eq(writings.owner, owner))
    .orderBy(desc(writings.updatedAt), desc(writings.id));

export async function addWriting(db: Tables, owner: string, content: Written, pieceId: number | null = null): Promise<number> {
  const [row] = await db
    .insert(writings)
    .values({ owner, content, pieceId, title: titleOf(content) })
    .returning({ id: writings.id });
  return row.id;
}

export async function findWriting(db: Database, owner: string, id: number): Promise<WritingState | undefined> {
  const [row] = await db
    .select({ content: writings.content, revision: writings.revision, lastSave: writings.lastSave, pieceId: writings.pieceId })
    .from(writings)
    .where(and(eq(writings.id, id), eq(writings.owner, owner)));
  return row && { ...row, content: row.content as Written };
}

/** What a piece was written in. */
export async function writingOfPiece(db: Tables, pieceId: number): Promise<number | undefined> {
  const [row] = await db
    .select({ id: writings.id })
    .from(writings)
    .where(eq(writings.pieceId, pieceId))
    .orderBy(desc(writings.id))
    .limit(1);
  return row?.id;
}

/** Saves it over a revision. @returns whether it still stood there */
export async function saveWriting(
  db: Database,
  owner: string,
  id: number,
  { base, save, content }: { base: number; save: string; content: Written }
): Promise<boolean> {
  const saved = await db
    .update(writings)
    .set({ content, title: titleOf(content), revision: base + 1, lastSave: save, updatedAt: sql`(unixepoch())` })
    .where(and(eq(writings.id, id), eq(writings.owner, owner), eq(writings.revision, base)))
    .returning({ id: writings.id });
  return saved.length > 0;
}

/** The piece that it stands on the shelf as. */
export const shelveWriting = async (db: Database, owner: string, id: number, pieceId: number): Promise<void> => {
  await db
    .update(writings)
    .set({ pieceId })
    .where(and(eq(writings.id, id), eq(writings.owner, owner)));
};

export const removeWriting = async (db: Database, owner: string, id: number): Promise<void> => {
  await db.delete(writings).where(and(eq(writings.id, id), eq(writings.owner, owner)));
};
