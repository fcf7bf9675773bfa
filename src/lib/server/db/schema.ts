import { sql } from 'drizzle-orm';
import { OWNER } from '../owner.ts';
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const now = sql`(unixepoch())`;
/** Who owns or made a thing; one owner for now, people come later. */
const person = (name: string) => text(name).notNull().default(OWNER);

/** A score as it came in, by the hash of its bytes; never changed. */
export const sources = sqliteTable('sources', {
  hash: text('hash').primaryKey(),
  fileName: text('file_name').notNull(),
  format: text('format', { enum: ['musicxml', 'abc'] }).notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  /** The MusicXML document in which all text spans count. */
  document: text('document').notNull(),
  /** How many parts the score has; null for what came before this was kept. */
  parts: integer('parts'),
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
    /** The source that the pages follow. */
    sourceHash: text('source_hash')
      .notNull()
      .references(() => sources.hash),
    sourceName: text('source_name').notNull().default('The source'),
    owner: person('owner'),
    createdAt: integer('created_at').notNull().default(now),
    /** The teacher's own group on the shelf; null for none. */
    shelfGroup: text('shelf_group'),
    /** When one of its rooms was opened last, in seconds since 1970. */
    openedAt: integer('opened_at'),
    /** The period that was chosen last in one of its readings. */
    period: text('period'),
    /** When it was put into the bin; null while it stands on the shelf. */
    removedAt: integer('removed_at')
  },
  (t) => [index('pieces_by_source').on(t.sourceHash), index('pieces_by_owner').on(t.owner)]
);

/** Further sources of a piece, to be compared with the one that the pages follow. */
export const comparedSources = sqliteTable(
  'compared_sources',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    pieceId: integer('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    sourceHash: text('source_hash')
      .notNull()
      .references(() => sources.hash),
    name: text('name').notNull(),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [index('compared_sources_by_piece').on(t.pieceId)]
);

/** Frozen states of readings as they were published; never changed. */
export const editions = sqliteTable(
  'editions',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    pieceId: integer('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    /** Counts the editions of a piece from 1. */
    number: integer('number').notNull(),
    /** Name of the reading that was frozen. */
    readingName: text('reading_name').notNull(),
    note: text('note').notNull(),
    /** All that the edition was made of, in itself. */
    content: text('content', { mode: 'json' }).notNull(),
    pdf: blob('pdf', { mode: 'buffer' }).notNull(),
    author: person('author'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [uniqueIndex('editions_by_number').on(t.pieceId, t.number)]
);

/** Players for whom readings are made: names, instruments, capacities. */
export const players = sqliteTable(
  'players',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** By which readings know it. */
    key: text('key').notNull(),
    /** All that is said of it. */
    content: text('content', { mode: 'json' }).notNull(),
    owner: person('owner'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [uniqueIndex('players_by_key').on(t.owner, t.key)]
);

/** Plans of practice until a date, each of one player; they name players, pieces and sheets by their keys. */
export const plans = sqliteTable(
  'plans',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    key: text('key').notNull(),
    content: text('content', { mode: 'json' }).notNull(),
    owner: person('owner'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [uniqueIndex('plans_by_key').on(t.owner, t.key)]
);

/** What was really practised, and takes before listeners; only added to, each under the name that its window gave it. */
export const practiceLog = sqliteTable(
  'practice_log',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    key: text('key').notNull(),
    planKey: text('plan_key').notNull(),
    kind: text('kind', { enum: ['visit', 'mock'] }).notNull(),
    content: text('content', { mode: 'json' }).notNull(),
    owner: person('owner'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [uniqueIndex('practice_log_by_key').on(t.owner, t.key), index('practice_log_by_plan').on(t.owner, t.planKey)]
);

/** Notes of tasks as they were handed out; never changed. */
export const sheets = sqliteTable(
  'sheets',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    key: text('key').notNull(),
    document: text('document').notNull(),
    owner: person('owner'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [uniqueIndex('sheets_by_key').on(t.owner, t.key)]
);

/** Scores that are being written from paper. */
export const writings = sqliteTable(
  'writings',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    title: text('title').notNull(),
    /** All of it, as the writing room has it. */
    content: text('content', { mode: 'json' }).notNull(),
    /** Counts the savings, so that a window learns of another's. */
    revision: integer('revision').notNull().default(0),
    /** The name of the last saving, so that one whose answer was lost is known when it is sent again. */
    lastSave: text('last_save'),
    /** The piece that it was put on the shelf as; null while it is only being written. */
    pieceId: integer('piece_id').references(() => pieces.id, { onDelete: 'cascade' }),
    owner: person('owner'),
    updatedAt: integer('updated_at').notNull().default(now)
  },
  (t) => [index('writings_by_owner').on(t.owner)]
);

/** Pictures of the paper that a score is written from, page by page, with how they are cut into systems and bars. */
export const facsimilePages = sqliteTable(
  'facsimile_pages',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    writingId: integer('writing_id')
      .notNull()
      .references(() => writings.id, { onDelete: 'cascade' }),
    /** What browsers call its format. */
    mime: text('mime', { enum: ['image/png', 'image/jpeg'] }).notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
    cuts: text('cuts', { mode: 'json' }).notNull()
  },
  (t) => [index('facsimile_pages_by_writing').on(t.writingId)]
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

/** The first systems of sources, engraved, so that a room shows music at once; may be thrown away at any time. */
export const firstPictures = sqliteTable(
  'first_pictures',
  {
    sourceHash: text('source_hash')
      .notNull()
      .references(() => sources.hash, { onDelete: 'cascade' }),
    line: text('line', { enum: ['wide', 'narrow'] }).notNull(),
    /** The engine, with its engraver, that made it. */
    engine: text('engine').notNull(),
    svg: text('svg').notNull()
  },
  (t) => [primaryKey({ columns: [t.sourceHash, t.line] })]
);

export const readings = sqliteTable(
  'readings',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    pieceId: integer('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    author: person('author'),
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
    /** What the window that sent it calls it, so that what is sent twice stands once; null for what came with an archive or a copy. */
    origin: text('origin'),
    author: person('author'),
    createdAt: integer('created_at').notNull().default(now)
  },
  (t) => [primaryKey({ columns: [t.readingId, t.seq] }), uniqueIndex('commands_by_origin').on(t.readingId, t.origin)]
);

/** Where a log stood after some act, so that a long one need not be sent and replayed from its beginning; may be thrown away at any time. */
export const snapshots = sqliteTable('snapshots', {
  readingId: integer('reading_id')
    .primaryKey()
    .references(() => readings.id, { onDelete: 'cascade' }),
  seq: integer('seq').notNull(),
  engine: text('engine').notNull(),
  state: text('state', { mode: 'json' }).notNull()
});

/** Who is working out a study just now, so that two processes do not do it twice. */
export const claims = sqliteTable(
  'claims',
  {
    sourceHash: text('source_hash').notNull(),
    engine: text('engine').notNull(),
    /** Seconds since 1970; after this the work counts as given up. */
    until: integer('until').notNull()
  },
  (t) => [primaryKey({ columns: [t.sourceHash, t.engine] })]
);

/** What the database knows about itself. */
export const settings = sqliteTable('settings', { key: text('key').primaryKey(), value: text('value').notNull() });

/** Who is signed in: the sum of the token in their cookie, never the token. */
export const sessions = sqliteTable('sessions', {
  token: text('token').primaryKey(),
  person: person('person'),
  createdAt: integer('created_at').notNull().default(now),
  expiresAt: integer('expires_at').notNull()
});
