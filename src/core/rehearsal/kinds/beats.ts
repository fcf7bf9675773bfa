import { sub } from '../../score/fraction.ts';
import { bare, struck, withSounds, type DrillBar, type DrillSound } from '../material.ts';

/** Only some notes, each held to the next one or to the end of its bar; they stay at their places. */
export function held(bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): DrillBar[] {
  return bars.map((bar) => {
    const kept = bar.sounds.filter((s) => s.heads.length && keeps(s));
    return withSounds(
      bar,
      kept.map((s, k) => ({ ...bare(s), duration: sub(kept[k + 1]?.at ?? bar.length, s.at) }))
    );
  });
}

/** Only some notes, in their own lengths; the others are silent. */
export function alone(bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): DrillBar[] {
  return bars.map((bar) =>
    withSounds(
      bar,
      bar.sounds.filter((s) => s.heads.length && keeps(s)).map((s) => ({ ...bare(s), signs: s.signs }))
    )
  );
}

/** How many of the notes of some bars are kept. */
export const shareOf = (bars: readonly DrillBar[], keeps: (s: DrillSound) => boolean): number => {
  const all = struck(bars);
  return all.length ? all.filter(keeps).length / all.length : 0;
};
