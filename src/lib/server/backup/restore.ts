import { copyFileSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import '../db/driver.ts';
import { createClient, type Client } from '@libsql/client';
import { nanoid } from 'nanoid';
import { DatabaseRefused, openDatabase } from '../db/open.ts';
import { BackupRefused, copyDatabase, proveSound } from './copy.ts';
import { backupFolder } from './nightly.ts';

/** Tables that stay as they are: who may come in is no matter of a backup. */
const OWN = ['__drizzle_migrations', 'sessions', 'claims'];
/** How long other windows and processes are waited for, in milliseconds. */
const WAIT_MS = 20_000;

const named = (name: string): string => `"${name.replaceAll('"', '""')}"`;

async function tablesOf(client: Client): Promise<string[]> {
  const { rows } = await client.execute("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'");
  return rows.map((r) => String(r.name)).filter((name) => !OWN.includes(name));
}

async function columnsOf(client: Client, table: string): Promise<string> {
  const { rows } = await client.execute(`pragma table_info(${named(table)})`);
  return rows.map((r) => named(String(r.name))).join(', ');
}

/**
 * Puts everything that stands in a backup in the place of what is in the database, in one transaction, also while a server
 * runs on it. What was there is copied first; the database gets another identity, so that windows which know what was there
 * stop instead of going on in another history. The passphrase stays.
 * @param file of the database @returns the copy of what was there, null where nothing was
 * @throws BackupRefused or DatabaseRefused with a sentence; nothing is changed then
 */
export async function restore(
  backup: string,
  file: string,
  stamp = new Date().toISOString().replace(/[:.]/g, '-')
): Promise<string | null> {
  if (!existsSync(backup)) throw new BackupRefused(`There is no file ${backup}.`);
  const room = mkdtempSync(join(tmpdir(), 'nuvelo-restore-'));
  try {
    const copy = join(room, 'nuvelo.db');
    copyFileSync(backup, copy);
    await proveSound(copy);
    (await openDatabase(pathToFileURL(copy).href, room)).$client.close();
    const before = await setAside(file, stamp);
    await putInPlace(copy, file);
    return before;
  } finally {
    rmSync(room, { recursive: true, force: true });
  }
}

/** Copies what is there; what is damaged is moved away. */
async function setAside(file: string, stamp: string): Promise<string | null> {
  if (!existsSync(file)) {
    mkdirSync(dirname(file), { recursive: true });
    (await openDatabase(pathToFileURL(file).href, dirname(file))).$client.close();
    return null;
  }
  const kept = join(backupFolder(file), `before-restore-${stamp}.db`);
  try {
    (await openDatabase(pathToFileURL(file).href, dirname(file))).$client.close();
    await copyDatabase(file, kept);
    return kept;
  } catch (error) {
    const damaged = error instanceof BackupRefused || (error instanceof DatabaseRefused && /damaged/.test(error.message));
    if (!damaged) throw error;
    mkdirSync(dirname(kept), { recursive: true });
    renameSync(file, kept);
    for (const ending of ['-wal', '-shm']) rmSync(file + ending, { force: true });
    (await openDatabase(pathToFileURL(file).href, dirname(file))).$client.close();
    return kept;
  }
}

async function putInPlace(copy: string, file: string): Promise<void> {
  // One connection: what is attached to it is seen in its transaction.
  const client = createClient({ url: pathToFileURL(file).href, timeout: WAIT_MS, concurrency: 1 });
  try {
    await client.execute('pragma foreign_keys = off');
    await client.execute({ sql: 'attach ? as backup', args: [copy] });
    const tables = await tablesOf(client);
    const columns = new Map<string, string>();
    for (const table of tables) columns.set(table, await columnsOf(client, table));
    const tx = await client.transaction('write');
    try {
      const kept = await tx.execute("select value from settings where key = 'passphrase'");
      for (const table of tables) {
        await tx.execute(`delete from main.${named(table)}`);
        await tx.execute(
          `insert into main.${named(table)} (${columns.get(table)}) select ${columns.get(table)} from backup.${named(table)}`
        );
      }
      const setting = 'insert into settings (key, value) values (?, ?) on conflict (key) do update set value = excluded.value';
      await tx.execute({ sql: setting, args: ['identity', nanoid()] });
      if (kept.rows.length) await tx.execute({ sql: setting, args: ['passphrase', kept.rows[0].value] });
      await tx.commit();
    } finally {
      tx.close();
    }
    await client.execute('detach backup');
  } finally {
    client.close();
  }
}
