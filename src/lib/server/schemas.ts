import Joi from 'joi';
import { commandSchema } from '../../core/reading/commands/schema.ts';
import { schemaKit } from '../../core/schema-kit.ts';
import { LIMITS } from '../../core/style/limits.ts';
import { FORMATS } from './formats.ts';

const kit = schemaKit(Joi);
const { integer, hash } = kit;
const command = commandSchema(kit);

/** What a window sends: its acts, and the revision that it had when it made them. */
export const appendSchema = kit.record({
  base: integer.min(0),
  acts: kit.list(kit.record({ command }, { origin: kit.id.allow(null).default(null) }), LIMITS.acts).min(1)
});

const seconds = integer.min(0).required();
const base64 = Joi.string().base64().required();
const line = Joi.string().allow('').max(500).required();
export const archiveSchema = Joi.object({
  format: Joi.string().valid('nuvelo-archive/1').required(),
  piece: Joi.object({ title: line, composer: line, instrument: line, bars: integer.min(1).required(), createdAt: seconds }).required(),
  sources: Joi.array()
    .items(
      Joi.object({
        hash: hash.required(),
        name: line,
        fileName: line,
        format: Joi.string().valid('musicxml', 'abc').required(),
        createdAt: seconds,
        bytes: base64,
        document: Joi.string().required()
      })
    )
    .min(1)
    .max(20)
    .required(),
  readings: Joi.array()
    .items(
      Joi.object({
        name: line,
        createdAt: seconds,
        acts: Joi.array()
          .items(Joi.object({ command: command.required(), at: seconds }))
          .required()
      })
    )
    .min(1)
    .max(200)
    .required(),
  editions: Joi.array()
    .items(
      Joi.object({
        number: integer.min(1).required(),
        readingName: line,
        note: line,
        createdAt: seconds,
        content: Joi.object({
          document: Joi.string().required(),
          reading: Joi.object().unknown().required(),
          others: Joi.array()
            .items(Joi.object({ hash: hash.required(), name: line, document: Joi.string().required() }))
            .required(),
          names: Joi.object({ title: line, composer: line, instrument: line, source: line }).required(),
          facts: Joi.object().unknown().allow(null).required()
        })
          .unknown()
          .required(),
        pdf: base64
      })
    )
    .unique('number')
    .max(1000)
    .required()
});

export const formatSchema = Joi.string()
  .valid(...Object.keys(FORMATS))
  .required();
export const idSchema = integer.min(1).required();
export const revisionSchema = integer.min(0).required();
export const hashSchema = hash.required();
export const fileNameSchema = Joi.string().min(1).max(255).required();
export const excerptSchema = Joi.object({ from: integer.min(0).required(), to: integer.min(Joi.ref('from')).max(100_000).required() });

const readingName = Joi.string().trim().min(1).max(80).required();
export const copySchema = Joi.object({ from: integer.min(1).required(), name: readingName });
export const freezeSchema = Joi.object({ note: Joi.string().trim().allow('').max(500).required() });
/** A reading or a frozen edition, by its number. */
export const stateSchema = Joi.string()
  .pattern(/^(reading|edition)-\d{1,9}$/)
  .required();
export const sourceNameSchema = Joi.string().trim().min(1).max(80).required();
export const renameSchema = Joi.object({ name: readingName });
