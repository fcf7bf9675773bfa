import { listed } from '../sentences.ts';
import { add, format, frac, mul, sub, ZERO, type Fraction } from './fraction.ts';
import type { Measure, Score } from './model.ts';

/** A place as it is said and as the command line writes it. */
export interface Position {
  measure: number;
  number: string;
  beat: string;
}

/** True for an upbeat: a first bar, or a marked incomplete one at the beginning of the piece, that is short. */
export const isPickup = (measure: Measure): boolean =>
  measure.index === 0 &&
  measure.time?.quarters != null &&
  measure.length.n * measure.time.quarters.d < measure.time.quarters.n * measure.length.d;

/**
 * Beat of an onset in its measure, from 1, in units of the time signature's denominator (quarters
 * without one). An upbeat bar is aligned to the end of a full bar.
 */
export function beatOf(measure: Measure, onset: Fraction): Fraction {
  const shift = isPickup(measure) ? sub(measure.time!.quarters!, measure.length) : ZERO;
  const unit = measure.time?.unit ?? 4;
  return add(mul(add(shift, onset), frac(unit, 4)), frac(1));
}

export const positionIn = (measure: Measure, onset: Fraction): Position => ({
  measure: measure.index,
  number: measure.number,
  beat: format(beatOf(measure, onset))
});

/** How a bar is called: "bar 12", "upbeat", "after bar 12" for the second part of a divided bar. */
export function barLabel(measures: readonly Measure[], measure: Measure): string {
  if (isPickup(measure)) return 'upbeat';
  if (!measure.implicit || /^\d+$/.test(measure.number)) return `bar ${measure.number}`;
  const before = measures.slice(0, measure.index).findLast((m) => !m.implicit);
  return before ? `after bar ${before.number}` : `bar ${measure.number}`;
}

/** "bar 3", "bars 3–6 and 11"; what has no number of its own is said beside: "bars 1–12 with the upbeat". */
export function barList(measures: readonly Measure[], bars: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const b of bars) {
    const last = runs.at(-1);
    if (last && b === last[1] + 1) last[1] = b;
    else runs.push([b, b]);
  }
  const label = (k: number): string => barLabel(measures, measures[k]);
  const isPlain = (k: number): boolean => /^bar /.test(label(k));
  const number = (k: number): string => label(k).slice('bar '.length);
  const told = runs.map(([from, to]) => {
    const upbeat = !isPlain(from) && to > from;
    const [a, b] = [upbeat ? from + 1 : from, isPlain(to) || to === from ? to : to - 1];
    if (!isPlain(a)) return { plain: false, text: label(a) };
    return { plain: true, text: (a === b ? number(a) : `${number(a)}–${number(b)}`) + (upbeat ? ' with the upbeat' : '') };
  });
  if (told.some((t) => !t.plain)) return listed(told.map((t) => (t.plain ? `${/–/.test(t.text) ? 'bars' : 'bar'} ${t.text}` : t.text)));
  const one = told.length === 1 && !told[0].text.includes('–');
  return `${one ? 'bar' : 'bars'} ${listed(told.map((t) => t.text))}`;
}

/** Index of the measure that sounds at a time in quarters from the beginning. */
export function measureAt(score: { measures: Measure[] }, time: Fraction): Measure {
  const { measures } = score;
  let low = 0;
  let high = measures.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    const start = measures[middle].start;
    if (start.n * time.d <= time.n * start.d) low = middle;
    else high = middle - 1;
  }
  return measures[low];
}

export function positionAt(score: Score, time: Fraction): Position {
  const measure = measureAt(score, time);
  return positionIn(measure, sub(time, measure.start));
}

const PARTS: Record<string, string> = { '1/2': '½', '1/3': '⅓', '2/3': '⅔', '1/4': '¼', '3/4': '¾' };

/** "5/2" as "2½": beats as they are said. */
export function beatWords(beat: string): string {
  const [n, d] = beat.split('/').map(Number);
  if (!d) return beat;
  const whole = Math.floor(n / d);
  const part = PARTS[`${n - whole * d}/${d}`];
  return part ? `${whole}${part}` : `${whole} ${n - whole * d}/${d}`;
}
