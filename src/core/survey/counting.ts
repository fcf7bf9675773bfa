import { SLOW_BEAT } from '../style/survey-weights.ts';
import { toNumber } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { Measure, Score } from '../score/model.ts';

/** How a bar is counted: in which unit, and why. */
export interface Counting {
  /** Quarters of one count while learning, and of the beat that is felt. */
  count: number;
  felt: number;
  text: string;
}

const UNIT_NAMES: Record<string, string> = {
  '4': 'whole notes',
  '2': 'half notes',
  '3': 'dotted half notes',
  '1.5': 'dotted quarters',
  '1': 'quarters',
  '0.75': 'dotted eighths',
  '0.5': 'eighths',
  '0.25': 'sixteenths'
};
const unitName = (quarters: number): string => UNIT_NAMES[String(quarters)] ?? `units of ${quarters} quarters`;

/**
 * Which beat to feel and which to count (handbook 1.4, common practice): compound meters in dotted beats, slow
 * meters in halves of the beat, bars full of 32nds and 64ths in eighths while they are learned. Null in free meter.
 */
export function countingOf(score: Score, measure: Measure, tempo: number | null): Counting | null {
  if (!measure.time) return null;
  const shape = beatOfMeter(measure);
  const beat = toNumber(shape.beat);
  const bar = toNumber(measure.time.quarters ?? measure.length);
  const counts = (unit: number): string => `${Number((bar / unit).toFixed(2))} ${unitName(unit)}`;
  const rate = tempo ? tempo / beat : null;
  const until = score.measures.findIndex((m, k) => k > measure.index && m.time?.text !== measure.time!.text);
  const same = score.notes.filter((n) => !n.rest && !n.grace && n.measure >= measure.index && (until < 0 || n.measure < until));
  const shortest = Math.min(...same.map((n) => toNumber(n.duration)), 9);
  if (shape.slots === 3) {
    const unit = beat / 3;
    return rate !== null && rate < SLOW_BEAT
      ? { count: unit, felt: beat, text: `counted in ${counts(unit)} (the dotted beat is slow), felt in ${counts(beat)}` }
      : { count: beat, felt: beat, text: `felt in ${counts(beat)}; ${counts(unit)} while it is learned` };
  }
  if (rate !== null && rate < SLOW_BEAT)
    return { count: beat / 2, felt: beat, text: `counted in ${counts(beat / 2)}, because the beat is slow; felt in ${counts(beat)}` };
  if (beat >= 1 && shortest <= 0.125)
    return {
      count: beat / 2,
      felt: beat,
      text: `counted in ${counts(beat / 2)} while it is learned, because of its short notes; felt in ${counts(beat)}`
    };
  const text = measure.time.symbol === 'cut' ? `felt in ${counts(beat)} (alla breve)` : `counted in ${counts(beat)}`;
  return { count: beat, felt: beat, text };
}
