import { add, cmp, eq, frac, mul, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, isSyncopated, metricLevel } from '../score/meter.ts';
import type { Measure, Note, Score } from '../score/model.ts';
import { GroupBuilder, times, type SurveyGroup } from './line.ts';

interface Line {
  measure: Measure;
  /** Notes and rests of one voice of one bar in order, chords by their first note, without graces. */
  notes: Note[];
}

/** Voices bar by bar. */
function voiceLines(score: Score): Line[] {
  const lines = new Map<string, Line>();
  for (const n of score.notes) {
    if (n.cue || n.grace || n.chord) continue;
    const key = `${n.measure}|${n.part}|${n.voice}`;
    const line = lines.get(key) ?? { measure: score.measures[n.measure], notes: [] };
    line.notes.push(n);
    lines.set(key, line);
  }
  for (const line of lines.values()) line.notes.sort((a, b) => cmp(a.onset, b.onset));
  return [...lines.values()];
}

/** Measures with a dotted figure (3:1) in a line. */
const isDottedPair = (a: Note, b: Note | undefined): boolean =>
  Boolean(b) && !a.rest && eq(a.duration, mul(b!.duration, frac(3))) && (a.dots ?? 0) >= 1 && toNumber(a.duration) < 2;

const isTriplet = (n: Note): boolean => n.timeModification?.actual === 3;

/** Divisions of the beat that are told apart, each a bit: 5, 7, 3, 2; a note counts for the first that divides its place. */
const DIVISIONS = [5, 7, 3, 2];
const divisionBit = (denominator: number): number => {
  const k = DIVISIONS.findIndex((n) => denominator % n === 0);
  return k < 0 ? 0 : 1 << k;
};

/** Bars in which two voices divide the same beat, each in a way that the other does not. */
function polyrhythms(score: Score): number[] {
  const bars = new Set<number>();
  /** Divisions by voice, for each beat of the bar that is being read. */
  let beats: Map<string, number>[] = [];
  let bar = -1;
  const close = (): void => {
    const against = (masks: number[]): boolean => masks.some((a, k) => masks.slice(k + 1).some((b) => a & ~b && b & ~a));
    if (beats.some((b) => b.size > 1 && against([...b.values()]))) bars.add(bar);
  };
  for (const n of [...score.notes].sort((a, b) => a.measure - b.measure)) {
    if (n.rest || n.grace || n.cue) continue;
    if (n.measure !== bar) {
      close();
      beats = [];
      bar = n.measure;
    }
    const { beat } = beatOfMeter(score.measures[bar]);
    const index = Math.floor(toNumber(n.onset) / toNumber(beat));
    const phase = sub(n.onset, mul(beat, frac(index)));
    const mask =
      divisionBit(frac(phase.n * beat.d, phase.d * beat.n).d) | divisionBit(frac(n.duration.n * beat.d, n.duration.d * beat.n).d);
    if (!mask) continue;
    const voices = (beats[index] ??= new Map());
    const voice = `${n.part}|${n.staff}|${n.voice}`;
    voices.set(voice, (voices.get(voice) ?? 0) | mask);
  }
  close();
  return [...bars];
}

/** Rhythms that need care, each with its bars: handbook 1.6 to 1.8. */
export function care(score: Score): SurveyGroup {
  const group = new GroupBuilder('Rhythms that need care');
  const found = new Map<string, number[]>();
  const put = (what: string, bar: number) => found.set(what, [...(found.get(what) ?? []), bar]);
  const dotted = new Set<number>();
  const triplets = new Set<number>();
  for (const { measure, notes } of voiceLines(score)) {
    notes.forEach((n, k) => {
      const next = notes[k + 1];
      if (isDottedPair(n, next)) dotted.add(measure.index);
      if (isTriplet(n)) triplets.add(measure.index);
      if ((n.dots ?? 0) >= 2 && !n.rest) put('double dots', measure.index);
      if (n.rest) {
        if (next && !next.rest && metricLevel(measure, next.onset) < 1) put('entries after rests off the beat', measure.index);
        return;
      }
      if (n.tie?.stop && metricLevel(measure, n.onset) >= 2) put('ties into strong beats', measure.index);
      if (!n.tie?.stop && !n.timeModification && isSyncopated(measure, n.onset, n.duration)) put('syncopations', measure.index);
      if (n.timeModification && ![3, 6].includes(n.timeModification.actual))
        put(`${n.timeModification.actual} in the time of ${n.timeModification.normal}`, measure.index);
    });
  }
  for (const bar of dotted)
    if ([bar - 1, bar, bar + 1].some((b) => triplets.has(b))) put('dotted figures beside triplets: 3 to 1 against 2 to 1', bar);
  for (const bar of polyrhythms(score)) put('different divisions at once', bar);
  for (const d of score.directions) {
    if (d.kind === 'sound' && d.attributes.swing)
      put(d.attributes.swing === 'straight' ? 'straight eighths again' : `swing ${d.attributes.swing}`, d.measure);
    if (d.kind === 'words' && /\bswing|inégal/i.test(d.text)) put('swing or unequal notes', d.measure);
  }
  for (const [label, bars] of [...found].sort((a, b) => b[1].length - a[1].length)) group.add(label, times(bars.length), bars);
  return group.group;
}

/** Longest stretch of a part without a rest, as [start, end] in quarters; for endurance and breath. */
export function longestWithoutRest(score: Score, part: number): { start: Fraction; end: Fraction } | null {
  const notes = score.notes.filter((n) => n.part === part && !n.rest && !n.cue && !n.grace).sort((a, b) => cmp(a.start, b.start));
  let best: { start: Fraction; end: Fraction } | null = null;
  let open: { start: Fraction; end: Fraction } | null = null;
  for (const n of notes) {
    const end = add(n.start, n.duration);
    if (open && cmp(n.start, open.end) <= 0) {
      if (cmp(end, open.end) > 0) open.end = end;
    } else open = { start: n.start, end };
    if (!best || toNumber(open.end) - toNumber(open.start) > toNumber(best.end) - toNumber(best.start)) best = { ...open };
  }
  return best;
}
