import { toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { Facts } from './facts.ts';
import { harmonicRhythm } from './harmonic-rhythm.ts';

/** One bar as a row of a table, for looking rather than reading. */
export interface BarRow {
  measure: number;
  number: string;
  key: string;
  chords: string[];
  /** Chord changes in the bar, and notes that begin in it per quarter. */
  changes: number;
  density: number;
  section: string;
}

/** Keys, chords, harmonic rhythm and note density by bar. */
export function barTable(score: Score, facts: Facts): BarRow[] {
  const changes = harmonicRhythm(score, facts);
  const notes = new Array<number>(score.measures.length).fill(0);
  for (const n of score.notes) if (!n.rest && !n.cue && !n.tie?.stop) notes[n.measure]++;
  return score.measures.map((m, k) => {
    const start = toNumber(m.start);
    const end = start + toNumber(m.length);
    const holds = (f: { start: { n: number; d: number }; end: { n: number; d: number } }) =>
      toNumber(f.start) <= start + 1e-9 && toNumber(f.end) > start;
    return {
      measure: k,
      number: m.number,
      key: facts.keys.find(holds)?.name ?? facts.keys[0]?.name ?? '',
      chords: facts.chords.filter((c) => toNumber(c.start) >= start - 1e-9 && toNumber(c.start) < end).map((c) => c.roman),
      changes: changes[k].changes,
      density: Math.round((100 * notes[k]) / Math.max(0.25, toNumber(m.length))) / 100,
      section: facts.sections.find(holds)?.label ?? facts.sections[0]?.label ?? ''
    };
  });
}
