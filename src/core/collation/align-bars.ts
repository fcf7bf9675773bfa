import type { Score } from '../score/model.ts';
import { staffStep } from '../score/pitch.ts';
import { BARS } from '../style/collation-weights.ts';
import { isMissing } from './align-parts.ts';
import { common, count, type Multiset } from './multiset.ts';

/** A bar of one source with the bar of the other that it is; null where the other has none. Measure indices. */
export interface BarPair {
  a: number | null;
  b: number | null;
}

interface Content {
  /** What sounds when, at which height, and both. */
  moments: Multiset;
  heights: Multiset;
  both: Multiset;
}

/** What is in each bar of the parts that both sources have. */
function contents(score: Score, shared: ReadonlySet<number>): Content[] {
  const bars = score.measures.map((): Content => ({ moments: new Map(), heights: new Map(), both: new Map() }));
  for (const n of score.notes) {
    if (n.rest || n.grace || n.cue || !n.pitch || !shared.has(n.part)) continue;
    const bar = bars[n.measure];
    const moment = `${n.part}|${n.onset.n}/${n.onset.d}`;
    const height = `${n.part}|${staffStep(n.pitch)}`;
    count(bar.moments, moment);
    count(bar.heights, height);
    count(bar.both, `${moment}|${height}`);
  }
  return bars;
}

const likeness = (a: Content, b: Content): number =>
  BARS.both * common(a.both, b.both) + BARS.moments * common(a.moments, b.moments) + BARS.heights * common(a.heights, b.heights);

/**
 * Aligns the bars of two sources of one piece by what is in them, whatever their numbers say: the cheapest way through
 * both, on which a bar may be missing on either side.
 * @param b with its parts in the order of the first
 */
export function alignBars(a: Score, b: Score): BarPair[] {
  const shared = new Set(a.parts.map((p) => p.index).filter((k) => b.parts[k] && !isMissing(b.parts[k])));
  const [one, two] = [contents(a, shared), contents(b, shared)];
  const [n, m] = [one.length, two.length];
  const width = m + 1;
  const cost = new Float64Array((n + 1) * width).fill(Infinity);
  const step = new Uint8Array((n + 1) * width);
  const band = Math.max(BARS.band, Math.abs(n - m) + BARS.band);
  for (let i = 0; i <= n; i++) {
    const middle = Math.round((i * m) / Math.max(1, n));
    for (let j = Math.max(0, middle - band); j <= Math.min(m, middle + band); j++) {
      const at = i * width + j;
      let best = i === 0 && j === 0 ? 0 : Infinity;
      let from = 0;
      const consider = (value: number, kind: number): void => {
        if (value < best) [best, from] = [value, kind];
      };
      if (i && j) consider(cost[at - width - 1] + 1 - likeness(one[i - 1], two[j - 1]), 3);
      if (i) consider(cost[at - width] + BARS.missing, 1);
      if (j) consider(cost[at - 1] + BARS.missing, 2);
      cost[at] = best;
      step[at] = from;
    }
  }
  const pairs: BarPair[] = [];
  for (let i = n, j = m; i > 0 || j > 0;) {
    const kind = step[i * width + j];
    if (kind === 3) pairs.push({ a: --i, b: --j });
    else if (kind === 1) pairs.push({ a: --i, b: null });
    else if (kind === 2) pairs.push({ a: null, b: --j });
    else break;
  }
  return pairs.reverse();
}
