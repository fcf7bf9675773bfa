import { BRASS_PRICES as PRICE } from '../style/brass.ts';
import { lasts, silenceBefore, type PlayerLine } from './player-line.ts';
import type { BrassFingering } from './brass.ts';

/** A step or an entrance of a brass part that has to be prepared. */
export interface BrassRemark {
  at: number;
  kind: 'over-partials' | 'smears' | 'no-glissando' | 'soft-entrance' | 'may-burst';
  /** Partials that are passed; seconds of rest before an entrance. */
  count: number;
}

/**
 * What slurs pass over, slides that would be heard, soft entrances after long rests and accents that burst. Handbook 17.3.
 * @param soft whether an attack is piano or less
 */
export function brassRemarks(line: PlayerLine, { ways }: BrassFingering, soft: (at: number) => boolean): BrassRemark[] {
  const { attacks, score } = line;
  const found: BrassRemark[] = [];
  const glissandi = new Set(score.slurs.filter((s) => s.kind === 'glissando' || s.kind === 'slide').map((s) => s.from));
  for (let k = 0; k < attacks.length; k++) {
    const way = ways[k];
    if (!way || attacks[k].grace) continue;
    const before = k ? ways[k - 1] : null;
    if (before && before.tube === way.tube) {
      const passed = Math.abs(before.partial - way.partial) - 1;
      const glides = attacks[k - 1].notes.some((n) => glissandi.has(n.id));
      if (glides && (way.slide === null || before.partial !== way.partial)) found.push({ at: k, kind: 'no-glissando', count: 0 });
      else if (attacks[k - 1].joined && passed > 0) found.push({ at: k, kind: 'over-partials', count: passed });
      else if (attacks[k - 1].joined && !glides && way.slide !== null && before.partial === way.partial && before.slide !== way.slide)
        found.push({ at: k, kind: 'smears', count: 0 });
    }
    const rest = silenceBefore(line, k);
    if (rest >= PRICE.longRest && soft(k)) found.push({ at: k, kind: 'soft-entrance', count: rest });
    if (way.partial >= PRICE.burstsFrom && attacks[k].notes.some((n) => n.marks?.some((m) => /accent/.test(m.name))))
      found.push({ at: k, kind: 'may-burst', count: 0 });
  }
  return found;
}

/** Bars before the last peak of the load in which something can be saved: loud work that is not the peak itself. */
export function saveBefore(load: readonly number[]): { from: number; to: number; peak: number } | null {
  const peak = load.findLastIndex((l) => l >= PRICE.peak);
  const from = Math.max(0, peak - PRICE.saveBars);
  let first = -1;
  for (let k = from; k < peak; k++) if (first < 0 && load[k] >= PRICE.saveFrom && load[k] < PRICE.peak) first = k;
  return first < 0 ? null : { from: first, to: peak - 1, peak };
}

/** Where the lips have worked most before the loudest bar, with too little left for it; null where the order is right. */
export function spentBeforePeak(
  load: readonly number[],
  loudest: number | null
): { peak: number; what: (measures: readonly { number: string }[]) => string } | null {
  if (loudest === null) return null;
  const most = load.indexOf(Math.max(...load));
  if (most >= loudest || load[loudest] > load[most] - PRICE.spent) return null;
  return {
    peak: loudest,
    what: (m) => `The lips have worked most in bar ${m[most].number}, before the loudest place in bar ${m[loudest].number}: save there.`
  };
}

/** Seconds that a line goes on without a rest of a second: how long the lips have no pause. */
export function longestWithoutRest(line: PlayerLine): { at: number; seconds: number } {
  let best = { at: 0, seconds: 0 };
  let since = 0;
  line.attacks.forEach((a, k) => {
    if (silenceBefore(line, k) >= 1) since = k;
    const seconds = a.from + lasts(a) - line.attacks[since].from;
    if (seconds > best.seconds) best = { at: since, seconds };
  });
  return best;
}
