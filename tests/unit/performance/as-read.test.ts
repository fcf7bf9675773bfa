import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { perform, type PlayedNote } from '../../../src/core/performance/perform.ts';
import { playableScore } from '../../../src/core/performance/playable-score.ts';
import { ornamentsIn } from '../../../src/core/performance/realised.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { abc, markingAt } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nQ:1/4=60\nK:C\n';
const score = abc(`${HEAD}C D E F|Tc2 G2|C4|`);
const playable = playableScore(studyOf(score), 0, []);
const ids = score.notes.map((n) => n.id);
const played = (markings: Marking[], literal = false): PlayedNote[] => perform(playable, { ...EMPTY_READING, markings }, literal).notes;
const pitches = (notes: PlayedNote[], id: string): (number | null)[] => notes.filter((n) => n.note === id).map((n) => n.midi);

test('an emended note sounds as it is meant; the page to the letter as it is printed', () => {
  const emended = [markingAt('emendation', 'D#4', 1, { note: ids[1] })];
  assert.deepEqual(pitches(played(emended), ids[1]), [63]);
  assert.deepEqual(pitches(played(emended, true), ids[1]), [62]);
  assert.deepEqual(pitches(played(emended), ids[2]), [64]);
});

test('under an octave sign all sounds an octave away, its ornaments too, and nothing outside of it', () => {
  const up = played([markingAt('octave', '8va', 2, { end: frac(6) })]);
  assert.deepEqual(
    [1, 2, 3, 5].flatMap((k) => pitches(up, ids[k])),
    [62, 76, 77, 67]
  );
  const trill = pitches(up, ids[4]);
  assert.ok(trill.length > 4 && trill.every((p) => p === 84 || p === 86), trill.join(' '));
});

test('an ornament is added, changed and left out', () => {
  const one = (value: string, note: number): number =>
    pitches(played([markingAt('ornament', value, note, { note: ids[note] })]), ids[note]).length;
  assert.equal(pitches(played([]), ids[1]).length, 1);
  assert.deepEqual(pitches(played([markingAt('ornament', 'mordent', 1, { note: ids[1] })]), ids[1]), [62, 60, 62]);
  assert.deepEqual(pitches(played([markingAt('ornament', 'turn', 4, { note: ids[4] })]), ids[4]), [74, 72, 71, 72]);
  assert.equal(one('none', 4), 1);
  const written = (value: string): string[] =>
    ornamentsIn(score, playable.facts, { ...EMPTY_READING, markings: [markingAt('ornament', value, 4, { note: ids[4] })] }, 1, 1).map(
      (o) => o.realisation.says
    );
  assert.deepEqual([written('turn'), written('none')], [['turn'], []]);
});

test('under the pedal notes sound on to its end', () => {
  const length = (notes: PlayedNote[], id: string): number => notes.find((n) => n.note === id)!.end;
  const held = played([markingAt('pedal', 'pedal', 0, { end: frac(4) })]);
  const plain = played([]);
  for (const id of ids.slice(0, 3)) assert.ok(Math.abs(length(held, id) - 4) < 0.2, `${length(held, id)}`);
  assert.ok(length(plain, ids[0]) <= 1.1);
  assert.equal(length(held, ids[4]), length(plain, ids[4]));
});
