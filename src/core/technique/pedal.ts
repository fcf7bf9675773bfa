import type { ChordFact } from '../analysis/facts.ts';
import { add, eq, lt, lte, max, min, sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { PEDAL } from '../style/keyboard-sound.ts';
import { height } from './player-line.ts';

/** A stretch over which the dampers are lifted. */
export interface PedalStretch {
  measure: number;
  start: Fraction;
  end: Fraction;
}

/**
 * Where the pedal helps: one harmony of a bar whose notes the hand cannot all hold, never against short notes or rests of the page,
 * never over a melody that walks. Handbook 14.4.
 */
export function pedalStretches(score: Score, part: number, chords: readonly ChordFact[]): PedalStretch[] {
  const found: PedalStretch[] = [];
  const own = score.notes.filter((n) => n.part === part && !n.cue && !n.grace);
  const byBar = new Map<number, Note[]>();
  for (const n of own) byBar.set(n.measure, [...(byBar.get(n.measure) ?? []), n]);
  for (const measure of score.measures) {
    const ends = add(measure.start, measure.length);
    const notes = byBar.get(measure.index) ?? [];
    for (const chord of chords) {
      if (!lt(chord.start, ends) || !lt(measure.start, chord.end)) continue;
      const start = max(chord.start, measure.start);
      const end = min(chord.end, ends);
      if (toNumber(sub(end, start)) < PEDAL.leastQuarters) continue;
      const inside = notes.filter((n) => lte(start, n.start) && lt(n.start, end));
      if (helps(inside, start, end)) found.push({ measure: measure.index, start, end });
    }
  }
  return found;
}

function helps(inside: readonly Note[], start: Fraction, end: Fraction): boolean {
  if (inside.some((n) => n.rest || n.marks?.some((m) => /staccat|spiccato/.test(m.name)))) return false;
  const sounding = inside.filter((n) => n.pitch);
  const staves = new Set(sounding.map((n) => n.staff));
  // A bass that is left while its harmony goes on, under something else.
  const lowest = sounding.filter((n) => eq(n.start, start)).sort((a, b) => height(a) - height(b))[0];
  if (staves.size < 2 || !lowest) return false;
  if (!lt(add(lowest.start, lowest.duration), end)) return false;
  const tune = sounding.filter((n) => n.staff === 1 && !n.chord);
  let steps = 0;
  for (let k = 1; k < tune.length; k++) {
    const by = Math.abs(height(tune[k]) - height(tune[k - 1]));
    steps = by === 1 || by === 2 ? steps + 1 : 0;
    if (steps > PEDAL.mostSteps) return false;
  }
  return true;
}
