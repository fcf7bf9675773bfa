import type { AnySchema, ArraySchema, NumberSchema, ObjectSchema, Root, StringSchema } from 'joi';

/**
 * What descriptions say their schemas with. The validator is handed in by whoever checks (the server), so that the core
 * and the browser never load it.
 */
export interface SchemaKit {
  joi: Root;
  /** Name of a thing: letters, digits and a few signs. */
  id: StringSchema;
  /** Key of a proposal, a finding, a difference, a note. */
  key: StringSchema;
  hash: StringSchema;
  /** Words of at most so many characters; may be empty. */
  words(most?: number): StringSchema;
  integer: NumberSchema;
  /** Index of a measure. */
  measure: NumberSchema;
  fraction: ObjectSchema;
  /** A day, kept as it was written. */
  day: StringSchema;
  oneOf(values: readonly string[]): StringSchema;
  list(items: AnySchema, most: number): ArraySchema;
  /** A record: every field of `required` must be there, those of `optional` may. */
  record(required: Record<string, AnySchema>, optional?: Record<string, AnySchema>): ObjectSchema;
  orNull<S extends AnySchema>(schema: S): S;
}

const mapValues = <A, B>(fields: Record<string, A>, to: (field: A) => B): Record<string, B> =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, to(field)]));

export function schemaKit(joi: Root): SchemaKit {
  const integer = joi.number().integer();
  const record: SchemaKit['record'] = (required, optional = {}) =>
    joi.object({ ...mapValues(required, (f) => f.required()), ...mapValues(optional, (f) => f.optional()) });
  return {
    joi,
    id: joi
      .string()
      .max(120)
      .pattern(/^[\w@.:/-]+$/),
    key: joi.string().max(200),
    hash: joi.string().hex().length(64),
    words: (most = 2000) => joi.string().allow('').max(most),
    integer,
    measure: integer.min(0).max(100_000),
    fraction: record({ n: integer, d: integer.min(1) }),
    // Raw: a day stays as it was written, and an act is stored as it was sent.
    day: joi.string().isoDate().raw(),
    oneOf: (values) => joi.string().valid(...values),
    list: (items, most) => joi.array().items(items).max(most),
    record,
    orNull: (schema) => schema.allow(null)
  };
}
