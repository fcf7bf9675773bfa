import { closeAllSessions } from './sessions.ts';
import type { Database } from '../db/open.ts';
import { set, settingOf } from '../db/settings.ts';
import { fits, hashed } from './passphrase.ts';

/** Keeps the owner's passphrase; another one signs everybody out. */
export async function keepPassphrase(db: Database, passphrase: string): Promise<void> {
  const kept = await settingOf(db, 'passphrase');
  if (kept && (await fits(passphrase, kept))) return;
  await set(db, 'passphrase', await hashed(passphrase));
  await closeAllSessions(db);
}

export const hasPassphrase = async (db: Database): Promise<boolean> => (await settingOf(db, 'passphrase')) !== null;

/** Whether this is the owner's passphrase; false where there is none. */
export async function isOwnersPassphrase(db: Database, passphrase: string): Promise<boolean> {
  const kept = await settingOf(db, 'passphrase');
  return kept !== null && fits(passphrase, kept);
}
