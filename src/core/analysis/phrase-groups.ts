import { sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { CadenceFact, Facts, PhraseFact } from './facts.ts';
import { beatIndexAt } from './grid.ts';
import { beatLikeness } from './parallels.ts';
import type { Comparison } from './structure.ts';
import { toTicks, type SoundingScore } from './sounding-score.ts';

/** Phrases in larger and smaller units (handbook 3.1; period and sentence after Caplin 1998). */
export interface PhraseGroupFact {
  kind: 'period' | 'sentence' | 'phrase pair' | 'half phrase';
  start: Fraction;
  end: Fraction;
  phrases: string[];
  evidence: string;
}

export interface PhraseLength {
  phrase: string;
  bars: number;
  /** Neither two, four nor eight bars, nor the length that the piece's phrases usually have. */
  irregular: boolean;
}

/** Length of the usual bar in quarters. */
function usualBar(score: Score): number {
  const counts = new Map<number, number>();
  for (const m of score.measures) counts.set(toNumber(m.length), (counts.get(toNumber(m.length)) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] || 4;
}

/** Lengths of the phrases in bars, to the quarter bar, irregular ones pointed out. */
export function phraseLengths(score: Score, facts: Facts): PhraseLength[] {
  const bar = usualBar(score);
  const lengths = facts.phrases.map((p) => Math.round((4 * toNumber(sub(p.end, p.start))) / bar) / 4);
  const counts = new Map<number, number>();
  for (const l of lengths) counts.set(Math.round(l), (counts.get(Math.round(l)) ?? 0) + 1);
  const usual = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 4;
  return facts.phrases.map((p, k) => {
    // An upbeat before the next phrase takes up to a third of a bar from this one, or gives it.
    const whole = Math.round(lengths[k]);
    const regular = [2, 4, 8].includes(whole) || whole === usual;
    return { phrase: p.id, bars: lengths[k], irregular: !regular || Math.abs(lengths[k] - whole) > 0.34 };
  });
}

const WEIGHT: Record<CadenceFact['type'], number> = { PAC: 4, IAC: 3, PC: 2.5, DC: 1.5, HC: 1, EC: 0.5 };

/** True when two moments begin alike for a bar and a half. */
function beginsAlike(sounding: SoundingScore, { beats, bar }: Comparison, a: Fraction, b: Fraction): boolean {
  const i = beatIndexAt(beats, toTicks(sounding, a));
  const j = beatIndexAt(beats, toTicks(sounding, b));
  let sum = 0;
  let count = 0;
  for (let k = 0; k < Math.max(3, Math.ceil(1.5 * bar)) && j + k < beats.length; k++) {
    const value = beatLikeness(beats[i + k], beats[j + k], 0);
    if (value === null) continue;
    sum += value;
    count++;
  }
  return count > 0 && sum / count >= 0.7;
}

/** Periods (a weaker close answered by a stronger one after the same beginning), sentences, and halves of phrases. */
export function phraseGroups(score: Score, sounding: SoundingScore, facts: Facts, comparison: Comparison): PhraseGroupFact[] {
  const cadence = (p: PhraseFact): CadenceFact | null => facts.cadences.find((c) => c.id === p.cadence) ?? null;
  const bar = usualBar(score);
  const result: PhraseGroupFact[] = [];
  for (let k = 0; k + 1 < facts.phrases.length; k++) {
    const [a, b] = [facts.phrases[k], facts.phrases[k + 1]];
    const [x, y] = [cadence(a), cadence(b)];
    if (!x || !y || WEIGHT[y.type] <= WEIGHT[x.type]) continue;
    const alike = beginsAlike(sounding, comparison, a.start, b.start);
    const even = Math.abs(toNumber(sub(a.end, a.start)) - toNumber(sub(b.end, b.start))) < bar;
    if (!even) continue;
    result.push({
      kind: alike ? 'period' : 'phrase pair',
      start: a.start,
      end: b.end,
      phrases: [a.id, b.id],
      evidence: `${x.type} answered by ${y.type}${alike ? ' after the same beginning' : ''}`
    });
    k++;
  }
  for (const p of facts.phrases) {
    const bars = toNumber(sub(p.end, p.start)) / bar;
    // Basic idea, its repetition at any pitch, and a continuation as long as both: 1 + 1 + 2 or 2 + 2 + 4.
    for (const idea of [1, 2]) {
      if (bars < 4 * idea - 0.5 || bars > 4 * idea + 1) continue;
      const pair = comparisonPair(sounding, comparison, p, idea);
      if (pair) {
        result.push({
          kind: 'sentence',
          start: p.start,
          end: p.end,
          phrases: [p.id],
          evidence: `an idea of ${idea === 1 ? 'one bar' : 'two bars'}, its repetition${pair.steps ? ' at another pitch' : ''}, and a continuation`
        });
        break;
      }
    }
  }
  return result.sort((a, b) => toNumber(a.start) - toNumber(b.start));
}

/** The repetition of a phrase's first idea, at any pitch; null where it goes on otherwise. */
function comparisonPair(sounding: SoundingScore, { beats, bar }: Comparison, p: PhraseFact, idea: number): { steps: number } | null {
  const from = beatIndexAt(beats, toTicks(sounding, p.start));
  const length = idea * bar;
  // An idea needs some notes to be one.
  if (beats.slice(from, from + length).reduce((sum, b) => sum + b.entries.length, 0) < 3) return null;
  const mean = (offset: number, steps: number): number => {
    let sum = 0;
    let count = 0;
    for (let k = 0; k < length && from + offset + k < beats.length; k++) {
      const value = beatLikeness(beats[from + k], beats[from + offset + k], steps);
      if (value === null) continue;
      sum += value;
      count++;
    }
    return count ? sum / count : 0;
  };
  for (let steps = -4; steps <= 4; steps++) {
    if (mean(length, steps) < 0.75) continue;
    // A third copy would be a sequence, and the same again no sentence.
    const goesOn = [-4, -3, -2, -1, 0, 1, 2, 3, 4].every((s) => mean(2 * length, s) < 0.7);
    if (goesOn) return { steps };
  }
  return null;
}

/**
 * Whether two bars make one large bar: chords or repetitions move every second bar. Null where the page gives no sign.
 * @returns 0 when odd bars are the strong ones, 1 when even ones are
 */
export function hypermeter(score: Score, facts: Facts): { strong: 0 | 1; evidence: string } | null {
  const votes = [0, 0];
  for (const c of facts.chords) {
    const index = score.measures.findIndex((m) => m.start.n === c.start.n && m.start.d === c.start.d);
    if (index >= 0 && toNumber(sub(c.end, c.start)) >= 2 * toNumber(score.measures[index].length) - 0.01) votes[index % 2] += 1;
  }
  for (const p of facts.phrases) {
    const index = score.measures.findIndex((m) => toNumber(m.start) >= toNumber(p.start));
    if (index >= 0) votes[index % 2] += 0.5;
  }
  const total = votes[0] + votes[1];
  if (total < 3 || Math.max(...votes) < 0.75 * total) return null;
  const strong = votes[0] >= votes[1] ? 0 : 1;
  return { strong, evidence: `chords of two bars and phrases begin on ${strong === 0 ? 'the first' : 'the second'} bar of each pair` };
}
