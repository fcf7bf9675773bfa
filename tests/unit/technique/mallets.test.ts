import assert from 'node:assert/strict';
import { test } from 'node:test';
import { sticking, type Sticking } from '../../../src/core/technique/mallets.ts';
import { playerLine, secondsAt } from '../../../src/core/technique/player-line.ts';
import { abc } from '../helpers.ts';

function sticks(text: string, pins = new Map<number, 'L' | 'R'>()): Sticking {
  const score = abc(text);
  return sticking(playerLine(score, 0, secondsAt(score, 120, 120)), pins);
}
const told = (s: Sticking): string => s.sticks.map((x) => x.join('+')).join(' ');

test('hands alternate in a quick line, and a pin stays', () => {
  const text = 'M:4/4\nL:1/16\nK:C\nCDEF GABc defg a4|';
  const hands = sticks(text).sticks.map(([s]) => s);
  assert.ok(hands.every((s, k) => k === 0 || s !== hands[k - 1]));
  const pinned = sticks(text, new Map([[1, hands[1] === 'L' ? 'R' : 'L']]));
  assert.notEqual(pinned.sticks[1][0], hands[1]);
  assert.ok(pinned.total >= sticks(text).total - 1e-9);
});

test('two keys at once are one for each hand; three ask for four mallets, from the left', () => {
  assert.equal(told(sticks('M:4/4\nL:1/2\nK:C\n[CE] [DF]|')), 'L+R L+R');
  const four = sticks('M:4/4\nL:1/2\nK:C\n[CEGc] [CEG]|C D|');
  assert.equal(told(four).split(' ')[0], '1+2+3+4');
  assert.ok(
    four.sticks[2].every((s) => s === '2' || s === '3'),
    'inside mallets for a line'
  );
  assert.deepEqual(sticks('M:4/4\nL:1/1\nK:C\n[CEGBd]|').tooMany, [0]);
});
