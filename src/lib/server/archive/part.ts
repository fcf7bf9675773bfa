import type { Schema } from 'joi';
import type { Database } from '../db/client.ts';

/** What can be read and written inside a transaction. */
export type Tables = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

/**
 * One set of tables as it goes into an archive and comes back: the archive is the list of these. Each brings its schema,
 * its export and its import.
 * @typeParam T what stands in the archive under its name
 */
export interface ArchivePart<T> {
  schema: Schema;
  export(db: Tables, pieceId: number): Promise<T>;
  /** Puts back what belongs to a piece. @throws ArchiveError with a sentence for the user */
  import(tx: Tables, pieceId: number, value: T): Promise<void>;
}

/** An archive that cannot be taken in, in one sentence. */
export class ArchiveError extends Error {}
