import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { abc } from '../helpers.ts';

const THEME = ['c2 ed cG AB|', 'cd ef ga gf|', 'e2 gf ed cB|', 'Ad cB c2 G2|'];
const BACK = [...THEME].reverse();
const OTHER = ['^F4 ^c4|', '_A6 _d2|', '_e8|', '^G2 ^A2 B4|'];
const ALIEN = ['_B,8|', '_d2 _e6|', '^F,2 ^G,6|', '_A,8|'];

/** Quarters at which two places begin and end. */
const places = (...bars: string[]): number[][] =>
  analyse(abc(`M:4/4\nL:1/8\nK:C\n${bars.join('')}`)).parallels.map((p) => [p.a.start, p.a.end, p.b.start, p.b.end].map(toNumber));

test('parallel places reach as far as they are alike and no further', () => {
  assert.deepEqual(places(...THEME, ...OTHER, ...THEME, ...ALIEN), [[0, 16, 32, 48]]);
});

test('one bar that differs lies within a place; three part it in two', () => {
  assert.deepEqual(places(...THEME, OTHER[0], ...BACK, ...OTHER.slice(1), ...THEME, ALIEN[0], ...BACK, ...ALIEN.slice(1)), [
    [0, 36, 48, 84]
  ]);
  assert.deepEqual(
    places(...THEME, ...OTHER.slice(0, 3), ...BACK, ...OTHER.slice(1), ...THEME, ...ALIEN.slice(0, 3), ...BACK, ...ALIEN.slice(1)),
    [
      [0, 16, 56, 72],
      [28, 44, 84, 100]
    ]
  );
});
