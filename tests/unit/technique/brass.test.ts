import assert from 'node:assert/strict';
import { test } from 'node:test';
import { brassFingering, brassWays, loadCurve } from '../../../src/core/technique/brass.ts';
import { playerLine, secondsAt, type PlayerLine } from '../../../src/core/technique/player-line.ts';
import { partialCents, TUBES, valveCents } from '../../../src/core/style/brass.ts';
import { abc } from '../helpers.ts';

const lineOf = (text: string, tempo = 90): PlayerLine => {
  const score = abc(text);
  return playerLine(score, 0, secondsAt(score, tempo, tempo));
};
const round = (x: number): number => Math.round(x * 10) / 10;

test('deviations of partials, and valves together that are sharp', () => {
  // Handbook 17.1: from the formulas.
  assert.deepEqual(
    [3, 5, 6, 7, 9, 10].map((n) => round(partialCents(n))),
    [2, -13.7, 2, -31.2, 3.9, -13.7]
  );
  assert.deepEqual(
    ['12', '13', '123'].map((v) => round(valveCents(v))),
    [10.6, 30.3, 53.6]
  );
  assert.equal(valveCents('1'), 0);
});

test('the scale of B flat on trumpet and trombone', () => {
  // [C] Any method; the trumpet as it sounds, one tone below what is written.
  const trumpet = brassFingering(lineOf('M:none\nL:1/4\nK:Bb\nB, C D E F G A B|'), 'trumpet', new Map());
  assert.deepEqual(
    trumpet.ways.map((w) => w!.valves),
    ['0', '13', '12', '1', '0', '12', '2', '0']
  );
  const trombone = brassFingering(lineOf('M:none\nL:1/4\nK:Bb\nB,, C, D, E, F, G, A, B,|'), 'trombone', new Map());
  assert.deepEqual(
    trombone.ways.map((w) => w!.slide),
    [1, 6, 4, 3, 1, 4, 2, 1]
  );
});

test('alternates have the same pitch by another partial, with their cents; a pin stays', () => {
  // D5 as it sounds on the trumpet: open on the fifth partial, 12 on the sixth.
  const ways = brassWays(74, TUBES.trumpet);
  assert.deepEqual(
    ways.map((w) => `${w.partial} ${w.valves}`),
    ['5 0', '6 12', '6 3']
  );
  assert.deepEqual(
    ways.map((w) => round(w.cents)),
    [-13.7, 12.6, 2]
  );
  const line = lineOf('M:none\nL:1/4\nK:Bb\nB d f|');
  const pinned = brassFingering(line, 'trumpet', new Map([[1, { valves: '12' }]]));
  assert.equal(pinned.ways[1]!.valves, '12');
  assert.ok(pinned.total >= brassFingering(line, 'trumpet', new Map()).total);
  assert.equal(brassFingering(lineOf('M:none\nL:1/4\nK:C\nC,,,|'), 'trumpet', new Map()).ways[0], null);
});

test('the load grows with height and loudness, and rests take it away', () => {
  const bars = "M:4/4\nL:1/1\nK:C\nC|c|c'|z|z|z|C|";
  const load = loadCurve(lineOf(bars, 60), 60, () => 0.5);
  assert.ok(load[0] < load[1] && load[1] < load[2]);
  assert.equal(Math.max(...load), 1);
  assert.ok(load[6] < load[2]);
  const loud = loadCurve(lineOf('M:4/4\nL:1/1\nK:C\nC|C|C|C|', 60), 60, (k) => (k < 2 ? 0.2 : 1));
  assert.ok(loud[3] > loud[1] * 2);
});
