import { toNumber } from '../score/fraction.ts';
import { beatOfMeter, groupingOf, isAdditive } from '../score/meter.ts';
import type { Score } from '../score/model.ts';
import { swingRatio } from '../style/swing.ts';
import { searchBy } from '../search.ts';
import type { Account, Performance } from './perform.ts';

/** A place in a performance that outlives a new version of it: a bar as played, and how far into it, 0 to 1. */
export interface PlayedPlace {
  measure: number;
  pass: number;
  share: number;
}

const byStart = searchBy((account: Account) => account.start);

/** Index of the bar (or beat) that sounds at a moment. */
export const indexAt = (accounts: readonly Account[], seconds: number): number => byStart.lastBegun(accounts, seconds);

export function placeAt(performance: Performance, seconds: number): PlayedPlace {
  const bar = performance.bars[indexAt(performance.bars, seconds)];
  return { measure: bar.measure, pass: bar.pass, share: bar.planned ? Math.min(1, Math.max(0, (seconds - bar.start) / bar.planned)) : 0 };
}

/** The moment of a place; of the same bar's first time where it is not played so often. */
export function secondsAt(performance: Performance, place: PlayedPlace): number {
  const bar =
    performance.bars.find((b) => b.measure === place.measure && b.pass === place.pass) ??
    performance.bars.find((b) => b.measure === place.measure);
  return bar ? bar.start + place.share * bar.planned : 0;
}

/** First moment of a measure and the end of another, of the first time that they are played. */
export function spanOf(performance: Performance, from: number, to: number): { from: number; to: number } {
  const start = performance.bars.find((b) => b.measure === from) ?? performance.bars[0];
  const end = performance.bars.find((b) => b.measure === to && b.start >= start.start) ?? start;
  return { from: start.start, to: end.start + end.planned };
}

export interface Click {
  at: number;
  /** 2 bar line, 1 beat or head of a group, 0 inside. */
  weight: 0 | 1 | 2;
}

/**
 * Clicks over a performance: on the felt beats, or on their parts, too; groups of additive meters begin with a
 * stronger one, and swung parts fall where the long eighth ends.
 */
export function clicksOf(score: Score, performance: Performance, parts: boolean, swing: string | undefined = undefined): Click[] {
  const clicks: Click[] = [];
  const heads = new Map<number, Set<number>>();
  const headsOf = (measure: number): Set<number> => {
    let found = heads.get(measure);
    if (!found) {
      const m = score.measures[measure];
      const groups = isAdditive(m)
        ? (groupingOf(
            m,
            score.notes.filter((n) => n.measure === measure)
          ) ??
          m.time?.groups ??
          [])
        : [];
      let at = 0;
      found = new Set(groups.map((g) => (at += g) - g));
      heads.set(measure, found);
    }
    return found;
  };
  for (const b of performance.beats) {
    const measure = score.measures[b.measure];
    const { beat, slots } = beatOfMeter(measure);
    const additive = isAdditive(measure);
    if (!additive || headsOf(b.measure).has(b.beat) || parts)
      clicks.push({ at: b.start, weight: b.beat === 0 ? 2 : !additive || headsOf(b.measure).has(b.beat) ? 1 : 0 });
    if (!parts || additive || slots < 2) continue;
    const swung = slots === 2 && swing && swing !== 'straight';
    const ratio = swing === 'two-to-one' ? 2 : swingRatio((60 * toNumber(beat)) / (b.planned * toNumber(beat)));
    for (let k = 1; k < slots; k++) clicks.push({ at: b.start + b.planned * (swung ? ratio / (1 + ratio) : k / slots), weight: 0 });
  }
  return clicks;
}
