import type { ObjectSchema, Schema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import { isMeter } from './from-tune.ts';

/** Most that a written score holds. */
const MOST = { bars: 2000, sounds: 400, pitches: 12, lanes: 4, signs: 30 };

/** The parts of a written score. */
function parts({ joi, id, words, integer, fraction, oneOf, list, record, orNull }: SchemaKit): Record<'head' | 'lanes' | 'bar', Schema> {
  const pitch = record({ step: integer.min(0).max(6), alter: joi.number().min(-2).max(2), octave: integer.min(-1).max(10) });
  const meter = words(20).custom((value: string, helpers) =>
    isMeter(value) ? value : helpers.message({ custom: '{#label} is no meter' })
  );
  const keySignature = record(
    { fifths: integer.min(-14).max(14) },
    { mode: words(20), steps: joi.object().pattern(/^[0-6]$/, integer.min(-2).max(2)) }
  );
  const clef = joi.string().pattern(/^(treble|bass|alto|tenor|perc|none)([+-]8)?$/);
  const sound = record(
    {
      kind: oneOf(['sound']),
      id,
      pitches: list(record({ pitch, tie: joi.boolean() }, { accidental: words(30) }), MOST.pitches),
      duration: fraction,
      decorations: list(words(40), MOST.signs),
      slurStarts: integer.min(0).max(6),
      slurStops: integer.min(0).max(6),
      lyrics: list(words(120), 8)
    },
    {
      ids: list(id, 48),
      open: joi.boolean(),
      hidden: joi.boolean(),
      wholeMeasure: joi.boolean(),
      grace: oneOf(['plain', 'slash']),
      tuplet: record({ actual: integer.min(2).max(64), normal: integer.min(1).max(64), start: joi.boolean(), stop: joi.boolean() }),
      words: record({ text: words(200), placement: oneOf(['above', 'below']) })
    }
  );
  const bar = record(
    { id, lanes: list(list(sound, MOST.sounds), MOST.lanes) },
    {
      meter,
      key: keySignature,
      repeatStart: joi.boolean(),
      repeatEnd: integer.min(0).max(20),
      ending: words(20),
      doubleBar: joi.boolean(),
      letter: words(8)
    }
  );
  return {
    head: record({
      title: words(200),
      composer: words(200),
      instrument: words(120),
      transpose: integer.min(-36).max(36),
      clefs: list(clef, 2).min(1),
      key: keySignature,
      meter,
      tempo: record({ words: words(120), unit: orNull(fraction), perMinute: orNull(words(20)) }),
      upbeat: orNull(fraction)
    }),
    lanes: list(record({ staff: integer.min(1).max(2), voice: integer.min(1).max(2) }), MOST.lanes).min(1),
    bar
  };
}

/** The first bar that has another number of voices than the score, in a sentence; null where none has. */
export function oddBar(w: { lanes: readonly unknown[]; bars: readonly { lanes: readonly unknown[] }[] }): string | null {
  const odd = w.bars.findIndex((b) => b.lanes.length !== w.lanes.length);
  return odd < 0 ? null : `bar ${odd + 1} has another number of voices than the score`;
}

/** What a written score must look like before it is kept. */
export function writtenSchema(kit: SchemaKit): ObjectSchema {
  const { head, lanes, bar } = parts(kit);
  return kit.record({ head, lanes, bars: kit.list(bar, MOST.bars).min(1) }).custom((w: Parameters<typeof oddBar>[0], helpers) => {
    const odd = oddBar(w);
    return odd === null ? w : helpers.message({ custom: odd });
  });
}

/** What is sent of it while it is written: see `change.ts`. */
export function changeSchema(kit: SchemaKit): ObjectSchema {
  const { head, lanes, bar } = parts(kit);
  return kit.record({ bars: kit.list(bar, MOST.bars) }, { head, lanes, order: kit.list(kit.id, MOST.bars).min(1) });
}
