import { createWriteStream } from 'node:fs';
import { resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ScoreError } from '../core/score/model.ts';
import { BackupRefused, copyDatabase } from '../lib/server/backup/copy.ts';
import { backupFolder } from '../lib/server/backup/nightly.ts';
import { restore } from '../lib/server/backup/restore.ts';
import { nameOf } from '../lib/server/backup/rotation.ts';
import { ConfigError, readConfig } from '../lib/server/config/config.ts';
import { DatabaseRefused, fileOf, openDatabase } from '../lib/server/db/open.ts';
import { OWNER } from '../lib/server/owner.ts';
import { Studio } from '../lib/server/studio.ts';
import { CallError } from './call-error.ts';

/** The database's file that the environment names. @throws CallError where it is on a server */
function databaseFile(): string {
  const config = readConfig(process.env, process.cwd());
  const file = fileOf(config.databaseUrl, config.folder);
  if (!file) throw new CallError('the database is on a server, which makes its own backups');
  return file;
}

/** What is wrong, as the command line tells it: with exit status 3, or 2 for the environment. */
async function told(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (error instanceof ConfigError) throw new CallError(error.message);
    if (error instanceof BackupRefused || error instanceof DatabaseRefused) throw new ScoreError(error.message);
    throw error;
  }
}

/** Copies the database, also while a server runs on it. */
export const backup = (to: string | undefined): Promise<void> =>
  told(async () => {
    const file = databaseFile();
    (await openDatabase(null, resolve(file, '..'))).$client.close();
    const copy = to ? resolve(to) : resolve(backupFolder(file), nameOf(new Date()));
    await copyDatabase(file, copy);
    process.stderr.write(`The backup is ${copy}.\n`);
  });

/** Puts a backup in the place of the database. */
export const restoreFrom = (from: string): Promise<void> =>
  told(async () => {
    const before = await restore(resolve(from), databaseFile());
    process.stderr.write(`The backup is restored.${before ? ` What was there before is kept as ${before}.` : ''}\n`);
  });

/** Writes the archives of all pieces into one file. */
export const archives = (to: string): Promise<void> =>
  told(async () => {
    const config = readConfig(process.env, process.cwd());
    const db = await openDatabase(config.databaseUrl, config.folder);
    try {
      await pipeline(new Studio(db, OWNER).allArchives(), createWriteStream(to));
      process.stderr.write(`All pieces are in ${resolve(to)}.\n`);
    } finally {
      db.$client.close();
    }
  });
