import assert from 'node:assert/strict';
import { test } from 'node:test';
import { format } from '../../../src/core/score/fraction.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { abc, demo } from '../helpers.ts';

// Reference throughout: the ABC 2.1 standard, section numbers in the names.
const lengths = (text: string) => abc(`M:4/4\nL:1/8\nK:C\n${text}`).notes.map((n) => format(n.duration));
const names = (text: string, key = 'C') =>
  abc(`M:4/4\nL:1/8\nK:${key}\n${text}`)
    .notes.filter((n) => n.pitch)
    .map((n) => pitchName(n.pitch!));

test('4.1 and 4.2: pitches, octaves, accidentals', () => {
  assert.deepEqual(names("C, C c c' ^c _e =f ^^G __A|"), ['C3', 'C4', 'C5', 'C6', 'C#5', 'Eb5', 'F5', 'G##4', 'Abb4']);
  assert.deepEqual(names('F ^F F | F', 'G'), ['F#4', 'F#4', 'F#4', 'F#4']);
});

test('4.3: note lengths', () => assert.deepEqual(lengths('A2 A A/2 A/ A// A3/2 A3 |'), ['1', '1/2', '1/4', '1/4', '1/8', '3/4', '3/2']));

test('4.4: broken rhythm', () => assert.deepEqual(lengths('A>B c<d e>>f|'), ['3/4', '1/4', '1/4', '3/4', '7/8', '1/8']));

test('4.13: tuplets', () => {
  assert.deepEqual(lengths('(3ABc (3:2:2G4c2 |'), ['1/3', '1/3', '1/3', '4/3', '2/3']);
  assert.deepEqual(lengths('(5ABcde|').slice(0, 2), ['1/5', '1/5']);
});

test('4.5: rests, visible, invisible and of whole bars', () => {
  const score = abc('M:3/4\nL:1/8\nK:C\nz2 x2 A2 | Z2 | A6 |');
  assert.deepEqual(
    score.measures.map((m) => format(m.length)),
    ['3', '3', '3', '3']
  );
  assert.deepEqual(
    score.notes.map((n) => [Boolean(n.rest), Boolean(n.hidden)]),
    [
      [true, false],
      [true, true],
      [false, false],
      [true, false],
      [true, false],
      [false, false]
    ]
  );
});

test('3.1.14: keys and modes, and the pipers’ key', () => {
  const fifths = (key: string) => abc(`L:1/8\nK:${key}\nA8|`).measures[0].key.fifths;
  assert.deepEqual(
    ['C', 'Am', 'D Dor', 'Gmix', 'F#m', 'Bb', 'E phrygian', 'HP', 'Hp', 'none'].map(fifths),
    [0, 0, 0, 0, 3, -2, 0, 2, 2, 0]
  );
  assert.deepEqual(
    abc('L:1/8\nK:HP\n{gcd}c2 f2|').notes.map((n) => pitchName(n.pitch!)),
    ['G5', 'C#5', 'D5', 'C#5', 'F#5']
  );
});

test('4.8 to 4.10: bar lines, repeats, endings', () => {
  const score = abc('M:2/4\nL:1/4\nK:C\n|:A B|1 c d:|2 e f||g a|]');
  assert.deepEqual(
    score.measures.map((m) => [m.repeatStart ?? false, m.endingStart ?? null, m.repeatEnd ?? null]),
    [
      [true, null, null],
      [false, [1], 2],
      [false, [2], null],
      [false, null, null]
    ]
  );
});

test('4.11, 4.12, 4.17: ties, slurs, grace notes, chords', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n(A B) {/c}d-d | [CEG]4 |');
  assert.equal(score.slurs.length, 1);
  assert.deepEqual(
    score.notes.map((n) => Boolean(n.grace)),
    [false, false, true, false, false, false, false, false]
  );
  assert.deepEqual(score.notes[3].tie, { start: true, stop: false });
  assert.deepEqual(
    score.notes.slice(-3).map((n) => Boolean(n.chord)),
    [false, true, true]
  );
});

test('4.14: decorations become marks, dynamics and hairpins', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n!f!.A !<(!Tc !<)!uc !fermata!d | !mystery!A4 |');
  assert.deepEqual(
    score.notes.slice(0, 4).map((n) => n.marks?.map((m) => m.name)),
    [['staccato'], ['trill-mark'], ['up-bow'], ['fermata']]
  );
  assert.equal(score.hairpins.length, 1);
  assert.deepEqual(
    score.remarks.map((r) => r.text),
    ['<other-direction>']
  );
});

test('7: voices become parts, braces a part with two staves', () => {
  const text = 'M:4/4\nL:1/4\n%%score {R L}\nV:R name="Piano"\nV:L clef=bass\nK:C\nV:R\ncdef|\nV:L\nC,2G,2|\n';
  const score = abc(text);
  assert.deepEqual([score.parts.length, score.parts[0].staves, score.parts[0].name], [1, 2, 'Piano']);
  assert.equal(abc(text.replace('%%score {R L}\n', '')).parts.length, 2);
  assert.equal(abc('V:1 transpose=-2\nL:1/4\nK:C\nD4|').notes[0].sounding!.step, 0);
});

test('4.16: redefined symbols; of several tunes the first is read and the others are mentioned', () => {
  const score = readMusicXml(readAbc('X:1\nU:W = !accent!\nK:C\nWC D|\n\nX:2\nK:G\nG|'));
  assert.equal(score.notes[0].marks?.[0].name, 'accent');
  assert.equal(score.notes.length, 2);
  assert.deepEqual(
    score.remarks.map((r) => r.text),
    ['the first of 2 tunes was read, the others stay in the file']
  );
});

test('errors name line and character', () => {
  const refuse = (text: string, pattern: RegExp) =>
    assert.throws(
      () => readAbc(text),
      (e) => e instanceof ScoreError && pattern.test(e.message)
    );
  refuse('X:1\nK:C\nABc ? d|', /"\?" has no meaning here \(measure 1, line 3, character 5\)/);
  refuse('X:1\nK:C\n[ABc|', /line 3/);
  refuse('X:1\nK:H\nA|', /"H" is no key \(line 2/);
  refuse('X:1\nT:x\n', /no key field/);
  refuse('X:1\nK:C\n', /no notes/);
});

test('the demo tunes are read whole, without a remark', () => {
  for (const name of ['corrente.abc', 'andantino.abc', 'etude.abc']) assert.deepEqual(demo(name).score.remarks, [], name);
});

test('2.2.1: a line that holds only a comment is no line, and ends no tune', () => {
  const score = readAbc('X:1\n% head\nM:2/4\nL:1/4\nK:C\nC D |\n% between\n   % and indented\nE F |] % after\n');
  assert.deepEqual(
    readMusicXml(score).notes.map((n) => pitchName(n.pitch!)),
    ['C4', 'D4', 'E4', 'F4']
  );
});

test('a note below or above what is heard is refused with its place', () => {
  assert.throws(() => readAbc('X:1\nK:C\nC,,,,,, |'), /octave -2\) \(measure 1, line 3/);
});
