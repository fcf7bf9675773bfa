import { cmp, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, metricLevel } from '../score/meter.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import type { Facts } from './facts.ts';
import { inSigns } from './words.ts';

/** Chord changes of one bar. */
export interface HarmonicRhythmBar {
  measure: number;
  changes: number;
  /** Onsets of the changes in the bar, in quarters. */
  onsets: Fraction[];
}

export interface HarmonicRhythmFact {
  kind: 'against the meter' | 'quickens' | 'slows';
  measure: number;
  start: Fraction;
  evidence: string;
}

/** How often the harmony changes, bar by bar (handbook 2.5). */
export function harmonicRhythm(score: Score, facts: Facts): HarmonicRhythmBar[] {
  const bars: HarmonicRhythmBar[] = score.measures.map((m) => ({ measure: m.index, changes: 0, onsets: [] }));
  for (const c of facts.chords) {
    const m = measureAt(score, c.start);
    bars[m.index].changes++;
    bars[m.index].onsets.push(sub(c.start, m.start));
  }
  return bars;
}

/**
 * Where the harmony goes against the meter: it changes on a weak beat and stays over the next stronger one; and
 * where it moves at twice or half the pace of the bars before.
 */
export function harmonicRhythmFacts(score: Score, facts: Facts): HarmonicRhythmFact[] {
  const result: HarmonicRhythmFact[] = [];
  facts.chords.forEach((c, k) => {
    const m = measureAt(score, c.start);
    const level = metricLevel(m, sub(c.start, m.start));
    const next = facts.chords[k + 1];
    // After a rest the chord is only heard late.
    const heard = score.notes.some((n) => !n.rest && n.measure === m.index && cmp(n.start, c.start) < 0);
    if (k === 0 || level >= 2 || !next || !heard) return;
    const bar = score.measures[m.index + 1];
    if (bar && toNumber(next.start) > toNumber(bar.start) && toNumber(bar.start) > toNumber(c.start) && level >= 0)
      result.push({
        kind: 'against the meter',
        measure: m.index,
        start: c.start,
        evidence: `${inSigns(c.roman)} comes on a weak beat and stays over the bar line`
      });
  });
  const bars = harmonicRhythm(score, facts);
  for (let k = 2; k < bars.length; k++) {
    const before = (bars[k - 1].changes + bars[k - 2].changes) / 2;
    const now = bars[k].changes;
    if (before >= 0.5 && now >= 2 * before && now >= 2)
      result.push({ kind: 'quickens', measure: k, start: score.measures[k].start, evidence: `${now} chords after ${before} a bar` });
    else if (now > 0 && before >= 2 && now <= before / 2)
      result.push({ kind: 'slows', measure: k, start: score.measures[k].start, evidence: `${now} chord after ${before} a bar` });
  }
  return result.sort((a, b) => toNumber(a.start) - toNumber(b.start));
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];

/** Where the harmony goes against the meter, bars that do so alike in one line: "bars 1–3: the chord changes on the third beat". */
export function againstMeter(score: Score, facts: readonly HarmonicRhythmFact[], from: number, to: number): string[] {
  const places = facts
    .filter((f) => f.kind === 'against the meter' && f.measure >= from && f.measure <= to)
    .map((f) => {
      const m = score.measures[f.measure];
      const beat = toNumber(beatOfMeter(m).beat);
      const at = toNumber(sub(f.start, m.start)) / beat;
      const name = ORDINALS[Math.floor(at)] ?? `${Math.floor(at) + 1}th`;
      return { measure: f.measure, words: Number.isInteger(at) ? `on the ${name} beat` : `after the ${name} beat` };
    });
  const lines: string[] = [];
  for (let k = 0; k < places.length;) {
    let end = k;
    while (end + 1 < places.length && places[end + 1].words === places[k].words && places[end + 1].measure - places[end].measure <= 1)
      end++;
    const [a, b] = [score.measures[places[k].measure], score.measures[places[end].measure]];
    const bars = a === b ? `bar ${a.number}` : `bars ${a.number}–${b.number}`;
    lines.push(`${bars}: the chord changes ${places[k].words} and stays over the bar line`);
    k = end + 1;
  }
  return lines;
}
