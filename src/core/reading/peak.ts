import type { Facts } from '../analysis/facts.ts';
import { lt, toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { midi } from '../score/pitch.ts';
import { measureAt } from '../score/position.ts';
import { PEAK } from '../style/plan-weights.ts';

/**
 * How much speaks for each measure of a part as the goal of the whole, 0 and more, by measure: how high its top note lies, how long
 * that is held, whether a cadence arrives or a chord of colour sounds there, and whether it comes late enough to have been led to.
 */
export function evidenceOfPeak(score: Score, facts: Facts, part: number): number[] {
  const { measures } = score;
  const tops = measures.map((): { height: number; length: number } | null => null);
  for (const n of score.notes) {
    if (n.part !== part || !n.sounding || n.grace || n.cue) continue;
    const height = midi(n.sounding);
    const length = toNumber(n.duration);
    const top = tops[n.measure];
    if (!top || height > top.height || (height === top.height && length > top.length)) tops[n.measure] = { height, length };
  }
  const heights = tops.flatMap((t) => (t ? [t.height] : []));
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const evidence = tops.map((t, k) => {
    if (!t) return 0;
    const register = high > low ? (t.height - low) / (high - low) : 0;
    const bar = Math.max(1, toNumber(measures[k].length));
    const place = (k + 0.5) / measures.length;
    const late = place >= PEAK.from && place <= PEAK.until ? PEAK.place : 0;
    return PEAK.register * register ** 2 + PEAK.length * Math.min(1, t.length / bar) + late;
  });
  for (const c of facts.cadences) evidence[measureAt(score, c.start).index] += PEAK.cadence * c.strength;
  for (const c of facts.chords) if (c.special && lt(c.start, c.end)) evidence[measureAt(score, c.start).index] += PEAK.colour;
  return evidence;
}

/**
 * The bar of the peak: of those nearly as loud as the loudest the one for which most speaks.
 * @param levels loudest moment of each measure, in steps
 */
export function peakBar(score: Score, facts: Facts, part: number, levels: readonly number[]): number {
  const loudest = Math.max(...levels);
  const evidence = evidenceOfPeak(score, facts, part);
  let best = levels.indexOf(loudest);
  const worth = (k: number): number => evidence[k] + levels[k] - loudest;
  for (let k = 0; k < levels.length; k++) if (levels[k] >= loudest - PEAK.near && worth(k) > worth(best) + 1e-9) best = k;
  return best;
}
