import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Score } from '../../../src/core/score/model.ts';
import { unusual } from '../../../src/core/survey/unusual.ts';
import { abc, attributes, demo, note, xml } from '../helpers.ts';

const line = (score: Score, label: string) => unusual(score).lines.find((l) => l.label === label);
const labels = (score: Score) => unusual(score).lines.map((l) => l.label);

/** A page on which nothing is unusual. */
const PLAIN = 'M:4/4\nL:1/4\nQ:"Andante" 1/4=76\nK:C\n!p!(CD) .E.F|GABc|';

test('a plain page has nothing unusual', () => {
  assert.deepEqual(labels(abc(PLAIN)), []);
});

test('what the page leaves to the player is said: loudness, articulation, tempo', () => {
  assert.deepEqual(labels(abc('M:4/4\nL:1/4\nK:C\nCDEF|GABc|')), ['No dynamics', 'No articulation', 'No tempo']);
  // A tempo word is a tempo.
  assert.equal(line(abc('M:4/4\nL:1/4\nQ:"Allegro"\nK:C\nCDEF|'), 'No tempo'), undefined);
});

test('accidentals without a signature, and many with one', () => {
  const atonal = line(abc('M:4/4\nL:1/4\nK:C\n^C_E^F_A|^C^G_B_D|'), 'No key signature')!;
  assert.match(atonal.value, /^8 accidentals, 0 of them carried$/);
  assert.deepEqual(atonal.bars, [0, 1]);
  // A sharp that is carried to the next F of its bar counts too.
  const carried = line(abc('M:4/4\nL:1/4\nK:G\n^C_EC_A|^GG_BD|^A2A2|'), 'Many accidentals')!;
  assert.match(carried.value, /^9 accidentals, 3 of them carried$/);
  assert.equal(line(abc(PLAIN), 'Many accidentals'), undefined);
});

test('signatures outside the circle of fifths, free meter and meters that change', () => {
  const own = xml(
    attributes('<key><key-step>B</key-step><key-alter>-1</key-alter><key-step>F</key-step><key-alter>1</key-alter></key>') + note('C4', 4)
  );
  assert.equal(line(own, 'Key signature')!.value, 'outside the circle of fifths');
  assert.deepEqual(line(own, 'Free meter')!.bars, [0]);
  const changing = abc('M:4/4\nL:1/4\nK:C\nCDEF|[M:3/4]CDE|[M:2/4]CD|[M:4/4]CDEF|CDEF|');
  const change = line(changing, 'The meter changes often')!;
  assert.equal(change.value, '3 times');
  assert.deepEqual(change.bars, [1, 2, 3]);
  assert.equal(line(abc('M:4/4\nL:1/4\nK:C\nCDEF|[M:3/4]CDE|CDE|'), 'The meter changes often'), undefined);
});

test('quarter tones, very long notes, clefs that change and an upbeat lead to their bars', () => {
  const bent = xml(attributes() + '<note><pitch><step>C</step><alter>0.5</alter><octave>4</octave></pitch><duration>16</duration></note>');
  assert.deepEqual(line(bent, 'Quarter tones')!.bars, [0]);
  const long = xml(attributes('<key><fifths>0</fifths></key><time><beats>8</beats><beat-type>4</beat-type></time>'), note('C4', 32));
  assert.equal(line(long, 'Very long notes')!.value, '1 note');
  const clefs = xml(
    attributes() + note('C3', 16),
    '<attributes><clef><sign>C</sign><line>4</line></clef></attributes>' + note('C4', 16),
    '<attributes><clef><sign>F</sign><line>4</line></clef></attributes>' + note('C3', 16)
  );
  assert.deepEqual(line(clefs, 'Clef changes')!.bars, [1, 2]);
  assert.equal(line(demo('corrente.abc').score, 'Upbeat')!.value, 'the piece begins before the first full bar');
});

test('a voice that goes from one staff to the other is told with its bars', () => {
  const staff = (n: number): string => `<voice>1</voice><staff>${n}</staff>`;
  const crossing = xml(
    attributes('<key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves>') +
      note('C3', 8, staff(2)) +
      note('C5', 8, staff(1)),
    note('C5', 16, staff(1))
  );
  const found = line(crossing, 'Voices that cross staves')!;
  assert.deepEqual(found.bars, [0]);
  assert.equal(found.value, '1 place');
});
