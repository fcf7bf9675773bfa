import { add, eq, frac, lt, lte, mul, sub, toNumber, ZERO, type Fraction } from '../../score/fraction.ts';
import type { Pitch } from '../../score/pitch.ts';
import { bare, barOf, inARow, isRest, isTiedTo, rest, struck, withSounds, type DrillBar, type DrillSound } from '../material.ts';

/** Rests of a quarter and shorter between notes are filled by the note before; each bar is one slur. */
export function restsFilled(bars: readonly DrillBar[]): DrillBar[] {
  return bars.map((bar) => {
    const sounds: DrillSound[] = [];
    for (const s of bar.sounds) {
      const last = sounds.at(-1);
      if (isRest(s) && last && !isRest(last) && toNumber(s.duration) <= 1) last.duration = add(last.duration, s.duration);
      else sounds.push({ ...s, signs: s.signs.filter((x) => !/staccato|wedge/.test(x)), slurStarts: 0, slurStops: 0 });
    }
    const notes = sounds.filter((s) => !isRest(s));
    const runs = sounds.every((s, k) => k === 0 || !isRest(s));
    if (notes.length > 1 && runs) {
      notes[0].slurStarts = 1;
      notes[notes.length - 1].slurStops = 1;
    }
    return withSounds(bar, sounds);
  });
}

/** Every tied note is struck: the onsets stay, and those of the tied notes come to them. */
export const tiesUndone = (bars: readonly DrillBar[]): DrillBar[] =>
  bars.map((bar) => ({ ...bar, sounds: bar.sounds.map((s) => ({ ...s, heads: s.heads.map((h) => ({ ...h, tie: false })) })) }));

/** All notes one after the other in eighths, in bars of the same meter; what is left of the last bar is rest. */
export function evenValues(bars: readonly DrillBar[]): DrillBar[] {
  const eighth = frac(1, 2);
  const notes = struck(bars).filter((s, k, all) => !isTiedTo(s, all[k - 1]));
  const [first] = bars;
  const result: DrillBar[] = [];
  let sounds: DrillSound[] = [];
  let at = ZERO;
  const flush = (): void => {
    if (sounds.length) result.push(withSounds(first, sounds));
    [sounds, at] = [[], ZERO];
  };
  for (const s of notes) {
    if (lt(first.length, add(at, eighth))) flush();
    sounds.push({ ...bare(s), at, duration: eighth });
    at = add(at, eighth);
  }
  flush();
  return result;
}

/** Pairs of equal notes become long and short, three to one, or the other way round; the rest stays. */
export function dottedPairs(bars: readonly DrillBar[], longFirst: boolean): DrillBar[] {
  return bars.map((bar) => {
    const sounds: DrillSound[] = [];
    for (let k = 0; k < bar.sounds.length; k++) {
      const [a, b] = [bar.sounds[k], bar.sounds[k + 1]];
      if (!b || isRest(a) || isRest(b) || !eq(a.duration, b.duration) || !onPair(a) || a.heads.some((h) => h.tie)) {
        sounds.push(a);
        continue;
      }
      const both = add(a.duration, b.duration);
      const first = mul(both, longFirst ? frac(3, 4) : frac(1, 4));
      sounds.push({ ...a, duration: first }, { ...b, at: add(a.at, first), duration: sub(both, first) });
      k++;
    }
    return withSounds(bar, sounds);
  });
}

/** It begins a pair: an even number of its values from the bar line. */
const onPair = ({ at, duration }: DrillSound): boolean => {
  const count = (at.n * duration.d) / (at.d * duration.n);
  return Number.isInteger(count) && count % 2 === 0;
};

/** The rhythm on one pitch. */
export const rhythmAlone = (bars: readonly DrillBar[], pitch: Pitch): DrillBar[] =>
  bars.map((bar) => ({
    ...bar,
    sounds: bar.sounds.map((s) => (isRest(s) ? s : { ...s, heads: [{ pitch, tie: s.heads.some((h) => h.tie) }], graces: [] }))
  }));

/** Longest stretch of notes of one value that are not tied, and that value; what runs are made of. */
export function longestRun(bars: readonly DrillBar[]): { sounds: DrillSound[]; value: Fraction } {
  let best: DrillSound[] = [];
  let run: DrillSound[] = [];
  for (const s of bars.flatMap((b) => b.sounds)) {
    const short = !isRest(s) && !s.heads.some((h) => h.tie) && lte(s.duration, frac(1, 2));
    run = !short ? [] : run.length && eq(run[0].duration, s.duration) ? [...run, s] : [s];
    if (run.length > best.length) best = run;
  }
  return { sounds: best, value: best[0]?.duration ?? ZERO };
}

/** A run three times: each note by itself, three in a slur, six. */
export function slursGrow(bars: readonly DrillBar[], sizes: readonly number[] = [1, 3, 6]): DrillBar[] {
  const { sounds, value } = longestRun(bars);
  const longest = sizes[sizes.length - 1];
  const many = sounds.slice(0, Math.min(Math.floor(24 / longest), Math.floor(sounds.length / longest)) * longest);
  return sizes.map((size) => {
    const notes = inARow(
      many.map((s, k) => ({
        ...bare(s),
        slurStarts: size > 1 && k % size === 0 ? 1 : 0,
        slurStops: size > 1 && k % size === size - 1 ? 1 : 0
      }))
    );
    const words = size === 1 ? 'each by itself' : `${size} in a slur`;
    return barOf(bars[0], mul(value, frac(many.length)), notes, words);
  });
}

/** A run in groups, each followed by as much silence. */
export function inGroups(bars: readonly DrillBar[], size: number): DrillBar[] {
  const { sounds, value } = longestRun(bars);
  const result: DrillBar[] = [];
  const length = mul(value, frac(size));
  for (let k = 0; k + size <= sounds.length && result.length < 8; k += size) {
    const group = sounds.slice(k, k + size).map(bare);
    result.push(barOf(bars[0], mul(length, frac(2)), inARow([...group, rest(ZERO, length)]), k ? undefined : `${size} notes, stop`));
  }
  return result;
}

/** A run as often as a group has notes, the accent each time on the next one. */
export function accentsMoved(bars: readonly DrillBar[], size: number): DrillBar[] {
  const { sounds, value } = longestRun(bars);
  const many = sounds.slice(0, Math.min(16, sounds.length - (sounds.length % size)));
  return Array.from({ length: size }, (_, at) =>
    barOf(
      bars[0],
      mul(value, frac(many.length)),
      inARow(many.map((s, k) => ({ ...bare(s), signs: k % size === at ? ['accent'] : [] }))),
      at === 0 ? 'accents move' : undefined
    )
  );
}
