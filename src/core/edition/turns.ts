import { FALLBACK_TEMPO } from '../performance/playable-score.ts';
import { tempoOfReading } from '../reading/in-force.ts';
import type { Reading } from '../reading/reading.ts';
import { add, cmp, max, sub, toNumber, ZERO, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { TURNS } from '../style/page-weights.ts';

/** How well a page can be turned at each bar line, 0 to 1: seconds of rest around it for the reading's player; index k is the line after measure k. */
export function turnsAfter(score: Score, reading: Pick<Reading, 'part' | 'markings'>): number[] {
  const count = score.measures.length;
  /** Quarters of rest at the beginning and the end of each bar. */
  const first: (Fraction | null)[] = new Array<Fraction | null>(count).fill(null);
  const last: Fraction[] = new Array<Fraction>(count).fill(ZERO);
  for (const n of score.notes) {
    if (n.part !== reading.part || n.rest || n.cue || n.grace) continue;
    const before = first[n.measure];
    if (!before || cmp(n.onset, before) < 0) first[n.measure] = n.onset;
    last[n.measure] = max(last[n.measure], add(n.onset, n.duration));
  }
  return score.measures.map((m, k) => {
    const next = score.measures[k + 1];
    const rest = toNumber(sub(m.length, last[k])) + (next ? toNumber(first[k + 1] ?? next.length) : 0);
    const tempo = tempoOfReading(score, reading.markings, m.start) ?? FALLBACK_TEMPO;
    return Math.min(1, Math.max(0, (60 * rest) / tempo / TURNS.seconds));
  });
}
