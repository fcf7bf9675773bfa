import { writeFileSync } from 'node:fs';
import { studyOf } from '../core/analysis/study.ts';
import { editionMusicXml } from '../core/edition/musicxml.ts';
import { provedDraft } from '../core/proof/proved-draft.ts';
import { wholeScore } from '../core/reading/draft/draft.ts';
import { EMPTY_READING } from '../core/reading/reading.ts';
import type { OpenedScore } from '../core/score/read-file.ts';
import { isPeriod, PERIODS, type Period } from '../core/style/profiles.ts';
import { isAnswer, SCHOOLS, schoolByKey, type SchoolAnswers, type SchoolKey } from '../core/style/schools.ts';
import { CallError } from './call-error.ts';

/** The period of a call. @throws CallError naming the periods that there are */
export function periodOf(name: string | undefined): Period {
  if (name === undefined) throw new CallError('--period is needed');
  if (!isPeriod(name)) throw new CallError(`there is no period ${name}; the periods are ${PERIODS.join(', ')}`);
  return name;
}

/** Answers of school from KEY=VALUE words. @throws CallError naming what there is */
export function schoolsOf(words: readonly string[]): SchoolAnswers {
  const answers: Record<string, string> = {};
  for (const word of words) {
    const at = word.indexOf('=');
    const [given, value] = at < 0 ? [word, ''] : [word.slice(0, at), word.slice(at + 1)];
    // The pipers' question has two halves, of which the second is kept under a name of its own.
    const key = given === 'pipe-movements' && isAnswer('pipe-placing', value) ? 'pipe-placing' : given;
    const school = schoolByKey(key);
    if (!school) throw new CallError(`there is no school ${given}; the schools are ${SCHOOLS.map((s) => s.key).join(', ')}`);
    if (!isAnswer(key, value))
      throw new CallError(`${given} has no answer “${value}”; the answers are ${school.options.map((o) => o.value).join(', ')}`);
    answers[key as SchoolKey] = value;
  }
  return answers;
}

/** Writes a drafted edition: the source's own document with every proposal that is strong enough. */
export function writeEdition({ text, score }: OpenedScore, period: Period, schools: SchoolAnswers, out: string): void {
  const study = studyOf(score);
  const answered = Object.fromEntries(Object.entries(schools).map(([key, option]) => [key, { option, on: '' }]));
  const markings = provedDraft(study, { ...EMPTY_READING, period, schools: answered }, wholeScore(study)).map((k) => k.marking);
  writeFileSync(out, editionMusicXml(text, score, markings));
  process.stderr.write(`${markings.length} markings written to ${out}\n`);
}
