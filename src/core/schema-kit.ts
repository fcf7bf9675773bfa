import type { AnySchema, CustomHelpers, ArraySchema, NumberSchema, ObjectSchema, Root, StringSchema } from 'joi';

/** What a piece has; what is said of it must lie inside. What is not known is not checked. */
export interface PieceBounds {
  measures?: number;
  parts?: number;
  /** Sums of the sources that are compared with the one that the pages follow. */
  sources?: string[];
}

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
  /** Index of a measure, and of a part; checked against the piece, where the check is told its bounds (Joi's context). */
  measure: NumberSchema;
  part: NumberSchema;
  /** Sum of a further source of the piece. */
  source: StringSchema;
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

const boundsIn = (helpers: CustomHelpers): PieceBounds => (helpers.prefs.context ?? {}) as PieceBounds;

/** An index that the piece must have. */
const within =
  (of: 'measures' | 'parts', what: string) =>
  (value: number, helpers: CustomHelpers): unknown => {
    const count = boundsIn(helpers)[of];
    return count !== undefined && value >= count ? helpers.message({ custom: `{#label} is ${what} that the piece does not have` }) : value;
  };

export function schemaKit(joi: Root): SchemaKit {
  const integer = joi.number().integer();
  const hash = joi.string().hex().length(64);
  const record: SchemaKit['record'] = (required, optional = {}) =>
    joi.object({ ...mapValues(required, (f) => f.required()), ...mapValues(optional, (f) => f.optional()) });
  return {
    joi,
    id: joi
      .string()
      .max(120)
      .pattern(/^[\w@.:/-]+$/),
    key: joi.string().max(200),
    hash,
    words: (most = 2000) => joi.string().allow('').max(most),
    integer,
    measure: integer.min(0).max(100_000).custom(within('measures', 'a bar')),
    part: integer.min(0).max(200).custom(within('parts', 'a part')),
    source: hash.custom((value: string, helpers) => {
      const { sources } = boundsIn(helpers);
      return sources && !sources.includes(value) ? helpers.message({ custom: '{#label} is a source that the piece does not have' }) : value;
    }),
    // Products of such numbers are still exact.
    fraction: record({ n: integer.min(-1e9).max(1e9), d: integer.min(1).max(1e6) }),
    // Raw: a day stays as it was written, and an act is stored as it was sent.
    day: joi.string().isoDate().raw(),
    oneOf: (values) => joi.string().valid(...values),
    list: (items, most) => joi.array().items(items).max(most),
    record,
    orNull: (schema) => schema.allow(null)
  };
}
