import assert from 'node:assert/strict';
import { test } from 'node:test';
import { clicksInBar, groupsOf, type ClickKind } from '../../../src/core/performance/clicks.ts';
import { format } from '../../../src/core/score/fraction.ts';
import { abc } from '../helpers.ts';

/** Where clicks fall in a bar of a meter: "0! 1 2 3", with ! for the bar line and ' for what is inside. */
function told(meter: string, notes: string, kind: ClickKind, count = 0): string {
  const score = abc(`X:1\nM:${meter}\nL:1/8\nK:C\n${notes} |]`);
  const bar = score.measures[0];
  const signs = ["'", '', '!'];
  return clicksInBar(bar, kind, groupsOf(score, bar), count)
    .map((c) => format(c.at) + signs[c.weight])
    .join(' ');
}

test('a click falls on the felt beats, on their parts, or between them (handbook 1.4)', () => {
  assert.equal(told('4/4', 'c8', 'beats'), '0! 1 2 3');
  assert.equal(told('6/8', 'c6', 'beats'), '0! 3/2');
  assert.equal(told('3/4', 'c6', 'parts'), "0! 1/2' 1 3/2' 2 5/2'");
  assert.equal(told('6/8', 'c6', 'parts'), "0! 1/2' 1' 3/2 2' 5/2'");
  assert.equal(told('4/4', 'c8', 'off'), '1/2 3/2 5/2 7/2');
  assert.equal(told('6/8', 'c6', 'off'), '1 5/2', 'the last third of a beat in three');
  assert.equal(told('4/4', 'c8', 'groups'), '0! 2');
});

test('an uneven meter clicks in its groups, as they are felt or written', () => {
  assert.equal(told('2+3/8', 'cdefg', 'beats'), '0! 1');
  assert.equal(told('3+2/8', 'cdefg', 'groups'), '0! 3/2');
  assert.equal(told('2+2+3/8', 'cdefgab', 'parts'), "0! 1/2' 1 3/2' 2 5/2' 3'");
});

test('every other bar is silent, and no click is none', () => {
  assert.equal(told('4/4', 'c8', 'silent', 0), '0! 1 2 3');
  assert.equal(told('4/4', 'c8', 'silent', 1), '');
  assert.equal(told('4/4', 'c8', 'none'), '');
});
