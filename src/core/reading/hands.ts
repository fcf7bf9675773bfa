import { soundOf } from '../markings/describe.ts';
import type { Score } from '../score/model.ts';
import { dynamicLevels, handsOf } from './in-force.ts';
import type { Reading } from './reading.ts';

/** Staves to whose hand alone something is said about loudness, as "part staff". */
export function handsApart(score: Score, { markings }: Pick<Reading, 'markings'>): Set<string> {
  const hand = handsOf(score);
  const printed = [...dynamicLevels(score), ...score.hairpins.map((h) => ({ part: h.part, staff: hand(h) }))];
  const own = markings.filter((m) => {
    const { sign, swell } = soundOf(m);
    return sign !== undefined || swell !== undefined;
  });
  return new Set([...printed, ...own].filter((m) => m.staff > 1).map((m) => `${m.part} ${m.staff}`));
}

/** Staves of the part of a reading that have a plan of their own: the first, and those to which something is said alone. */
export function handsOfPart(score: Score, reading: Pick<Reading, 'markings' | 'part'>): number[] {
  const apart = handsApart(score, reading);
  const staves = score.parts[reading.part]?.staves ?? 1;
  return Array.from({ length: staves }, (_, k) => k + 1).filter((staff) => staff === 1 || apart.has(`${reading.part} ${staff}`));
}

/** How the hand of a staff is called; an organ's third staff is for the feet. */
export const handName = (staff: number): string => ['upper hand', 'lower hand'][staff - 1] ?? 'pedals';
