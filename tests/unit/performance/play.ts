import { studyOf } from '../../../src/core/analysis/study.ts';
import { playableScore, type PlayableScore } from '../../../src/core/performance/playable-score.ts';
import { perform, type Performance } from '../../../src/core/performance/perform.ts';
import type { Realisation } from '../../../src/core/performance/ornaments.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { draft, wholeScore } from '../../../src/core/reading/draft/draft.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { PERIODS, type Period } from '../../../src/core/style/profiles.ts';

export { PERIODS };

export const playableOf = (score: Score): PlayableScore => playableScore(studyOf(score), EMPTY_READING.part);

/** A reading of a period with some answers and markings. */
export const readingOf = (period: Period, answers: Record<string, string> = {}, rest: Partial<Reading> = {}): Reading => ({
  ...EMPTY_READING,
  period,
  schools: Object.fromEntries(Object.entries(answers).map(([k, option]) => [k, { option, on: '2026-11-25' }])),
  ...rest
});

/** The reading of a period with its draft. */
export function drafted(playable: PlayableScore, period: Period, answers: Record<string, string> = {}): Reading {
  const style = { period, schools: answers, ruleFactors: {} };
  const markings = draft(playable.study, style, wholeScore(playable.study)).map((k) => k.marking);
  return readingOf(period, answers, { markings });
}

export const literal = (playable: PlayableScore): Performance => perform(playable, EMPTY_READING, true);

/** First onset of a note by id and pass. */
export const onsets = (p: Performance): Map<string, number> => {
  const found = new Map<string, number>();
  for (const n of p.notes)
    if (!n.ornament && !found.has(`${n.note}|${p.bars[n.bar].pass}`)) found.set(`${n.note}|${p.bars[n.bar].pass}`, n.onset);
  return found;
};

/** An ornament by name and value: "A5 1/8, G5 1/8 …". */
export const spelledOut = (r: Realisation): string => r.notes.map((n) => `${pitchName(n.pitch)} ${n.length.n}/${n.length.d}`).join(', ');
