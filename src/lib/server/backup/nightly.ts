import { readdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Cron } from 'croner';
import { environment } from '../config/environment.ts';
import { database } from '../db/client.ts';
import { fileOf, type Database } from '../db/open.ts';
import { set } from '../db/settings.ts';
import { runTask } from '../jobs/run.ts';
import { log } from '../log.ts';
import { emptyBin } from '../repositories/pieces.ts';
import { dispensable, nameOf } from './rotation.ts';

/** When a studio sleeps. Set by hand. */
const EVERY_NIGHT = '17 3 * * *';

/** The folder of the copies; beside the database's file. */
export const backupFolder = (file: string): string => join(dirname(file), 'backups');

/** Makes the copy of today, and lets go of those that are too old. */
export async function backUp(db: Database, file: string, today = new Date()): Promise<string> {
  const folder = backupFolder(file);
  const to = join(folder, nameOf(today));
  await runTask('backup', { from: file, to });
  await set(db, 'last-backup', String(Math.floor(today.getTime() / 1000)));
  for (const name of dispensable(readdirSync(folder))) rmSync(join(folder, name));
  return to;
}

/** Every night: what has lain in the bin long enough goes, and a copy is made. A database on a server is copied there. */
export function keepBackups(): void {
  const { databaseUrl, folder } = environment();
  const file = fileOf(databaseUrl, folder);
  const night = async (): Promise<void> => {
    const db = await database();
    const gone = await emptyBin(db);
    if (gone) log().info({ emptied: gone });
    if (file) log().info({ backup: 'made', in: Math.round((await clocked(() => backUp(db, file))) / 1000) });
  };
  new Cron(EVERY_NIGHT, { unref: true, protect: true, catch: (error) => log().error({ err: error, backup: 'failed' }) }, night);
}

async function clocked(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}
