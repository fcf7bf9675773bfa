import { writeFileSync } from 'node:fs';
import { studyOf } from '../core/analysis/study.ts';
import { playableScore } from '../core/performance/playable-score.ts';
import { midiFile } from '../core/performance/midi.ts';
import { perform } from '../core/performance/perform.ts';
import { draft, wholeScore } from '../core/reading/draft/draft.ts';
import { EMPTY_READING, type Reading } from '../core/reading/reading.ts';
import { clock } from '../core/score/tempo.ts';
import type { Score } from '../core/score/model.ts';
import type { Period } from '../core/style/profiles.ts';
import type { SchoolAnswers, SchoolKey } from '../core/style/schools.ts';

/** Writes a performance as MIDI: of the drafted reading of a period, or of the page to the letter. */
export function writePerformance(score: Score, period: Period, schools: SchoolAnswers, literal: boolean, out: string): void {
  const study = studyOf(score);
  const style = { period, schools, ruleFactors: {} };
  const markings = literal ? [] : draft(study, style, wholeScore(study)).map((k) => k.marking);
  // Answers that come with the call have no day.
  const answers = Object.fromEntries((Object.keys(schools) as SchoolKey[]).map((key) => [key, { option: schools[key]!, on: '' }]));
  const reading: Reading = { ...EMPTY_READING, period, markings, schools: answers };
  const performance = perform(playableScore(study, reading.part), reading, literal);
  writeFileSync(out, midiFile(score, performance));
  process.stderr.write(`${performance.notes.length} notes, ${clock(performance.length)}, written to ${out}\n`);
}
