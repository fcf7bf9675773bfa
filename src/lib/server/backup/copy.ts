import { mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import { pathToFileURL } from 'node:url';
import '../db/driver.ts';
import { createClient } from '@libsql/client';

/** A copy could not be made, or is not sound, in a sentence. */
export class BackupRefused extends Error {}

/** Whether every page of a database is sound and every reference leads somewhere. @throws BackupRefused */
export async function proveSound(path: string): Promise<void> {
  const client = createClient({ url: pathToFileURL(path).href });
  try {
    const { rows } = await client.execute('pragma integrity_check(1)');
    if (String(Object.values(rows[0])[0]) !== 'ok') throw new BackupRefused(`${path} is damaged: ${String(Object.values(rows[0])[0])}.`);
    const broken = await client.execute('pragma foreign_key_check');
    if (broken.rows.length) throw new BackupRefused(`${path} has entries that hang on others which are not in it.`);
  } catch (error) {
    if (error instanceof BackupRefused) throw error;
    throw new BackupRefused(`${path} is damaged or no database.`);
  } finally {
    client.close();
  }
}

/**
 * Copies the database in a file into another file, in one consistent state, while others go on writing; the copy is proved
 * before it takes its name. Heavy: not for the server's main thread.
 * @throws BackupRefused
 */
export async function copyDatabase(from: string, to: string): Promise<void> {
  const unproved = `${to}.unproved`;
  mkdirSync(dirname(to), { recursive: true });
  rmSync(unproved, { force: true });
  const client = createClient({ url: pathToFileURL(from).href, timeout: 10_000 });
  try {
    await client.execute({ sql: 'vacuum into ?', args: [unproved] });
    await proveSound(unproved);
    renameSync(unproved, to);
  } finally {
    client.close();
    rmSync(unproved, { force: true });
  }
}
