import type { Study } from '../analysis/study.ts';
import type { Reading } from '../reading/reading.ts';
import { SCHOOLS, TECHNIQUE_SCHOOLS, type School, type SchoolKey } from '../style/schools.ts';
import { howItLies, type Around } from './how-it-lies.ts';

/** What an answer to a question of school would change in how a part lies. */
export interface LyingEffect {
  option: string;
  /** Measures that would lie otherwise. */
  bars: number[];
  /** The first of them, as it would be told. */
  example: string | null;
  /** Findings more (or, negative, fewer) than now. */
  findings: number;
}

/** What each answer would change, against how it lies now; null where the question does not bear on technique. */
export function lyingEffects(study: Study, reading: Reading, key: SchoolKey, around: Around = {}): LyingEffect[] | null {
  if (!TECHNIQUE_SCHOOLS.includes(key)) return null;
  const now = howItLies(study, reading, around);
  const before = new Map(now.lines.map((l) => [`${l.measure} ${l.of}`, l.text]));
  return (SCHOOLS as readonly School[])
    .find((s) => s.key === key)!
    .options.map(({ value }): LyingEffect => {
      const then = howItLies(study, { ...reading, schools: { ...reading.schools, [key]: { option: value, on: '' } } }, around);
      const changed = then.lines.filter((l) => before.get(`${l.measure} ${l.of}`) !== l.text);
      const [first] = changed;
      const bar = first && study.score.measures[first.measure].number;
      return {
        option: value,
        bars: [...new Set(changed.map((l) => l.measure))].sort((a, b) => a - b),
        example: first ? `bar ${bar}, ${first.of.toLowerCase()}: ${first.text}` : null,
        findings: then.findings.length - now.findings.length
      };
    });
}
