import type { EffectKey } from '../style/effects.ts';
import { SHORTEST_CELL } from '../style/performance-weights.ts';
import type { Settings } from './settings.ts';
import { segmentAt, type TempoSegments } from './tempo-segments.ts';
import type { PlayableScore } from './playable-score.ts';
import type { TimeShare } from './time-effects.ts';

/** Written time to seconds, for one way of playing a bar (usual, or the last time). */
interface Variant {
  /** Seconds of each cell and of the pause before it; the strict ones are those of voices that do not take part in stolen time. */
  length: Float64Array;
  strict: Float64Array;
  gap: Float64Array;
  /** Seconds from the beginning of its measure to each cell's beginning, its pause included. */
  at: Float64Array;
  strictAt: Float64Array;
  /** Seconds of each measure. */
  measure: Float64Array;
}

/** The time of a performance: what every written moment becomes in seconds, and why. */
export interface Clock {
  segments: TempoSegments;
  usual: Variant;
  last: Variant;
  /** By effect: extra seconds of each cell, pauses included; `last` for the last time through. */
  shares: { effect: EffectKey; usual: Float64Array; last: Float64Array }[];
}

const SHAPING_OFF: ReadonlySet<EffectKey> = new Set(['arch', 'leaning']);

/** Puts the shares together under the settings and gives each school its guarantee (handbook 7.4). */
export function clockOf(playable: PlayableScore, segments: TempoSegments, shares: readonly TimeShare[], settings: Settings): Clock {
  const count = segments.from.length;
  const byEffect = new Map<EffectKey, { usual: Float64Array; last: Float64Array; gap: Float64Array; stolen: boolean }>();
  const base = baseOf(segments, shares, settings);
  const modes = playable.score.measures.map((m) => settings.school('rubato', playable.sounding.measureStarts[m.index]) ?? 'beat-strict');
  for (const share of shares) {
    let entry = byEffect.get(share.effect);
    if (!entry)
      byEffect.set(
        share.effect,
        (entry = { usual: new Float64Array(count), last: new Float64Array(count), gap: new Float64Array(count), stolen: !!share.shaping })
      );
    const seconds = new Float64Array(count);
    const everywhere = settings.even ? settings.amount(share.effect, 0) : null;
    if (everywhere === 0) continue;
    for (let c = 0; c < count; c++) {
      const amount = everywhere ?? settings.amount(share.effect, segments.from[c]);
      seconds[c] = share.ratio[c] * (share.effect === 'tempo' ? segments.literal[c] : base[c]) * amount;
      // Where time is stolen, a breath takes its time from the note before it.
      if (share.gap && modes[segments.measure[c]] !== 'stolen') entry.gap[c] += share.gap[c] * amount;
    }
    for (const m of playable.score.measures)
      shape(segments, segments.first[m.index], segments.first[m.index + 1], seconds, modes[m.index], share);
    for (let c = 0; c < count; c++) {
      if (!share.lastTime) entry.usual[c] += seconds[c];
      entry.last[c] += seconds[c];
    }
  }
  const effects = [...byEffect.entries()];
  for (const which of ['usual', 'last'] as const)
    for (let c = 0; c < count; c++) {
      let sum = 0;
      for (const [effect, e] of effects) if (effect !== 'tempo') sum += e[which][c];
      const least = (SHORTEST_CELL - 1) * base[c];
      if (sum < least) for (const [effect, e] of effects) if (effect !== 'tempo') e[which][c] *= least / sum;
    }
  const variant = (which: 'usual' | 'last'): Variant => {
    const v: Variant = {
      length: Float64Array.from(segments.literal),
      strict: Float64Array.from(segments.literal),
      gap: new Float64Array(count),
      at: new Float64Array(count),
      strictAt: new Float64Array(count),
      measure: new Float64Array(playable.score.measures.length)
    };
    for (const [, e] of effects)
      for (let c = 0; c < count; c++) {
        v.length[c] += e[which][c];
        v.gap[c] += e.gap[c];
        if (!(e.stolen && modes[segments.measure[c]] === 'stolen')) v.strict[c] += e[which][c];
      }
    for (const m of playable.score.measures) {
      let at = 0;
      let strict = 0;
      for (let c = segments.first[m.index]; c < segments.first[m.index + 1]; c++) {
        v.at[c] = at += v.gap[c];
        v.strictAt[c] = strict += v.gap[c];
        at += v.length[c];
        strict += v.strict[c];
      }
      v.measure[m.index] = at;
    }
    return v;
  };
  return {
    segments,
    usual: variant('usual'),
    last: variant('last'),
    shares: effects.map(([effect, e]) => ({ effect, usual: e.usual.map((x, c) => x + e.gap[c]), last: e.last.map((x, c) => x + e.gap[c]) }))
  };
}

/** Seconds of each cell at the tempo of the reading: what all other effects are measured against. */
function baseOf(segments: TempoSegments, shares: readonly TimeShare[], settings: Settings): Float64Array {
  const tempo = shares.find((s) => s.effect === 'tempo');
  return tempo
    ? segments.literal.map((literal, c) => literal * (1 + tempo.ratio[c] * settings.amount('tempo', segments.from[c])))
    : segments.literal;
}

/** The guarantee of the school over one bar's cells: ratios inside the beat hold, or the bar keeps its length. */
function shape(segments: TempoSegments, from: number, to: number, seconds: Float64Array, mode: string, share: TimeShare): void {
  // A fermata, a free bar, a pulled bar and a metronome mark are written acts; no school bends them back.
  if (!share.shaping && share.effect !== 'gradual') return;
  if (mode === 'beat-strict') {
    const off = share.shaping && SHAPING_OFF.has(share.effect);
    for (let c = from; c < to;) {
      let end = c;
      let sum = 0;
      let literal = 0;
      while (end < to && segments.beat[end] === segments.beat[c]) {
        sum += seconds[end];
        literal += segments.literal[end++];
      }
      for (; c < end; c++) seconds[c] = off || !literal ? 0 : (sum * segments.literal[c]) / literal;
    }
  } else if (mode === 'stolen' && share.shaping) {
    let sum = 0;
    let literal = 0;
    for (let c = from; c < to; c++) {
      sum += seconds[c];
      literal += segments.literal[c];
    }
    for (let c = from; c < to && literal; c++) seconds[c] -= (sum * segments.literal[c]) / literal;
  }
}

/**
 * Seconds from the beginning of its measure to a tick in it.
 * @param lead whether it belongs to the leading line, which alone takes part in stolen time
 */
export function secondsInMeasure({ segments }: Clock, variant: Variant, measure: number, ticks: number, lead: boolean): number {
  const c = segmentAt(segments, ticks, measure);
  const at = lead ? variant.at[c] : variant.strictAt[c];
  const length = lead ? variant.length[c] : variant.strict[c];
  return at + (length * (ticks - segments.from[c])) / (segments.to[c] - segments.from[c]);
}
