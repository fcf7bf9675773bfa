import type { Tone } from '../analysis/sounding-score.ts';
import type { Settings } from './settings.ts';
import { beatOfMeter } from '../score/meter.ts';
import { INEGALES, MOST_BENT, SHARPENED } from '../style/performance-weights.ts';
import { swingRatio } from '../style/swing.ts';
import { beatTicks, type PlayableScore } from './playable-score.ts';
import { searchBy } from '../search.ts';

/** A stretch of written time in which a part's notes are shifted: what stands at `knee` sounds at `sounds`; its ends stay. Ticks. */
export interface Bend {
  effect: 'swing' | 'inegales' | 'dotting';
  from: number;
  knee: number;
  sounds: number;
  to: number;
}

const byStart = searchBy((bend: Bend) => bend.from);

/** Where a tick sounds among bends that are in order and do not overlap. */
export function bent(bends: readonly Bend[], ticks: number): number {
  const b = bends[byStart.lastBegun(bends, ticks)];
  if (!b || ticks <= b.from || ticks >= b.to) return ticks;
  return ticks <= b.knee
    ? b.from + ((ticks - b.from) * (b.sounds - b.from)) / (b.knee - b.from)
    : b.to - ((b.to - ticks) * (b.to - b.sounds)) / (b.to - b.knee);
}

/**
 * Swing, unequal notes and sharpened dots of one part, under the schools that hold at each place.
 * @param tempoAt quarters a minute at a tick
 */
export function bendsOf(playable: PlayableScore, settings: Settings, part: number, tempoAt: (ticks: number) => number): Bend[] {
  const { score, sounding } = playable;
  const bends: Bend[] = [];
  const asks = (ticks: number): boolean =>
    !['straight', undefined].includes(settings.school('swing', ticks)) ||
    (settings.school('inegales', ticks) ?? '') in INEGALES ||
    settings.school('dotting', ticks) === 'sharpened';
  for (const measure of score.measures) {
    if (!asks(sounding.measureStarts[measure.index])) continue;
    const tones: Tone[] = [];
    for (let k = playable.firstTone[measure.index]; k < playable.firstTone[measure.index + 1]; k++)
      if (playable.tones[k].tone.note.part === part) tones.push(playable.tones[k].tone);
    const start = sounding.measureStarts[measure.index];
    const end = sounding.measureStarts[measure.index + 1] ?? sounding.totalTicks;
    const beat = beatTicks(playable, measure);
    const binary = beatOfMeter(measure).slots === 2;
    const half = beat / 2;
    for (let at = start; at + beat <= end; at += beat) {
      const swing = settings.school('swing', at);
      const unequal = INEGALES[settings.school('inegales', at) ?? ''];
      if (!binary || ((!swing || swing === 'straight') && !unequal)) continue;
      const inside = tones.filter((t) => t.start >= at && t.start < at + beat);
      const second = inside.find((t) => t.start === at + half);
      // Only plain pairs are bent; triplets and quicker notes stay as they are.
      if (!second || inside.some((t) => t.start !== at && t.start !== at + half)) continue;
      const first = inside.find((t) => t.start === at);
      if (swing && swing !== 'straight') {
        const ratio = swing === 'two-to-one' ? 2 : swingRatio((tempoAt(at) * sounding.ticksPerQuarter) / beat);
        const amount = settings.amount('swing', at);
        const share = 0.5 + (ratio / (1 + ratio) - 0.5) * amount;
        if (amount)
          bends.push({ effect: 'swing', from: at, knee: at + half, sounds: at + beat * Math.min(share, MOST_BENT.pair), to: at + beat });
      } else if (unequal && first && first.end === second.start && Math.abs(second.height - first.height) === 1) {
        const amount = settings.amount('inegales', at);
        const share = 0.5 + (unequal / (1 + unequal) - 0.5) * amount;
        if (amount)
          bends.push({ effect: 'inegales', from: at, knee: at + half, sounds: at + beat * Math.min(share, MOST_BENT.pair), to: at + beat });
      }
    }
    for (const tone of tones) {
      const next = tone.next;
      const length = tone.end - tone.start;
      if (settings.school('dotting', tone.start) !== 'sharpened' || tone.note.dots !== 1 || !next || next.start !== tone.end) continue;
      const short = next.end - next.start;
      if (length !== 3 * short || next.end > end || length > 3 * sounding.ticksPerQuarter) continue;
      const amount = settings.amount('dotting', tone.start);
      const whole = length + short;
      const share = 0.75 + (SHARPENED - 0.75) * amount;
      if (amount)
        bends.push({
          effect: 'dotting',
          from: tone.start,
          knee: tone.end,
          sounds: tone.start + whole * Math.min(share, MOST_BENT.dot),
          to: next.end
        });
    }
  }
  // Where two would bend the same time, the one that begins earlier does.
  bends.sort((a, b) => a.from - b.from);
  return bends.filter((b, k) => !bends.slice(Math.max(0, k - 4), k).some((o) => o.to > b.from && o.from <= b.from && o !== b));
}
