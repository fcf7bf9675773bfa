import { lazily } from '../once.ts';
import type { Score } from '../score/model.ts';
import { factsOf, openAnalysis, type Analysis } from './analyse.ts';
import { details, type Details } from './details.ts';
import type { Facts } from './facts.ts';
import type { Pin } from './pins.ts';
import { soundingScore, type SoundingScore } from './sounding-score.ts';

/**
 * A score with all that is known about it under the instructor's corrections. Built once, and passed on to proposals,
 * questions, performance and proof; nothing in it is worked out before it is asked for.
 */
export interface Study {
  score: Score;
  /** All parts as they sound. */
  sounding: SoundingScore;
  /** One part as it sounds. */
  soundingPart(part: number): SoundingScore;
  facts: Facts;
  details: Details;
}

/**
 * The study of a score.
 * @param known the facts under these corrections, where they have been worked out before
 * @param analysis of the same score, where it is open already
 */
export function studyOf(
  score: Score,
  pins: readonly Pin[] = [],
  known: Facts | null = null,
  analysis: Analysis = openAnalysis(score)
): Study {
  const parts = new Map<number, SoundingScore>();
  const soundingPart = (part: number): SoundingScore => {
    if (score.parts.length === 1) return study.sounding;
    const found = parts.get(part) ?? soundingScore(score, [part]);
    parts.set(part, found);
    return found;
  };
  const study: Study = lazily<Study>({
    score: () => score,
    sounding: () => analysis.sounding,
    soundingPart: () => soundingPart,
    facts: () => known ?? factsOf(analysis, pins),
    details: () => details(analysis, study.facts, pins)
  });
  return study;
}
