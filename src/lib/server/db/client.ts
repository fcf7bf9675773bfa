import { environment } from '../config/environment.ts';
import { openDatabase, type Database } from './open.ts';

let opened: Promise<Database> | undefined;

/** The application's database, opened at first use; an opening that failed is tried again by the next who asks. */
export function database(): Promise<Database> {
  if (!opened) {
    const { databaseUrl, folder } = environment();
    opened = openDatabase(databaseUrl, folder);
    opened.catch(() => (opened = undefined));
  }
  return opened;
}
