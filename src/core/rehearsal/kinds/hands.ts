import { frac, mul } from '../../score/fraction.ts';
import type { Pitch } from '../../score/pitch.ts';
import { again, bare, barOf, inARow, ORNAMENT_SIGNS, type DrillBar, type DrillSound } from '../material.ts';

/** Each chord of so many heads and more, so many times in quarters. */
export function chordsRepeated(bars: readonly DrillBar[], heads: number, most: number, times: number): DrillBar[] {
  const seen = new Set<string>();
  const chords = bars
    .flatMap((b) => b.sounds)
    .filter((s) => {
      const name = s.heads.map((h) => JSON.stringify(h.pitch)).join();
      if (s.heads.length < heads || seen.has(name)) return false;
      seen.add(name);
      return true;
    });
  return chords
    .slice(0, most)
    .map((s) => barOf(bars[0], frac(times), inARow(Array.from({ length: times }, () => ({ ...bare(s), duration: frac(1) })))));
}

/** Bars in twice their time, bound. */
export const slowly = (bars: readonly DrillBar[]): DrillBar[] =>
  bars.map((bar) => {
    const sounds = bar.sounds.map((s) => ({ ...bare(s), at: mul(s.at, frac(2)), duration: mul(s.duration, frac(2)) }));
    return { ...barOf(bar, mul(bar.length, frac(2)), sounds), beat: mul(bar.beat, frac(2)) };
  });

/** The bow alone: each note on the open string on which it is played. @param openOf of each written head, by note id; null where it has none */
export const onOpenStrings = (bars: readonly DrillBar[], openOf: (note: string) => Pitch | null): DrillBar[] =>
  bars.map((bar) => ({
    ...bar,
    sounds: bar.sounds.map((s) => {
      const heads = s.heads.flatMap((h, k) => {
        const pitch = openOf(s.notes[k]?.id ?? '');
        return pitch ? [{ pitch, tie: h.tie }] : [];
      });
      return { ...s, heads: heads.length || !s.heads.length ? heads : s.heads, graces: [] };
    })
  }));

/** Without bow: no slurs, no signs. */
export const withoutBow = (bars: readonly DrillBar[]): DrillBar[] =>
  bars.map((bar) => ({ ...bar, sounds: bar.sounds.map((s) => ({ ...s, signs: [], slurStarts: 0, slurStops: 0 })) }));

/** Without ornaments: small notes and signs go. */
export const ornamentsOut = (bars: readonly DrillBar[]): DrillBar[] =>
  bars.map((bar) => ({
    ...bar,
    sounds: bar.sounds.map((s) => ({ ...s, graces: [], signs: s.signs.filter((x) => !ORNAMENT_SIGNS.has(x)) }))
  }));

/** One movement of small notes with its own note, twice in a bar and so many bars; then before the note that comes after it. */
export function movementAlone(bars: readonly DrillBar[], sound: DrillSound, before: DrillSound | null, times: number): DrillBar[] {
  const own = (s: DrillSound, duration = frac(1)): DrillSound => ({ ...bare(s), graces: s.graces, duration });
  const alone = barOf(bars[0], frac(4), inARow([1, 2].map(() => own(sound, frac(2)))), 'alone');
  const inPlace = before
    ? [barOf(bars[0], frac(4), inARow([own(bare(before)), own(sound), own(bare(before)), own(sound)]), 'between its notes')]
    : [];
  return [...again([alone], times), ...inPlace, ...bars];
}

/** Each of some notes over a whole bar, from nothing to full and back, with a bar of rest after it. */
export const longNotes = (bars: readonly DrillBar[], sounds: readonly DrillSound[]): DrillBar[] =>
  sounds.flatMap((s) => {
    const half = (signs: string[], tie: boolean): DrillSound => ({
      ...bare(s),
      ...{ duration: frac(2), signs },
      heads: s.heads.map((h) => ({ ...h, tie }))
    });
    return [barOf(bars[0], frac(4), inARow([half(['<(', '<)'], true), half(['>(', '>)'], false)])), barOf(bars[0], frac(4), [])];
  });
