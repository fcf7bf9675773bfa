import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { hairpinWords } from '../../../src/core/reading/hairpin-levels.ts';
import { dynamicLevels } from '../../../src/core/reading/in-force.ts';
import { tempoRangeFault } from '../../../src/core/reading/tempo-range.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { abc, markingAt } from '../helpers.ts';

test('a hairpin is told by the levels that hold now: another mark makes other words', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n!p!c d e f|g a g f|e d c d|c4|]');
  const hairpin = markingAt('hairpin', 'crescendo', 2, { end: frac(4) });
  const words = (...others: Marking[]): string => hairpinWords(score, dynamicLevels(score, [hairpin, ...others]), hairpin);
  assert.equal(words(), 'from p');
  assert.equal(words(markingAt('dynamic', 'f', 4)), 'from p to f');
  assert.equal(words(markingAt('dynamic', 'mf', 1), markingAt('dynamic', 'f', 4)), 'from mf to f');
  assert.equal(words(markingAt('dynamic', 'f', 9)), 'from p', 'two bars later is no goal');
  assert.equal(words(markingAt('dynamic', 'f', 4, { part: 1 })), 'from p', 'nor is the mark of another part');
  assert.equal(hairpinWords(score, dynamicLevels(score), markingAt('dynamic', 'f', 4)), '');
  const bare = abc('M:4/4\nL:1/4\nK:C\nc d e f|g4|]');
  assert.equal(hairpinWords(bare, [], hairpin), '', 'where nothing is in force nothing is quoted');
});

test('a tempo that is asked for is one that can be played', () => {
  assert.equal(tempoRangeFault(80, 92), '');
  assert.equal(tempoRangeFault(80, null), '');
  assert.match(tempoRangeFault(null, null), /at least one number/);
  assert.match(tempoRangeFault(92, 80), /must not be above/);
  for (const nonsense of [0, -3, 5000, NaN, Infinity]) assert.match(tempoRangeFault(nonsense, nonsense), /between 10 and 500/);
});
