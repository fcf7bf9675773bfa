import { MALLETS } from '../style/mallets.ts';
import { height, type PlayerLine } from './player-line.ts';
import type { Sticking } from './mallets.ts';

/** Attacks at which two hands strike one bar so quickly that both need its ends or its middle and one end. Handbook 18.2. */
export function crowdedBars(line: PlayerLine, { sticks }: Sticking): number[] {
  const { attacks } = line;
  return attacks.flatMap((a, k) => {
    const before = attacks[k - 1];
    if (!before || a.notes.length > 1 || before.notes.length > 1) return [];
    const quick = a.from - before.from < MALLETS.crowdedSeconds;
    return quick && height(a.notes[0]) === height(before.notes[0]) && sticks[k][0] !== sticks[k - 1][0] ? [k] : [];
  });
}

/** Where the body moves between phrases: the first attack of the next one, and semitones up. Handbook 18.3. */
export function standsFor({ attacks }: PlayerLine, phraseEnds: ReadonlySet<number>): { at: number; by: number }[] {
  const found: { at: number; by: number }[] = [];
  let from = 0;
  let before: number | null = null;
  for (const end of [...phraseEnds].sort((a, b) => a - b)) {
    const heights = attacks.slice(from, end + 1).flatMap((a) => a.notes.map(height));
    if (!heights.length) continue;
    const middle = (Math.min(...heights) + Math.max(...heights)) / 2;
    if (before !== null && Math.abs(middle - before) >= MALLETS.standsAnew) found.push({ at: from, by: Math.round(middle - before) });
    before = middle;
    from = end + 1;
  }
  return found;
}
