import { add, div, frac, lt, lte, mul, sub, ZERO, type Fraction } from '../../score/fraction.ts';
import { again, bare, barOf, inARow, withSounds, type DrillBar, type DrillSound } from '../material.ts';

/** A moment in some bars: in which bar, and where in it. */
interface Joint {
  bar: number;
  at: Fraction;
}

/** How a chain grows: at most so many steps, of so many beats each, each played so many times. */
export interface Chain {
  most: number;
  unit: number;
  repeats: number;
}

/** Where a passage may be cut: every so many beats where something is struck, first and last left out; at most so many, evenly. */
function joints(bars: readonly DrillBar[], { most: steps, unit }: Chain): Joint[] {
  const most = steps - 1;
  const all = bars
    .flatMap((b, bar): Joint[] =>
      b.sounds.flatMap((s) => {
        const beats = (s.at.n * b.beat.d) / (s.at.d * b.beat.n);
        const inside = bar > 0 || s.at.n > 0;
        return s.heads.length && Number.isInteger(Number(beats.toFixed(9))) && inside ? [{ bar, at: s.at }] : [];
      })
    )
    .filter((_, k) => k % unit === unit - 1);
  if (all.length <= most) return all;
  return Array.from({ length: most }, (_, k) => all[Math.round(((k + 1) * (all.length - 1)) / most)]);
}

/** Some sounds of a bar; the others are rest. */
const cut = (bar: DrillBar, keeps: (s: DrillSound) => boolean): DrillBar =>
  withSounds(
    bar,
    bar.sounds.filter((s) => s.heads.length && keeps(s))
  );

/** Steps that grow: each but the last is a part of the passage, the last is the whole. */
const grown = (bars: readonly DrillBar[], steps: readonly DrillBar[][], repeats: number): DrillBar[] =>
  [...steps, [...bars]].flatMap((step, k, all) =>
    again(
      step.map((b, n) => (n === 0 ? { ...b, words: k === all.length - 1 ? 'all' : `${k + 1}` } : b)),
      repeats
    )
  );

/** From the first beat on, one more each time, up to the whole. Each step goes to the first note of what follows. */
export const fromTheFront = (bars: readonly DrillBar[], chain: Chain): DrillBar[] =>
  grown(
    bars,
    joints(bars, chain).map(({ bar, at }) => bars.slice(0, bar + 1).map((b, k) => (k < bar ? b : cut(b, (s) => lte(s.at, at))))),
    chain.repeats
  );

/** From the last beat on, one more before it each time, up to the whole. */
export const fromTheEnd = (bars: readonly DrillBar[], chain: Chain): DrillBar[] =>
  grown(
    bars,
    joints(bars, chain)
      .reverse()
      .map(({ bar, at }) => bars.slice(bar).map((b, k) => (k ? b : cut(b, (s) => lte(at, s.at))))),
    chain.repeats
  );

/**
 * Units of a sequence, each followed by as much silence, then all joined.
 * @param from where the first unit begins, from the beginning of the first bar
 */
export function unitsApart(bars: readonly DrillBar[], from: Fraction, unit: Fraction, count: number, times: number): DrillBar[] {
  let start = ZERO;
  const placed = bars.flatMap((bar) => {
    const at = start;
    start = add(start, bar.length);
    return bar.sounds.filter((s) => s.heads.length).map((s) => ({ s, at: add(at, s.at) }));
  });
  const units = Array.from({ length: count }, (_, k) => {
    const begins = add(from, mul(unit, frac(k)));
    const ends = add(begins, unit);
    const own = placed.filter(({ at }) => lte(begins, at) && lt(at, ends));
    const sounds = own.map(({ s, at }): DrillSound => {
      const over = sub(add(at, s.duration), ends);
      return { ...s, at: sub(at, begins), duration: over.n > 0 ? sub(s.duration, over) : s.duration };
    });
    return again([...inBars(bars[0], unit, sounds, k ? undefined : 'stop, get ready'), ...inBars(bars[0], unit, [])], times);
  });
  return [...units.flat(), ...bars.map((b, k) => (k === 0 ? { ...b, words: 'joined' } : b))];
}

/** A stretch in bars of the meter where it is so many of them, else in one of its own. */
function inBars(like: DrillBar, length: Fraction, sounds: readonly DrillSound[], words?: string): DrillBar[] {
  const { n, d } = div(length, like.length);
  if (d !== 1) return [barOf(like, length, sounds, words)];
  return Array.from({ length: n }, (_, k) => {
    const [begins, ends] = [mul(like.length, frac(k)), mul(like.length, frac(k + 1))];
    const own = sounds.filter((s) => lte(begins, s.at) && lt(s.at, ends)).map((s) => ({ ...s, at: sub(s.at, begins) }));
    return barOf(like, like.length, own, k ? undefined : words);
  });
}

/** An interval alone and inside of more and more notes around it. @param at of the note that it leads to, among all that are struck */
export function intervalInContext(bars: readonly DrillBar[], sounds: readonly DrillSound[], at: number, times: number): DrillBar[] {
  const lasting = (s: DrillSound, duration: Fraction): DrillSound => ({ ...bare(s), duration });
  const [a, b] = [sounds[at - 1], sounds[at]];
  const slow = Array.from({ length: times }, () => barOf(bars[0], frac(4), inARow([lasting(a, frac(2)), lasting(b, frac(2))])));
  const around = [1, 2].flatMap((reach) => {
    const some = sounds.slice(Math.max(0, at - 1 - Math.floor(reach / 2)), at + Math.ceil(reach / 2) + reach);
    return [barOf(bars[0], frac(some.length), inARow(some.map((s) => lasting(s, frac(1)))), `${some.length} notes`)];
  });
  return [{ ...slow[0], words: 'slowly' }, ...slow.slice(1), ...around, ...bars.map((x, k) => (k ? x : { ...x, words: 'as written' }))];
}
