import { and, asc, eq } from 'drizzle-orm';
import type { Player } from '../../../core/players/player.ts';
import type { Database } from '../db/open.ts';
import { players } from '../db/schema.ts';

/** What is said of a player, without its key. */
export type PlayerContent = Omit<Player, 'key'>;

const mine = (owner: string, key: string) => and(eq(players.owner, owner), eq(players.key, key));

/** All players of a person, the first one first. */
export async function listPlayers(db: Database, owner: string): Promise<Player[]> {
  const rows = await db
    .select({ key: players.key, content: players.content })
    .from(players)
    .where(eq(players.owner, owner))
    .orderBy(asc(players.id));
  return rows.map(({ key, content }) => ({ ...(content as PlayerContent), key }));
}

/** Keeps what is said of a player, whether it is new or known: the same sent twice stands once. */
export const keepPlayer = async (db: Database, owner: string, key: string, content: PlayerContent): Promise<void> => {
  await db
    .insert(players)
    .values({ owner, key, content })
    .onConflictDoUpdate({ target: [players.owner, players.key], set: { content } });
};

/** @returns whether there was such a player */
export const removePlayer = async (db: Database, owner: string, key: string): Promise<boolean> =>
  (await db.delete(players).where(mine(owner, key)).returning({ id: players.id })).length > 0;
