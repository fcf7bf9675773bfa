import { cmp, toNumber, type Fraction } from '../score/fraction.ts';
import { groupingOf, isAdditive, isSyncopated } from '../score/meter.ts';
import type { Note, Score } from '../score/model.ts';
import type { SoundingScore, Tone } from './sounding-score.ts';
import { fromTicks } from './sounding-score.ts';
import { barLabel, measureAt } from '../score/position.ts';
import type { ParallelFact } from './facts.ts';
import { shiftWords } from './words.ts';

/** Where rhythm and meter pull apart, or the notes themselves slow or quicken (handbook 1.5, 3.4, 7.5). */
export interface RhythmFact {
  kind: 'syncopation' | 'hemiola' | 'grouping' | 'displaced theme' | 'written-out slowing' | 'written-out quickening';
  start: Fraction;
  end: Fraction;
  measure: number;
  evidence: string;
  /** Of a displaced theme: where the same music stood before. */
  beside?: Fraction;
}

/** Values that must follow each other, each longer (or shorter) than the one before. */
const GRADES = 3;

function syncopations(score: Score, sounding: SoundingScore): RhythmFact[] {
  return sounding.melody
    .filter(
      (t) => !t.note.timeModification && isSyncopated(score.measures[t.note.measure], t.note.onset, fromTicks(sounding, t.end - t.start))
    )
    .map((t) => ({
      kind: 'syncopation' as const,
      start: t.note.start,
      end: fromTicks(sounding, t.end),
      measure: t.note.measure,
      evidence: 'begins on a weak place and is held over a stronger one'
    }));
}

/** Two bars of three felt as three of two: entries on the first, third and fifth of six beats, nothing new between. */
function hemiolas(score: Score, sounding: SoundingScore): RhythmFact[] {
  const result: RhythmFact[] = [];
  const byBar = new Map<number, Tone[]>();
  for (const t of sounding.tones) {
    if (t.note.grace) continue;
    const list = byBar.get(t.note.measure);
    if (list) list.push(t);
    else byBar.set(t.note.measure, [t]);
  }
  for (let k = 0; k + 1 < score.measures.length; k++) {
    const [a, b] = [score.measures[k], score.measures[k + 1]];
    const beat = a.time?.text === '3/4' ? 1 : a.time?.text === '3/2' ? 2 : a.time?.text === '3/8' ? 0.5 : 0;
    if (!beat || b.time?.text !== a.time?.text || toNumber(a.length) !== 3 * beat || toNumber(b.length) !== 3 * beat) continue;
    const unit = beat * sounding.ticksPerQuarter;
    const start = sounding.measureStarts[k];
    // Entries by beat of the six, weighed by length, so that a running voice does not hide the grouping.
    const weight = new Array<number>(6).fill(0);
    for (const t of [...(byBar.get(k) ?? []), ...(byBar.get(k + 1) ?? [])]) {
      const place = (t.start - start) / unit;
      if (Number.isInteger(place)) weight[place] += Math.min(2, (t.end - t.start) / unit) >= 1.99 ? 2 : 0;
    }
    if (weight[0] > 0 && weight[2] > 0 && weight[4] > 0 && weight[1] === 0 && weight[3] === 0 && weight[5] === 0) {
      result.push({
        kind: 'hemiola',
        start: a.start,
        end: fromTicks(sounding, start + 6 * unit),
        measure: k,
        evidence: 'notes of two beats begin on one, three and two of the next bar: three groups of two across two bars'
      });
      k++;
    }
  }
  return result;
}

function groupings(score: Score): RhythmFact[] {
  const result: RhythmFact[] = [];
  let before = '';
  if (!score.measures.some(isAdditive)) return result;
  const byBar = new Map<number, Note[]>();
  for (const n of score.notes) {
    const bar = byBar.get(n.measure);
    if (bar) bar.push(n);
    else byBar.set(n.measure, [n]);
  }
  for (const m of score.measures) {
    const groups = groupingOf(m, byBar.get(m.index) ?? []);
    const text = groups?.join('+') ?? '';
    if (text && text !== before)
      result.push({ kind: 'grouping', start: m.start, end: m.start, measure: m.index, evidence: `${m.time!.text} in groups ${text}` });
    before = text;
  }
  return result;
}

/** A theme that returns on another place of the bar. */
function displaced(score: Score, parallels: readonly ParallelFact[]): RhythmFact[] {
  return parallels
    .filter((p) => p.shift.n !== 0 && !p.lines)
    .map((p) => ({
      kind: 'displaced theme' as const,
      start: p.b.start,
      end: p.b.end,
      measure: score.measures.findLastIndex((m) => cmp(m.start, p.b.start) <= 0),
      evidence: `the same music as in ${barLabel(score.measures, measureAt(score, p.a.start))}, ${shiftWords(p.shift)}: its accents have moved`,
      beside: p.a.start
    }));
}

/** Groups of equal entries, each longer (slowing) or shorter (quickening) than the last. */
function gradual(sounding: SoundingScore): RhythmFact[] {
  const { melody } = sounding;
  const groups: { from: number; to: number; gap: number }[] = [];
  for (let k = 0; k + 1 < melody.length; k++) {
    const gap = melody[k + 1].start - melody[k].start;
    const last = groups.at(-1);
    if (last && last.gap === gap) last.to = k + 1;
    else groups.push({ from: k, to: k + 1, gap });
  }
  const result: RhythmFact[] = [];
  let from = 0;
  for (let k = 1; k <= groups.length; k++) {
    const way = k < groups.length ? Math.sign(groups[k].gap - groups[k - 1].gap) : 0;
    const before = k - 1 > from ? Math.sign(groups[k - 1].gap - groups[k - 2].gap) : way;
    // Two notes of each value at least, but for the last, which may be a single long note.
    const full = k < groups.length && groups[k - 1].to - groups[k - 1].from >= 2;
    if (k < groups.length && way === before && full) continue;
    if (k - from >= GRADES) {
      const slow = groups[k - 1].gap > groups[from].gap;
      const [a, b] = [melody[groups[from].from], melody[groups[k - 1].to]];
      result.push({
        kind: slow ? 'written-out slowing' : 'written-out quickening',
        start: a.note.start,
        end: fromTicks(sounding, b.end),
        measure: a.note.measure,
        evidence: `the notes themselves ${slow ? 'slow' : 'quicken'}: ${groups
          .slice(from, k)
          .map((g) => valueName(g.gap, sounding.ticksPerQuarter))
          .join(', ')}`
      });
    }
    from = full ? k - 1 : k;
  }
  return result;
}

const VALUES: [number, string][] = [
  [4, 'whole notes'],
  [3, 'dotted halves'],
  [2, 'halves'],
  [1.5, 'dotted quarters'],
  [1, 'quarters'],
  [2 / 3, 'quarter triplets'],
  [0.5, 'eighths'],
  [1 / 3, 'triplets'],
  [0.25, 'sixteenths'],
  [1 / 6, 'sextuplets'],
  [0.125, '32nds']
];
const valueName = (ticks: number, perQuarter: number): string =>
  VALUES.find(([q]) => Math.abs(q - ticks / perQuarter) < 0.01)?.[1] ?? `${Number((ticks / perQuarter).toFixed(2))} quarters`;

/** All places where meter and rhythm disagree or the notes slow or quicken by themselves, in order of time. */
export function rhythmFacts(score: Score, sounding: SoundingScore, parallels: readonly ParallelFact[]): RhythmFact[] {
  return [
    ...syncopations(score, sounding),
    ...hemiolas(score, sounding),
    ...groupings(score),
    ...displaced(score, parallels),
    ...gradual(sounding)
  ].sort((a, b) => cmp(a.start, b.start));
}
