import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import * as schema from './schema.ts';

export type Database = LibSQLDatabase<typeof schema> & { $client: Client };

/**
 * Opens a database and brings it up to date. `url` names a libSQL server or a file ("file:…"); without
 * it the database is one file in `directory`.
 */
export async function openDatabase(url: string | undefined, directory: string): Promise<Database> {
  if (!url) mkdirSync(directory, { recursive: true });
  const client = createClient({ url: url ?? pathToFileURL(resolve(join(directory, 'nuvelo.db'))).href });
  const local = !url || url.startsWith('file:');
  if (local) await client.execute('PRAGMA journal_mode = WAL');
  await client.execute('PRAGMA foreign_keys = ON');
  if (local) await client.execute('PRAGMA busy_timeout = 5000');
  const database = drizzle(client, { schema });
  await migrate(database, { migrationsFolder: resolve('drizzle') });
  return database;
}

let opened: Promise<Database> | undefined;

/** The application's database, opened at first use; DATABASE_URL and DATA_DIR come from the environment. */
export function database(): Promise<Database> {
  return (opened ??= openDatabase(process.env.DATABASE_URL || undefined, process.env.DATA_DIR || 'data'));
}
