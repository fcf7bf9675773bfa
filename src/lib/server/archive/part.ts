import type { Schema } from 'joi';
import type { Tables } from '../db/open.ts';

/**
 * One set of tables as it goes into an archive and comes back, as a list: the archive is a record of these. Each brings its
 * schema, its export and its import.
 * @typeParam T an item of the list that stands in the archive under its name
 */
export interface ArchivePart<T> {
  schema: Schema;
  /** Archives of earlier versions have none: the schema says what counts then. */
  later?: true;
  /** The items, one after the other: a long piece is never whole in memory. */
  export(db: Tables, pieceId: number): AsyncGenerator<T>;
  /** Puts back what belongs to a piece. @throws ArchiveError with a sentence for the user */
  import(tx: Tables, pieceId: number, items: readonly T[]): Promise<void>;
}

/** An archive that cannot be taken in, in one sentence. */
export class ArchiveError extends Error {}
