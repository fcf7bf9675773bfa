import { LibsqlError } from '@libsql/client';

/** Why the database did not do what it was asked, as its user is told. */
export interface DatabaseFault {
  status: 503 | 507 | 500;
  sentence: string;
}

/** The database's own code of an error, also of one that is wrapped in another; null for other errors. */
export function codeOf(error: unknown): string | null {
  if (error instanceof LibsqlError) return error.code;
  return error instanceof Error && error.cause !== undefined ? codeOf(error.cause) : null;
}

/** Another connection or program holds what is needed just now. */
export const isHeld = (error: unknown): boolean => /^SQLITE_(BUSY|LOCKED)/.test(codeOf(error) ?? '');

/** A key of a table spoke against it: somebody else was quicker. */
export const isConstraint = (error: unknown): boolean => (codeOf(error) ?? '').startsWith('SQLITE_CONSTRAINT');

/** What a code means, by its beginning. https://www.sqlite.org/rescode.html */
const FAULTS: [string, DatabaseFault][] = [
  ['SQLITE_BUSY', { status: 503, sentence: 'Another program holds the database just now; it is tried again.' }],
  ['SQLITE_LOCKED', { status: 503, sentence: 'Another program holds the database just now; it is tried again.' }],
  ['SQLITE_FULL', { status: 507, sentence: 'The disk of the server is full, so nothing can be stored.' }],
  ['SQLITE_IOERR', { status: 507, sentence: 'The disk of the server did not take what was to be stored; it may be full.' }],
  ['SQLITE_READONLY', { status: 503, sentence: 'The database may only be read, so nothing can be stored.' }],
  ['SQLITE_CANTOPEN', { status: 503, sentence: 'The database could not be opened.' }],
  ['SQLITE_CORRUPT', { status: 500, sentence: 'The database is damaged; it needs a backup to be restored.' }],
  ['SQLITE_NOTADB', { status: 500, sentence: 'The database is damaged; it needs a backup to be restored.' }],
  ['HRANA', { status: 503, sentence: 'The database server did not answer; it is tried again.' }],
  ['SERVER_ERROR', { status: 503, sentence: 'The database server did not answer; it is tried again.' }]
];

/** Null where the error is none of the database's. */
export function databaseFault(error: unknown): DatabaseFault | null {
  const code = codeOf(error);
  if (code !== null) return FAULTS.find(([begin]) => code.startsWith(begin))?.[1] ?? null;
  // A libSQL server that is not there: the fetch itself fails.
  const cause = error instanceof Error ? (error.cause as NodeJS.ErrnoException | undefined) : undefined;
  return cause instanceof Error &&
    (databaseFault(cause) ?? (/^E(CONN|HOST|NET|PIPE|TIMEDOUT)/.test(cause.code ?? '') ? FAULTS[8][1] : null))
    ? (databaseFault(cause) ?? FAULTS[8][1])
    : null;
}
