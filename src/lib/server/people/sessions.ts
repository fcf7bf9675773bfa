import { createHash, randomBytes } from 'node:crypto';
import { and, eq, gt, lte, sql } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { sessions } from '../db/schema.ts';

/** Name of the cookie that says who is signed in. */
export const COOKIE = 'nuvelo-session';
/** Days for which one stays signed in. Set by hand. */
export const SESSION_DAYS = 30;

const sumOf = (token: string): string => createHash('sha256').update(token).digest('hex');
const now = sql`(unixepoch())`;

/** Signs a person in. @returns the token for their cookie, of which only the sum is kept */
export async function openSession(db: Database, person: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await db.delete(sessions).where(lte(sessions.expiresAt, now));
  const expiresAt = Math.floor(Date.now() / 1000) + SESSION_DAYS * 86_400;
  await db.insert(sessions).values({ token: sumOf(token), person, expiresAt });
  return token;
}

/** Whose token this is; null where nobody is signed in with it any more. */
export async function personOf(db: Database, token: string): Promise<string | null> {
  const [row] = await db
    .select({ person: sessions.person })
    .from(sessions)
    .where(and(eq(sessions.token, sumOf(token)), gt(sessions.expiresAt, now)));
  return row?.person ?? null;
}

export async function closeSession(db: Database, token: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.token, sumOf(token)));
}

/** Signs everybody out, as after another passphrase. */
export async function closeAllSessions(db: Database): Promise<void> {
  await db.delete(sessions);
}
