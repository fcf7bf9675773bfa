import { studyOf } from '$core/analysis/study';
import { perform, type Performance } from '$core/performance/perform';
import { playableScore } from '$core/performance/playable-score';
import { EMPTY_READING } from '$core/reading/reading';
import type { Score } from '$core/score/model';
import { instrumentOf } from '$core/style/instruments/instrument-of';
import { Player } from '../hearing/player.svelte';
import type { Writing } from './writing.svelte';

/** Plays what is written, to the letter. */
export function writingPlayer(writing: Writing): Player {
  let played: { score: Score; performance: Performance } | null = null;
  return new Player({
    score: () => writing.score,
    performance: () => {
      if (played?.score !== writing.score)
        played = { score: writing.score, performance: perform(playableScore(studyOf(writing.score), 0), EMPTY_READING, true) };
      return played.performance;
    },
    instruments: () => writing.score.parts.map((part) => instrumentOf(writing.score, part).key),
    skeleton: () => new Set(),
    anchors: () => new Set(),
    part: () => 0,
    swing: () => undefined,
    selection: () => ({ from: writing.place.bar, to: writing.place.bar })
  });
}
