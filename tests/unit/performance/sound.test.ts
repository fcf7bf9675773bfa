import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { velocityOf, withinRange } from '../../../src/core/performance/loudness.ts';
import { midiFile } from '../../../src/core/performance/midi.ts';
import { perform, type PlayedNote } from '../../../src/core/performance/perform.ts';
import { playableScore } from '../../../src/core/performance/playable-score.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { parseMidi } from 'midi-file';
import { abc, markingAt } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nQ:1/4=60\nK:C\n';
const played = (score: Score, reading: Partial<Reading> = {}) => {
  const whole = { ...EMPTY_READING, ...reading };
  return perform(playableScore(studyOf(score), whole.part, whole.instruments), whole);
};
const notesOf = (text: string, reading: Partial<Reading> = {}): PlayedNote[] => played(abc(text), reading).notes;
const length = (n: PlayedNote): number => n.end - n.onset;

test('a slur of the editor takes nothing from the silence of a printed dot', () => {
  const text = `${HEAD}.C .D .E .F|G4|`;
  const bare = notesOf(text);
  const slurred = notesOf(text, { markings: [markingAt('slur', 'slur', 0, { note: bare[0].note, endNote: bare[3].note, end: frac(3) })] });
  assert.deepEqual(slurred.slice(0, 4).map(length), bare.slice(0, 4).map(length));
  const printed = notesOf(`${HEAD}(.C .D .E .F)|G4|`);
  assert.ok(length(printed[0]) > length(bare[0]), 'a printed slur over dots is portato');
});

test('there is air before a staccato, before short notes too', () => {
  const [plain] = notesOf(`${HEAD}C/ D/ E F G|`, { period: 'romantic' });
  const [before] = notesOf(`${HEAD}C/ .D/ E F G|`, { period: 'romantic' });
  assert.ok(length(before) < length(plain) * 0.95);
});

test('a turn on a short note fills it evenly', () => {
  const quick = notesOf(`M:4/4\nL:1/4\nQ:1/4=120\nK:C\n!turn!C D E F|`).slice(0, 4);
  const first = length(quick[0]);
  for (const n of quick.slice(0, 3)) assert.ok(Math.abs(length(n) - first) < 0.02, quick.map(length).join(' '));
});

test('the loudest of a piece has room: a sforzando in fortissimo is louder than what is around it, in the file too', () => {
  const score = abc(`${HEAD}!ff!C D !sfz!E F|G A B c|`);
  const velocities = parseMidi(midiFile(score, played(score)))
    .tracks.at(-1)!
    .flatMap((e) => (e.type === 'noteOn' ? [e.velocity] : []));
  assert.ok(velocities[2] > velocities[1] + 5, velocities.join(' '));
  assert.ok(Math.max(...velocities) <= 127);
  // What needs no room is left as it is: MusicXML's f is 90.
  assert.equal(velocityOf(withinRange([-10, 5])(5)), 90);
  const fitted = withinRange([0, 12, 18]);
  assert.ok(fitted(12) < fitted(18) && velocityOf(fitted(18)) === 127 && fitted(-7) === -7);
});

test('an ad libitum whose values grow slows from first to last', () => {
  const score = abc(`${HEAD}c4|[M:none]c/4d/4e/4f/4 g/4a/4b/4c'/4 d'/2e'/2 f' g'2|[M:4/4]c4|`);
  const { notes, literalLength, length: whole } = played(score, { period: 'romantic' });
  const literal = played(score, { period: 'romantic', amounts: { cadenza: 0 } }).notes;
  const free = score.notes.filter((n) => n.measure === 1 && !n.rest).map((n) => n.id);
  const stretch = free.map((id) => {
    const own = (list: PlayedNote[]) => length(list.find((n) => n.note === id)!);
    return own(notes) / own(literal);
  });
  for (let k = 1; k < stretch.length; k++) assert.ok(stretch[k] >= stretch[k - 1] - 0.005, stretch.map((x) => x.toFixed(3)).join(' '));
  assert.ok(stretch.at(-1)! > stretch[0] + 0.1);
  assert.ok(whole > 0 && literalLength > 0);
});

test('calando in the older styles is softer only', () => {
  const text = `${HEAD}C D E F|"^calando"G A B c|d4|`;
  const span = (period: Reading['period']) => {
    const notes = notesOf(text, { period, amounts: { arch: 0, 'phrase-end': 0, cadence: 0 } });
    return notes[7].end - notes[4].onset;
  };
  assert.ok(span('romantic') > span('baroque') + 0.3);
  assert.ok(Math.abs(span('baroque') - span('classical')) < 0.1);
});

test('a part that is marked espressivo stands over one at the same level', () => {
  const two = (words: string) =>
    `M:4/4\nL:1/4\nQ:1/4=60\n%%score 1 2\nV:1 name="Flute"\nV:2 name="Viola"\nK:C\nV:1\n!p!c' b a b|c' b a b|\nV:2\n!p!${words}C E G E|C E G E|`;
  const level = (words: string) => {
    const own = notesOf(two(words)).filter((n) => n.part === 1);
    return own.reduce((sum, n) => sum + n.db, 0) / own.length;
  };
  assert.ok(level('"^espressivo"') > level('') + 2);
});

test('whoever has the tune stands out, whatever part the reading is for', () => {
  const text = `M:4/4\nL:1/4\nQ:1/4=60\n%%score 1 2\nV:1 name="Flute"\nV:2 name="Cello" clef=bass\nK:C\nV:1\nc' d' e' g'|f' e' d' c'|\nV:2\nC,4|G,,4|`;
  const mean = (part: number, of: number): number => {
    const own = notesOf(text, { part }).filter((n) => n.part === of);
    return own.reduce((sum, n) => sum + n.db, 0) / own.length;
  };
  for (const part of [0, 1]) assert.ok(mean(part, 0) > mean(part, 1) + 3, `the reading is for part ${part}`);
});

test('in swing the notes off the beat speak', () => {
  const line = `M:4/4\nL:1/8\nQ:1/4=132\nK:C\ncccc cccc|cccc cccc|`;
  const offBeat = (period: Reading['period']): number => {
    const notes = notesOf(line, { period, amounts: { plan: 0, line: 0, harmony: 0 } });
    return notes[3].db - notes[2].db;
  };
  assert.ok(offBeat('swing') > 0);
  assert.ok(offBeat('classical') < 0);
});
