import { add, cmp, frac, mul, sub, toNumber, type Fraction } from './fraction.ts';
import type { Measure, Note } from './model.ts';
import { isPickup } from './position.ts';

/** How a meter is felt: its beat in quarters, into how many parts the beat divides, which beats are strong. */
export interface BeatShape {
  beat: Fraction;
  /** 2 simple, 3 compound, 1 where the beat itself is the smallest unit (5/8, 7/8). */
  slots: number;
  /** Every so many beats one is strong. */
  strongEvery: number;
}

/** Beat of a bar's meter; compound meters in dotted beats (handbook 1.4). */
export function beatOfMeter(measure: Pick<Measure, 'time'>): BeatShape {
  const time = measure.time;
  if (!time) return { beat: frac(1), slots: 2, strongEvery: 2 };
  const count = time.groups.reduce((a, b) => a + b, 0);
  if (time.groups.length === 1 && time.unit >= 8 && count % 3 === 0 && count > 3)
    return { beat: frac(12, time.unit), slots: 3, strongEvery: count === 12 ? 2 : 99 };
  if (time.unit >= 8) return { beat: frac(4, time.unit), slots: 1, strongEvery: 99 };
  return { beat: frac(4, time.unit), slots: 2, strongEvery: count === 4 ? 2 : 99 };
}

/** Onset from the beginning of a full bar: an upbeat counts from the end. */
export const inFullBar = (measure: Measure, onset: Fraction): Fraction =>
  isPickup(measure) ? add(sub(measure.time!.quarters!, measure.length), onset) : onset;

const isMultiple = (a: Fraction, of: Fraction): boolean => {
  const ratio = frac(a.n * of.d, a.d * of.n);
  return ratio.d === 1;
};

/** Metrical level of an onset: 3 bar line, 2 strong beat, 1 beat, 0 half of a beat (third of a compound one), -1 finer. */
export function metricLevel(measure: Measure, onset: Fraction): number {
  const { beat, slots, strongEvery } = beatOfMeter(measure);
  const at = inFullBar(measure, onset);
  if (at.n === 0) return 3;
  if (isMultiple(at, beat)) {
    const index = Math.round(toNumber(at) / toNumber(beat));
    return index % strongEvery === 0 ? 2 : 1;
  }
  return isMultiple(at, mul(beat, frac(1, Math.max(slots, 2)))) ? 0 : -1;
}

/** All ways to write a count as a sum of twos and threes, in order. */
function compositions(count: number): number[][] {
  if (count === 0) return [[]];
  const result: number[][] = [];
  for (const part of [2, 3]) if (count >= part) for (const rest of compositions(count - part)) result.push([part, ...rest]);
  return result;
}

/** True for meters whose bars fall into unequal groups: 5, 7, 8 (as 3+3+2), 10, 11 … of eighths or quarters, or written as sums. */
export function isAdditive(measure: Measure): boolean {
  const time = measure.time;
  if (!time) return false;
  if (time.groups.length > 1) return true;
  const count = time.groups[0];
  return count === 5 || count === 7 || (time.unit >= 8 && (count === 8 || count === 10 || count === 11 || count === 13));
}

/**
 * Groups of a bar in an additive meter, in denominator units: as the signature writes them, else read from
 * where long notes, accents, bass notes and slurs begin and where no note is held across (handbook 1.5).
 * Null where the meter is not additive.
 */
export function groupingOf(measure: Measure, notes: readonly Note[]): number[] | null {
  if (!isAdditive(measure)) return null;
  const time = measure.time!;
  if (time.groups.length > 1) return time.groups;
  const unit = 4 / time.unit;
  const weights = new Map<number, number>();
  const crossed = new Map<number, number>();
  const sounding = notes.filter((n) => !n.rest && !n.grace && !n.cue);
  const lowest = Math.min(...sounding.map((n) => n.sounding?.octave ?? 9));
  for (const n of sounding) {
    const from = toNumber(inFullBar(measure, n.onset)) / unit;
    const length = toNumber(n.duration) / unit;
    let weight = Math.min(3, length);
    if (n.marks?.some((m) => /accent|tenuto|marcato/.test(m.name))) weight += 2;
    if (n.spans?.some((s) => s.kind === 'slur' && s.type === 'start')) weight += 0.8;
    if (n.sounding && n.sounding.octave === lowest && lowest < 4) weight += 0.6;
    if (n.chord) weight += 0.3;
    if (n.tie?.stop) weight = 0;
    weights.set(from, (weights.get(from) ?? 0) + weight);
    for (let k = Math.floor(from) + 1; k < from + length; k++) crossed.set(k, (crossed.get(k) ?? 0) + 1);
  }
  let best: number[] = [];
  let bestValue = -Infinity;
  for (const groups of compositions(time.groups[0])) {
    let value = -0.15 * groups.length;
    let at = 0;
    for (const g of groups) {
      value += (weights.get(at) ?? 0) - 1.2 * (crossed.get(at) ?? 0);
      at += g;
    }
    // Of equal readings the one with its long group first is the commoner (3+2, 3+2+2).
    value += 0.01 * groups[0];
    if (value > bestValue) [best, bestValue] = [groups, value];
  }
  return best;
}

/** True when a note that begins in one metrical place is held over a stronger one. */
export function isSyncopated(measure: Measure, onset: Fraction, length: Fraction): boolean {
  const { beat } = beatOfMeter(measure);
  const own = metricLevel(measure, onset);
  const half = mul(beat, frac(1, 2));
  const end = add(onset, length);
  for (let k = 1; k < 64; k++) {
    const at = mul(half, frac(Math.floor(toNumber(onset) / toNumber(half)) + k));
    if (cmp(at, end) >= 0 || cmp(at, measure.length) >= 0) return false;
    if (metricLevel(measure, at) > own) return true;
  }
  return false;
}
