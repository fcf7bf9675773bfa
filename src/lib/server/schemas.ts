import Joi from 'joi';
import { commandSchema } from '../../core/reading/commands/schema.ts';
import { playerSchema } from '../../core/players/player.ts';
import { mockSchema, planChangeSchema, planSchema, visitSchema } from '../../core/rehearsal/plan/plan-schema.ts';
import { schemaKit } from '../../core/schema-kit.ts';
import { changeSchema, writtenSchema } from '../../core/writing/schema.ts';
import { LIMITS } from '../../core/style/limits.ts';
import { FORMATS } from './formats.ts';

const kit = schemaKit(Joi);
const { integer, hash } = kit;
export const command = commandSchema(kit);

/** Which history a window knows; null where it does not say. */
export const historySchema = kit.id.allow(null).default(null);

/** What a window sends: its acts, and the revision and history that it had when it made them. */
export const appendSchema = kit.record(
  {
    base: integer.min(0),
    acts: kit.list(kit.record({ command }, { origin: kit.id.allow(null).default(null) }), LIMITS.acts).min(1)
  },
  { history: historySchema }
);

/** A score that is written from paper; a change of it, its own name, and the revision that it was made of. */
export const writtenContent = writtenSchema(kit).required();
export const saveWritingSchema = kit.record({ base: integer.min(0), save: kit.id, change: changeSchema(kit) });
/** Somebody whom readings are for. */
export const playerContent = playerSchema(kit).required();
/** A plan of practice whole, what changes in it, and what is left behind by practising. */
export const planContent = planSchema(kit).required();
export const planChangeContent = planChangeSchema(kit).required();
export const visitContent = visitSchema(kit).required();
export const mockContent = mockSchema(kit).required();
export const keySchema = kit.id.required();
const share = Joi.number().min(0).max(1);
/** How a page of paper is cut. */
export const cutSystems = kit.list(kit.record({ top: share, bottom: share, lines: kit.list(share, 60).min(2) }), 60);
export const cutsSchema = kit.record({ cuts: cutSystems });
export const shelveSchema = kit.record({ piece: integer.min(1) });

export const formatSchema = Joi.string()
  .valid(...Object.keys(FORMATS))
  .required();
export const idSchema = integer.min(1).required();
export const revisionSchema = integer.min(0).required();
export const hashSchema = hash.required();
export const fileNameSchema = Joi.string().min(1).max(255).required();
/** Indices of the tunes in a file that are meant. */
export const tunesSchema = Joi.array().items(integer.min(0).max(9999)).min(1).max(500);
export const excerptSchema = Joi.object({ from: integer.min(0).required(), to: integer.min(Joi.ref('from')).max(100_000).required() });

const readingName = Joi.string().trim().min(1).max(80).required();
export const copySchema = Joi.object({ from: integer.min(1).required(), name: readingName });
export const freezeSchema = Joi.object({ note: Joi.string().trim().allow('').max(500).required() });
/** A reading or a frozen edition, by its number. */
export const stateSchema = Joi.string()
  .pattern(/^(reading|edition)-\d{1,9}$/)
  .required();
export const sourceNameSchema = Joi.string().trim().min(1).max(80).required();
/** A group of the shelf, by its name. */
export const groupSchema = Joi.object({ group: Joi.string().trim().min(1).max(80).allow(null).required() });
export const renameSchema = Joi.object({ name: readingName });
