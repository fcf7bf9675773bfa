import { eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { Database } from './open.ts';
import { settings } from './schema.ts';

type Key = 'identity' | 'passphrase' | 'last-backup';

export async function settingOf(db: Pick<Database, 'select'>, key: Key): Promise<string | null> {
  return (await db.select().from(settings).where(eq(settings.key, key)))[0]?.value ?? null;
}

export async function set(db: Pick<Database, 'insert'>, key: Key, value: string): Promise<void> {
  await db.insert(settings).values({ key, value }).onConflictDoUpdate({ target: settings.key, set: { value } });
}

/** The name of this very history; a backup that is restored gets another, so that nobody goes on in the wrong one. */
export async function identityOf(db: Database): Promise<string> {
  const known = await settingOf(db, 'identity');
  // Written only once: whoever reads must not need the right to write.
  if (known !== null) return known;
  await db.insert(settings).values({ key: 'identity', value: nanoid() }).onConflictDoNothing();
  return (await settingOf(db, 'identity'))!;
}
