import { studyOf } from '../../../src/core/analysis/study.ts';
import type { Period } from '../../../src/core/style/profiles.ts';
import type { SchoolAnswers } from '../../../src/core/style/schools.ts';
import { findingsOf } from '../../../src/core/technique/findings.ts';
import { techniqueOf, type Technique, type TechniqueOptions } from '../../../src/core/technique/technique.ts';
import { linesOf } from '../../../src/core/technique/told/bars.ts';
import { abc } from '../helpers.ts';

/** How a tune lies, at a tempo in quarters a minute. */
export function lies(
  text: string,
  { tempo = 90, period = 'classical', schools = {}, ...rest }: Partial<TechniqueOptions> & { period?: Period; schools?: SchoolAnswers } = {}
): Technique {
  return techniqueOf(studyOf(abc(text)), { part: 0, instrument: null, period, schools, tempo, pins: new Map(), ...rest });
}

/** What is told of a bar under a head. */
export const told = (t: Technique, measure: number, of: string): string | undefined =>
  linesOf(t).find((l) => l.measure === measure && l.of === of)?.text;

/** Findings as sentences. */
export const found = (t: Technique): string[] => findingsOf(t).map((f) => f.what);
