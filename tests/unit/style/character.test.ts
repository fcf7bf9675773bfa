import assert from 'node:assert/strict';
import { test } from 'node:test';
import { characterOf, type Traits } from '../../../src/core/style/character.ts';

const PLAIN: Traits = { minor: false, pace: 2.5, height: 0, level: null, compound: false, detached: 0, stepwise: 0.3 };
const word = (traits: Partial<Traits>): string | null => characterOf({ ...PLAIN, ...traits })?.word ?? null;

// Common practice; no published table is known to us.
test('a word of character is never against the page, and none is better than a wrong one', () => {
  assert.equal(word({}), null);
  assert.equal(word({ pace: 6, minor: true, level: 6 }), 'agitato');
  assert.notEqual(word({ pace: 6, minor: true, level: 2 }), 'agitato');
  assert.equal(word({ pace: 6, level: 2 }), 'leggiero');
  assert.equal(word({ pace: 1, level: 7 }), 'maestoso');
  assert.equal(word({ pace: 1, minor: true, level: 3 }), 'mesto');
  assert.equal(word({ pace: 1, minor: true }), null, 'nothing says how loud it is');
  assert.equal(word({ stepwise: 0.8 }), 'cantabile');
});

test('every word has its evidence', () => {
  assert.equal(characterOf({ ...PLAIN, pace: 6, detached: 0.8, height: 5 })!.because, 'many notes a second, many detached notes, high');
  assert.equal(characterOf({ ...PLAIN, level: 3, compound: true })!.because, 'a middle pace, a soft level in force, a beat in three');
});
