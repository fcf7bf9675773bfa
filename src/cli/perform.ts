import { writeFileSync } from 'node:fs';
import { midiFile } from '../core/performance/midi.ts';
import { openPerformance } from '../core/performance/open.ts';
import { perform } from '../core/performance/perform.ts';
import { EMPTY_READING, type Reading } from '../core/reading/reading.ts';
import { draftOf } from '../core/reading/draft.ts';
import { propose } from '../core/reading/propose.ts';
import { clock } from '../core/score/tempo.ts';
import type { Score } from '../core/score/model.ts';
import type { Period } from '../core/style/profiles.ts';

/** Writes a performance as MIDI: of the drafted reading of a period, or of the page to the letter. */
export function writePerformance(score: Score, period: Period, literal: boolean, out: string): void {
  const ground = openPerformance(score, EMPTY_READING);
  const style = { period, schools: {}, ruleFactors: {}, details: ground.details };
  const markings = literal ? [] : score.parts.flatMap((p) => draftOf(propose(score, ground.facts, style, p.index)).map((k) => k.marking));
  const reading: Reading = { ...EMPTY_READING, period, markings };
  const performance = perform(ground, reading, literal);
  writeFileSync(out, midiFile(score, performance));
  process.stderr.write(`${performance.notes.length} notes, ${clock(performance.length)}, written to ${out}\n`);
}
