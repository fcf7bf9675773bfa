import type { AnySchema, ObjectSchema } from 'joi';
import { pinSchema } from '../analysis/pins.ts';
import { markingSchema } from '../markings/schema.ts';
import type { SchemaKit } from '../schema-kit.ts';
import { COMMANDS } from './commands/index.ts';
import { EMPTY_READING, type Reading } from './reading.ts';

/** Most entries of a record or list in a reading that comes from elsewhere. Set by hand. */
const MOST = 20_000;

/**
 * Schema of a whole reading, as it was frozen: each part of it is what the act that makes it may bring.
 * What a reading of an earlier version lacks stands in it as in an empty one.
 */
export function readingSchema(kit: SchemaKit): ObjectSchema<Reading> {
  const { joi, list, key, record, words } = kit;
  const single = joi.forbidden();
  const of = <T extends keyof typeof COMMANDS>(type: T): Record<string, AnySchema> =>
    (COMMANDS[type] as { schema(kit: SchemaKit, single: AnySchema): Record<string, AnySchema> }).schema(kit, single);
  const map = (keys: AnySchema, values: AnySchema) => joi.object().pattern(keys, values).max(MOST);
  const index = joi.string().pattern(/^\d{1,6}$/);
  const name = joi.string().max(300);
  const fields: Record<keyof Reading, AnySchema> = {
    period: of('set-period').period,
    part: kit.part,
    numbering: of('set-numbering').numbering,
    player: of('set-player').player,
    instruments: map(index, of('set-instrument').instrument),
    schools: map(name, record({ option: of('answer-school').option, on: kit.day })),
    localAnswers: list(of('answer-here').answer, MOST),
    postponed: map(name, kit.day),
    plan: record({ levels: map(index, of('pull-level').level), peak: of('set-peak').measure, ceiling: of('set-ceiling').level }),
    requested: of('request-tempo').range,
    composer: of('tell-of-composer').composer,
    amounts: map(name, of('set-amount').amount),
    localAmounts: list(
      record({ effect: of('set-amount').effect, from: kit.fraction, to: kit.fraction, amount: of('set-amount').amount }),
      MOST
    ),
    timePulls: map(index, of('pull-time').ratio),
    rubato: of('take-rubato').bars,
    recordings: list(of('keep-recording').recording, MOST),
    briefs: list(record(of('write-brief')), MOST),
    ossias: list(of('keep-ossia').ossia, MOST),
    judged: map(index, of('judge-bars').as),
    sourceChoices: list(of('choose-source').choice, MOST),
    pages: of('set-pages').pages,
    preface: of('write-preface').text,
    card: of('write-card').lines,
    ruleFactors: map(name, joi.number().min(0).max(100)),
    accepted: map(name, words()),
    survey: map(name, of('note-survey').note),
    pins: list(pinSchema(kit), MOST),
    markings: list(markingSchema(kit), MOST),
    decisions: map(
      key,
      joi.alternatives().conditional('.status', {
        is: 'kept',
        then: record({ status: kit.oneOf(['kept']), marking: kit.id }),
        otherwise: record({ status: kit.oneOf(['set aside']) })
      })
    )
  };
  return record(
    {},
    Object.fromEntries(Object.entries(fields).map(([field, schema]) => [field, schema.default(EMPTY_READING[field as keyof Reading])]))
  );
}
