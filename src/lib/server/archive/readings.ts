import Joi from 'joi';
import { asc, eq } from 'drizzle-orm';
import type { Command } from '../../../core/reading/commands/index.ts';
import { schemaKit } from '../../../core/schema-kit.ts';
import { commands, readings } from '../db/schema.ts';
import { command } from '../schemas.ts';
import type { ArchivePart } from './part.ts';
import { line, notLater, seconds } from './values.ts';

export interface ArchivedReading {
  name: string;
  createdAt: number;
  acts: { command: Command; at: number }[];
}

const kit = schemaKit(Joi);

/** How many rows go into the database at once. */
const ROWS = 400;

/** The readings of a piece with all their acts. */
export const READINGS: ArchivePart<ArchivedReading> = {
  schema: Joi.array()
    .items(kit.record({ name: line, createdAt: seconds, acts: Joi.array().items(kit.record({ command, at: seconds })) }))
    .min(1)
    .max(200),
  async *export(db, pieceId) {
    for (const r of await db.select().from(readings).where(eq(readings.pieceId, pieceId)).orderBy(asc(readings.id))) {
      const log = await db.select().from(commands).where(eq(commands.readingId, r.id)).orderBy(asc(commands.seq));
      yield { name: r.name, createdAt: r.createdAt, acts: log.map((c) => ({ command: c.command as Command, at: c.createdAt })) };
    }
  },
  async import(tx, pieceId, list) {
    for (const { name, createdAt, acts } of list) {
      const [row] = await tx
        .insert(readings)
        .values({ pieceId, name, createdAt: notLater(createdAt) })
        .returning({ id: readings.id });
      for (let k = 0; k < acts.length; k += ROWS)
        await tx
          .insert(commands)
          .values(
            acts.slice(k, k + ROWS).map(({ command, at }, i) => ({ readingId: row.id, seq: k + i + 1, command, createdAt: notLater(at) }))
          );
    }
  }
};
