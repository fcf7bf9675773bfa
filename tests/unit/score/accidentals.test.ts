import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { alteredNotes } from '../../../src/core/score/accidentals.ts';
import { pitchName, signatureAlter } from '../../../src/core/score/pitch.ts';
import { abc, attributes, note, xml } from '../helpers.ts';

const list = (score: ReturnType<typeof xml>) => alteredNotes(score).map((a) => `${pitchName(a.note.pitch!)}${a.printed ? '' : ' carried'}`);

test('printed and carried alterations are told apart; the bar line ends them', () => {
  assert.deepEqual(list(abc('M:4/4\nL:1/4\nK:C\n^F F G F | F ^F2 z |')), ['F#4', 'F#4 carried', 'F#4 carried', 'F#4']);
});

test('a natural in a signature counts, another octave is not carried', () => {
  assert.deepEqual(list(abc('M:4/4\nL:1/4\nK:D\n=F F ^f =f |')), ['F4', 'F4 carried', 'F5']);
});

test('a tie carries its alteration over the bar line, and no further', () => {
  const tie = (types: string[]) => types.map((t) => `<tie type="${t}"/>`).join('');
  const score = xml(
    attributes() + note('F#4', 16, tie(['start']) + '<accidental>sharp</accidental>'),
    note('F#4', 8, tie(['stop'])) + note('F#4', 8, '<accidental>sharp</accidental>')
  );
  assert.deepEqual(list(score), ['F#4', 'F#4 carried', 'F#4']);
});

test('an accidental counts in order of time, whatever the voice', () => {
  const score = xml(
    attributes() +
      note('C4', 8) +
      note('F#4', 8, '<voice>1</voice>') +
      '<backup><duration>16</duration></backup>' +
      note('F#4', 4, '<accidental>sharp</accidental><voice>2</voice>')
  );
  assert.deepEqual(list(score), ['F#4', 'F#4 carried']);
});

test('exactly the notes that differ from the signature are listed', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -6, max: 6 }),
      fc.array(fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: -1, max: 1 })), { minLength: 1, maxLength: 12 }),
      (fifths, notes) => {
        const names = notes.map(([step, alter]) => 'CDEFGAB'[step] + (alter > 0 ? '#' : alter < 0 ? 'b' : '') + '4');
        const score = xml(attributes(`<key><fifths>${fifths}</fifths></key>`) + names.map((n) => note(n, 1)).join(''));
        const expected = notes.filter(([step, alter]) => alter !== signatureAlter(step, fifths)).length;
        assert.equal(alteredNotes(score).length, expected);
      }
    )
  );
});

test('a note without its accidental element is not printed with one, wherever the file writes any', () => {
  const score = xml(attributes() + note('F#4', 4) + note('G#4', 4, '<accidental>sharp</accidental>') + note('F#4', 8));
  assert.deepEqual(list(score), ['F#4 carried', 'G#4', 'F#4 carried']);
  assert.deepEqual(
    list(xml(attributes() + note('F#4', 4) + note('F#4', 12))),
    ['F#4', 'F#4 carried'],
    'no file that says nothing is silent'
  );
});
