import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { setTimeout as wait } from 'node:timers/promises';
import './driver.ts';
import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { copyDatabase } from '../backup/copy.ts';
import { codeOf, isHeld } from './faults.ts';
import { DRIVER_WAIT_MS, patient, patiently } from './patient.ts';
import { identityOf } from './settings.ts';
import * as schema from './schema.ts';

export type Database = LibSQLDatabase<typeof schema> & { $client: Client };

/** What can be read and written inside a transaction too. */
export type Tables = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

/** The database cannot be used, in a sentence. */
export class DatabaseRefused extends Error {}

/** Connections at once, at most. Set by hand: transactions are short. */
const CONNECTIONS = 16;
/** Tries to bring the database up to date while another process does the same. */
const TRIES = 20;

/** The folder of the project: this file lies in it as source and as built. */
function projectFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'drizzle/meta/_journal.json'))) {
    if (dirname(folder) === folder) return resolve('.');
    folder = dirname(folder);
  }
  return folder;
}
const MIGRATIONS = join(projectFolder(), 'drizzle');

/** When the newest form of the database that this program knows was made, in milliseconds. */
const newestForm = (): number =>
  Math.max(
    ...(JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as { entries: { when: number }[] }).entries.map(
      (e) => e.when
    )
  );

/** The form of a database; 0 for an empty one, null for one that is none of this program's. */
async function formOf(client: Client): Promise<number | null> {
  const { rows } = await client.execute("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'");
  const tables = rows.map((r) => String(r.name));
  if (!tables.length) return 0;
  if (!tables.includes('__drizzle_migrations')) return null;
  const [last] = (await client.execute('select max(created_at) as form from __drizzle_migrations')).rows;
  return Number(last.form ?? 0);
}

/** Where the file of a local database is; null for one on a server. */
export const fileOf = (url: string | null | undefined, directory: string): string | null =>
  url
    ? url.startsWith('file:')
      ? fileURLToPath(new URL(url, pathToFileURL(`${resolve('.')}/`)))
      : null
    : resolve(join(directory, 'nuvelo.db'));

/** @throws DatabaseRefused with a sentence where the file is damaged, foreign, or newer than this program */
async function checked(client: Client, file: string | null): Promise<number> {
  const name = file ?? 'The database';
  try {
    if (file) {
      const { rows } = await client.execute('pragma quick_check(1)');
      if (String(Object.values(rows[0])[0]) !== 'ok')
        throw new DatabaseRefused(`${name} is damaged (${String(Object.values(rows[0])[0])}); restore a backup.`);
    }
    const form = await formOf(client);
    if (form === null) throw new DatabaseRefused(`${name} is no database of Nuvelo.`);
    if (form > newestForm()) throw new DatabaseRefused(`${name} was made by a newer Nuvelo than this one; update the program.`);
    return form;
  } catch (error) {
    if (error instanceof DatabaseRefused) throw error;
    const code = codeOf(error) ?? '';
    if (code.startsWith('SQLITE_NOTADB') || code.startsWith('SQLITE_CORRUPT'))
      throw new DatabaseRefused(`${name} is damaged or no database; restore a backup.`);
    if (code.startsWith('SQLITE_CANTOPEN')) throw new DatabaseRefused(`${name} cannot be opened; may this user read and write its folder?`);
    if (isHeld(error)) throw new DatabaseRefused(`${name} is held by another program; close it and start again.`);
    throw error;
  }
}

/** Brings a database up to date; another process may be doing the same. */
async function updated(database: Database): Promise<void> {
  for (let left = TRIES; ; left--) {
    try {
      return await migrate(database, { migrationsFolder: MIGRATIONS });
    } catch (error) {
      // The other one was quicker: what it has done is seen when one looks again.
      if (left <= 1 || (await formOf(database.$client)) !== newestForm()) {
        if (left <= 1) throw error;
        await wait(50);
      }
    }
  }
}

/**
 * Opens a database, checks it and brings it up to date, after a copy of what was there. `url` names a libSQL server or a
 * file ("file:…"); without it the database is one file in `directory`.
 * @throws DatabaseRefused with a sentence
 */
export async function openDatabase(url: string | null | undefined, directory: string): Promise<Database> {
  const file = fileOf(url, directory);
  try {
    if (file) mkdirSync(dirname(file), { recursive: true });
  } catch (error) {
    throw new DatabaseRefused(`The folder ${dirname(file!)} cannot be made: ${(error as Error).message}.`);
  }
  let client: Client;
  try {
    const address = file ? pathToFileURL(file).href : url!;
    client = patient(await patiently(async () => createClient({ url: address, timeout: DRIVER_WAIT_MS, concurrency: CONNECTIONS })));
  } catch (error) {
    throw new DatabaseRefused(`${file ?? 'The database'} cannot be opened: ${(error as Error).message}.`);
  }
  try {
    const form = await checked(client, file);
    if (file) await client.execute('pragma journal_mode = wal');
    const database = drizzle(client, { schema });
    if (form < newestForm()) {
      if (file && form > 0)
        await copyDatabase(file, join(dirname(file), 'backups', `before-update-${new Date().toISOString().replace(/[:.]/g, '-')}.db`));
      await updated(database);
    }
    await identityOf(database);
    return database;
  } catch (error) {
    client.close();
    throw error;
  }
}
