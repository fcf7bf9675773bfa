import { TAPS } from '../style/performance-weights.ts';
import type { Account, Performance } from './perform.ts';

/** One tapped beat against the plan. */
export interface TappedBeat {
  measure: number;
  pass: number;
  beat: number;
  /** Seconds that it lasted, smoothed; as it was tapped; and as planned and literal. */
  seconds: number;
  raw: number;
  planned: number;
  literal: number;
}

/**
 * The tempo of taps, one a beat from a beat of the performance on. A slip (a tap too many, or one left out) makes
 * no beat of its own: it is taken as the literal length.
 * @param taps seconds, in order; the last one only ends the last beat
 * @param first index among the performance's beats
 */
export function tappedBeats(performance: Performance, first: number, taps: readonly number[]): TappedBeat[] {
  const beats = performance.beats.slice(first, first + Math.max(0, taps.length - 1));
  const raw = beats.map((b, k) => taps[k + 1] - taps[k]);
  const usual = overall(beats, raw);
  const kept = beats.map((b, k) => {
    const share = raw[k] / (b.literal * usual);
    return share < TAPS.least || share > TAPS.most ? b.literal * usual : raw[k];
  });
  return beats.map((b, k) => {
    let sum = 0;
    let weight = 0;
    TAPS.smoothing.forEach((w, i) => {
      const at = k + i - 1;
      if (!beats[at]) return;
      // Neighbours count by how they depart from their own length: beats of unequal length do not blur.
      sum += (w * kept[at]) / beats[at].literal;
      weight += w;
    });
    return {
      measure: b.measure,
      pass: b.pass,
      beat: b.beat,
      seconds: (b.literal * sum) / weight,
      raw: raw[k],
      planned: b.planned,
      literal: b.literal
    };
  });
}

/** Tapped over literal time, as the middle of all beats: the tapper's own basic tempo. */
function overall(beats: readonly Account[], raw: readonly number[]): number {
  const shares = beats.map((b, k) => raw[k] / b.literal).sort((a, b) => a - b);
  return shares[shares.length >> 1] || 1;
}

/**
 * The rubato of taps as changes of each beat, as shares of it: what is slower and quicker than the tapper's own
 * basic tempo. A basic tempo that differs from the page's is a matter of the metronome mark, not of rubato.
 */
export function rubatoOf(beats: readonly TappedBeat[]): Record<number, number[]> {
  const literal = beats.reduce((s, b) => s + b.literal, 0);
  const basic = literal ? beats.reduce((s, b) => s + b.seconds, 0) / literal : 1;
  const bars: Record<number, number[]> = {};
  for (const b of beats) {
    const bar = (bars[b.measure] ??= []);
    while (bar.length < b.beat) bar.push(0);
    const share = Math.max(TAPS.least, Math.min(TAPS.most, b.seconds / (b.literal * basic)));
    bar[b.beat] = Math.round(1000 * (share - 1)) / 1000;
  }
  return bars;
}
