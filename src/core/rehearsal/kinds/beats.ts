import { cmp, sub } from '../../score/fraction.ts';
import { struck, withSounds, type DrillBar, type DrillSound } from '../material.ts';

/** Only some notes, each held to the next one or to the end of its bar; they stay at their places. */
export function held(bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): DrillBar[] {
  return bars.map((bar) => {
    const kept = bar.sounds.filter((s) => s.heads.length && keeps(s));
    return withSounds(
      bar,
      kept.map((s, k) => ({
        ...s,
        duration: sub(kept[k + 1]?.at ?? bar.length, s.at),
        heads: s.heads.map((h) => ({ ...h, tie: false })),
        ...{ graces: [], signs: [], slurStarts: 0, slurStops: 0 }
      }))
    );
  });
}

/** Only some notes, in their own lengths; the others are silent. */
export function alone(bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): DrillBar[] {
  return bars.map((bar) =>
    withSounds(
      bar,
      bar.sounds
        .filter((s) => s.heads.length && keeps(s))
        .map((s) => ({ ...s, heads: s.heads.map((h) => ({ ...h, tie: false })), ...{ graces: [], slurStarts: 0, slurStops: 0 } }))
    )
  );
}

/** How many of the notes of some bars are kept. */
export const shareOf = (bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): number => {
  const all = struck(bars);
  return all.length ? all.filter(keeps).length / all.length : 0;
};

/** Longest first note of a bar comes on its beginning. */
export const onBeat = (bar: DrillBar, s: DrillSound): boolean => {
  const units = (s.at.n * bar.beat.d) / (s.at.d * bar.beat.n);
  return Number.isInteger(Number(units.toFixed(9))) && cmp(s.at, bar.length) < 0;
};
