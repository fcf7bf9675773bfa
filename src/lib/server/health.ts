import { statfs } from 'node:fs/promises';
import { version } from '../../../package.json';
import { environment } from './config/environment.ts';
import { database } from './db/client.ts';
import { settingOf } from './db/settings.ts';
import { tasksNow } from './jobs/run.ts';

/** How the server is; times in seconds since 1970, space in bytes. */
export interface Health {
  well: boolean;
  version: string;
  /** Null where it cannot be told. */
  freeSpace: number | null;
  tasks: { waiting: number; running: number };
  /** Null before the first. */
  lastBackup: number | null;
}

export async function health(): Promise<Health> {
  const freeSpace = await statfs(environment().folder).then(
    (s) => s.bavail * s.bsize,
    () => null
  );
  try {
    const last = await settingOf(await database(), 'last-backup');
    return { well: true, version, freeSpace, tasks: tasksNow(), lastBackup: last === null ? null : Number(last) };
  } catch {
    return { well: false, version, freeSpace, tasks: tasksNow(), lastBackup: null };
  }
}
