import { toNumber } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { Score } from '../score/model.ts';
import type { Recording } from '../reading/reading.ts';
import { LIMITS } from '../style/limits.ts';
import type { Performance } from './perform.ts';

/**
 * A moment of a recording as it is written: "67.5" seconds, or "1:07.5" minutes and seconds (below 60), also "1:02:03".
 * @returns seconds, or one sentence that says what is wrong
 */
export function momentOf(text: string): number | string {
  const match = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d+)?)$/.exec(text.trim());
  if (!match) return `“${text}” is no time; write seconds or minutes and seconds, as 67.5 or 1:07.5.`;
  const [hours, minutes, seconds] = [match[1], match[2], match[3].replace(',', '.')].map((x) => Number(x ?? 0));
  if (match[2] !== undefined && seconds >= 60)
    return `In “${text}” the seconds are more than a minute holds; 59.99 is the most after a colon.`;
  if (match[1] !== undefined && minutes >= 60) return `In “${text}” the minutes are more than an hour holds.`;
  const value = 3600 * hours + 60 * minutes + seconds;
  return value > LIMITS.recording ? `“${text}” is more than the ten hours that are kept of a recording.` : value;
}

/** A stretch between two moments that were written down: beats a minute in each recording, and in plan and page. */
export interface ComparedStretch {
  from: number;
  to: number;
  beats: number;
  /** Beats a minute, by recording in their order; null where it has no time at either end. */
  tempi: (number | null)[];
  /** Share of the recording's whole time. */
  shares: (number | null)[];
  planned: number;
  literal: number;
}

export interface Comparison {
  stretches: ComparedStretch[];
  /** Seconds between the first and the last moment, and last stretch's tempo over the first's, by recording. */
  totals: (number | null)[];
}

/**
 * Recordings side by side over the bars at which any of them has a time. Measures are taken as they are played the
 * first time; beats are those of the meter.
 */
export function compareRecordings(score: Score, performance: Performance, recordings: readonly Recording[]): Comparison {
  const moments = [...new Set(recordings.flatMap((r) => r.times.map((t) => t.measure)))]
    .filter((m) => m <= score.measures.length)
    .sort((a, b) => a - b);
  const firstTimes = performance.bars.filter((b) => b.pass === 0);
  const secondsAt = recordings.map((r) => new Map(r.times.map((t) => [t.measure, t.seconds])));
  const span = (r: Recording): number | null => {
    const times = r.times.map((t) => t.seconds);
    return times.length > 1 ? Math.max(...times) - Math.min(...times) : null;
  };
  const totals = recordings.map(span);
  const stretches = moments.slice(0, -1).map((from, k) => {
    const to = moments[k + 1];
    const bars = score.measures.slice(from, to);
    const beats = bars.reduce((s, m) => s + toNumber(m.length) / toNumber(beatOfMeter(m).beat), 0);
    const played = firstTimes.filter((b) => b.measure >= from && b.measure < to);
    const rate = (seconds: number): number => (60 * beats) / seconds;
    const seconds = secondsAt.map((times) => {
      const [a, b] = [times.get(from), times.get(to)];
      return a !== undefined && b !== undefined && b > a ? b - a : null;
    });
    return {
      from,
      to,
      beats,
      tempi: seconds.map((s) => (s === null ? null : rate(s))),
      shares: seconds.map((s, i) => (s === null || !totals[i] ? null : s / totals[i])),
      planned: rate(played.reduce((s, b) => s + b.planned, 0) || Infinity),
      literal: rate(played.reduce((s, b) => s + b.literal, 0) || Infinity)
    };
  });
  return { stretches, totals };
}
