import { sql } from 'drizzle-orm';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

const now = sql`(unixepoch())`;

/** A score as it came in, by the hash of its bytes; never changed. */
export const sources = sqliteTable('sources', {
  hash: text('hash').primaryKey(),
  fileName: text('file_name').notNull(),
  format: text('format', { enum: ['musicxml', 'abc'] }).notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  /** The MusicXML document in which all text spans count. */
  document: text('document').notNull(),
  createdAt: integer('created_at').notNull().default(now)
});

export const pieces = sqliteTable(
  'pieces',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    title: text('title').notNull(),
    composer: text('composer').notNull(),
    instrument: text('instrument').notNull(),
    bars: integer('bars').notNull(),
    sourceHash: text('source_hash')
      .notNull()
      .references(() => sources.hash),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [index('pieces_by_source').on(t.sourceHash)]
);

/** Results of the engine, by source and engine version; may be thrown away at any time. */
export const studies = sqliteTable(
  'studies',
  {
    sourceHash: text('source_hash')
      .notNull()
      .references(() => sources.hash, { onDelete: 'cascade' }),
    engine: text('engine').notNull(),
    facts: text('facts', { mode: 'json' }).notNull(),
    survey: text('survey', { mode: 'json' }).notNull()
  },
  (t) => [primaryKey({ columns: [t.sourceHash, t.engine] })]
);

export const readings = sqliteTable(
  'readings',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    pieceId: integer('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [index('readings_by_piece').on(t.pieceId)]
);

/** Append-only log of a reading; `seq` counts from 1 without gaps and is the reading's revision. */
export const commands = sqliteTable(
  'commands',
  {
    readingId: integer('reading_id')
      .notNull()
      .references(() => readings.id, { onDelete: 'cascade' }),
    seq: integer('seq').notNull(),
    command: text('command', { mode: 'json' }).notNull(),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [primaryKey({ columns: [t.readingId, t.seq] })]
);
