import { toNumber } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import { clicksInBar, groupsOf, type ClickKind } from './clicks.ts';
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

/** Clicks over a performance as it is played: they bend with its beats, and swung parts fall where the long eighth ends. */
export function clicksOf(score: Score, performance: Performance, kind: ClickKind, swing: string | undefined = undefined): Click[] {
  if (kind === 'none') return [];
  const clicks: Click[] = [];
  const groups = new Map<number, readonly number[] | null>();
  const beats = new Map<string, Account[]>();
  for (const b of performance.beats) {
    const bar = `${b.measure}|${b.pass}`;
    const own = beats.get(bar);
    if (own) own.push(b);
    else beats.set(bar, [b]);
  }
  performance.bars.forEach((bar, count) => {
    const measure = score.measures[bar.measure];
    if (!groups.has(bar.measure)) groups.set(bar.measure, groupsOf(score, measure));
    const own = beats.get(`${bar.measure}|${bar.pass}`) ?? [];
    for (const { at, weight } of clicksInBar(measure, kind, groups.get(bar.measure)!, count)) {
      const found = momentIn(own, toNumber(at));
      if (!found) continue;
      const { beat, share } = found;
      const { slots } = beatOfMeter(measure);
      const swung = share > 0 && slots === 2 && swing !== undefined && swing !== 'straight';
      const ratio = swing === 'two-to-one' ? 2 : swingRatio(60 / beat.planned);
      clicks.push({ at: beat.start + beat.planned * (swung ? ratio / (1 + ratio) : share), weight });
    }
  });
  return clicks;
}

/** In which beat of a bar a moment lies, and how far into it. @param at quarters from the beginning of the bar */
function momentIn(beats: readonly Account[], at: number): { beat: Account; share: number } | null {
  let before = 0;
  for (const beat of beats) {
    if (at < before + beat.quarters - 1e-9) return { beat, share: (at - before) / beat.quarters };
    before += beat.quarters;
  }
  return null;
}
