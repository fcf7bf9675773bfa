import assert from 'node:assert/strict';
import { test } from 'node:test';
import { barList } from '../../../src/core/score/position.ts';
import { abc } from '../helpers.ts';

test('bars are told in runs, and what has no number is said beside', () => {
  const { measures } = abc('X:1\nM:3/4\nL:1/4\nK:C\nG | c d e | f g a | b2 :: G | c d e | f g a | c3 |]');
  const names = (...bars: number[]): string => barList(measures, bars);
  assert.equal(names(1), 'bar 1');
  assert.equal(names(1, 2), 'bars 1–2');
  assert.equal(names(1, 5), `bars 1 and ${measures[5].number}`);
  assert.equal(names(0), 'upbeat');
  assert.equal(names(0, 1), 'bar 1 with the upbeat');
  assert.equal(names(0, 1, 2, 3), 'bars 1–3 with the upbeat');
  assert.match(names(4, 5), /^bar \d+ with the upbeat$/);
  assert.match(names(0, 2), /^upbeat and bar 2$/);
});
