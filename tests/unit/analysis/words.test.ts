import assert from 'node:assert/strict';
import { test } from 'node:test';
import { inSigns } from '../../../src/core/analysis/words.ts';
import { VOCABULARY } from '../../../src/core/analysis/vocabulary.ts';
import { printable } from '../../../src/lib/server/jobs/pages/faces.ts';

test('notes and numerals in the signs of musicians', () => {
  assert.equal(inSigns('F# minor, its leading note E#, Bbb5'), 'F♯ minor, its leading note E♯, B♭♭5');
  assert.equal(inSigns('viio7/V to V65, bVI, vii%43, N6, V+'), 'vii°7/V to V65, ♭VI, viiø43, N6, V+');
  const plain = 'a bar about Bach, Abbey, iv of vi; G minor in bar 2b, number #4';
  assert.equal(inSigns(plain), plain);
});

test('no numeral of the vocabulary keeps a sign of the keyboard', () => {
  for (const { numeral, goalNumeral } of [...VOCABULARY.major, ...VOCABULARY.minor])
    assert.doesNotMatch(inSigns(goalNumeral ? `${numeral}7/${goalNumeral}` : numeral), /[%#o]|b(?=[IV])/);
});

test('a page whose letters have no flat sign writes it as a letter', () => {
  assert.equal(printable('E♭ major, ♭VI'), 'Eb major, bVI');
});
