import { distinct } from '../distinct.ts';
import { cmp, toNumber, type Fraction } from './fraction.ts';
import { findMetronome, printMetronome, quartersAMinute, readMetronome, unitLength } from './metronome.ts';
import type { Score } from './model.ts';
import { unfold } from './repeats.ts';

/** A tempo that a source gives at a moment, in quarters a minute. */
export interface TempoMark {
  start: Fraction;
  measure: number;
  low: number;
  high: number;
  /** As it is printed; empty for a tempo that only the file's playback data give. */
  text: string;
  printed: boolean;
}

/**
 * All tempi that a score gives in numbers, in order of time, each once also where several parts print it; a printed mark
 * outweighs playback data of its moment.
 */
export function tempoMarks(score: Score): TempoMark[] {
  const marks: TempoMark[] = [];
  for (const d of score.directions) {
    const at = { start: d.start, measure: d.measure };
    if (d.kind === 'metronome') {
      const mark = readMetronome(d);
      if (mark) {
        const [low, high] = quartersAMinute(mark);
        marks.push({ ...at, low, high, text: printMetronome(d), printed: true });
      } else if (d.equals) {
        // A metric modulation: the new unit takes the time of the old one.
        const before = marks.filter((m) => cmp(m.start, d.start) <= 0).at(-1);
        const ratio = toNumber(unitLength(d.equals.unit, d.equals.dots)) / toNumber(unitLength(d.unit, d.dots));
        const text = `${d.unit} = ${d.equals.unit}`;
        if (before) marks.push({ ...at, low: before.low * ratio, high: before.high * ratio, text, printed: true });
      }
    } else if (d.kind === 'words') {
      const mark = findMetronome(d.text);
      if (!mark) continue;
      const [low, high] = quartersAMinute(mark);
      marks.push({ ...at, low, high, text: d.text, printed: true });
    } else if (d.kind === 'sound' && d.tempo) marks.push({ ...at, low: d.tempo, high: d.tempo, text: '', printed: false });
  }
  marks.sort((a, b) => cmp(a.start, b.start));
  const once = distinct(marks, (m) => `${m.start.n}/${m.start.d} ${m.text} ${m.low} ${m.high}`);
  return once.filter((m) => m.printed || !once.some((o) => o.printed && cmp(o.start, m.start) === 0));
}

/** Tempo in force in quarters a minute; null where none is given yet. */
export function tempoInForce(score: Score, at: Fraction): number | null {
  const mark = tempoMarks(score).findLast((m) => cmp(m.start, at) <= 0);
  return mark ? (mark.low + mark.high) / 2 : null;
}

/**
 * Seconds that the piece lasts as played, repeats unfolded, at the tempi it gives, before any of which
 * `fallback` quarters a minute hold. `end` takes the slow or the fast end of each range.
 */
export function playingTime(score: Score, fallback: number, end: 'low' | 'high' = 'low'): number {
  const marks = tempoMarks(score);
  const seconds = score.measures.map((measure) => {
    const inside = marks.filter((m) => m.measure === measure.index);
    const before = marks.filter((m) => m.measure < measure.index).at(-1);
    let tempo = before ? before[end] : fallback;
    let at = toNumber(measure.start);
    let total = 0;
    for (const mark of inside) {
      const start = Math.max(at, toNumber(mark.start));
      total += ((start - at) * 60) / tempo;
      at = start;
      tempo = mark[end];
    }
    return total + ((toNumber(measure.start) + toNumber(measure.length) - at) * 60) / tempo;
  });
  return unfold(score.measures).reduce((sum, p) => sum + seconds[p.measure], 0);
}

/** "2 min 05 s", "48 s". */
export function clock(seconds: number): string {
  const whole = Math.round(seconds);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, '0')} s`;
}
