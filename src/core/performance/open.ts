import { factsOf, openAnalysis } from '../analysis/analyse.ts';
import { details } from '../analysis/details.ts';
import type { Reading } from '../reading/reading.ts';
import type { Score } from '../score/model.ts';
import { performanceGround, type PerformanceGround } from './ground.ts';

/** A score made ready to be played under a reading's corrections and for its part; the way in for whoever has only a score. */
export function openPerformance(score: Score, reading: Pick<Reading, 'pins' | 'part'>): PerformanceGround {
  const analysis = openAnalysis(score);
  const facts = factsOf(analysis, reading.pins);
  const more = details(analysis, facts, reading.pins);
  return performanceGround(score, facts, more, analysis.texture, reading.part);
}
