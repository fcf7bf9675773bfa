import assert from 'node:assert/strict';
import { test } from 'node:test';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { marksOf } from '../../../src/core/technique/told/marks.ts';
import { lies, told } from './asked.ts';

const two = (name: string, right: string, left: string): string =>
  `M:4/4\nL:1/4\n%%score {1 2}\nV:1 nm="${name}"\nV:2 clef=bass\nK:C\n[V:1]${right}|\n[V:2]${left}|\n`;
const BROKEN = 'C,/G,/E/G,/ C,/G,/E/G,/';

test('the pedal holds what the hand must leave, one harmony long, in times that had it: handbook 14.4', () => {
  const stretches = (right: string, left: string, period: 'romantic' | 'baroque' = 'romantic'): number[][] =>
    lies(two('Piano', right, left), { period }).pedal.map((p) => [p.measure, toNumber(p.start), toNumber(p.end)]);
  const romantic = stretches('G4', BROKEN);
  assert.ok(romantic.length > 0 && romantic.every(([bar]) => bar === 0));
  assert.deepEqual(stretches('G4', BROKEN, 'baroque'), []);
  assert.deepEqual(stretches('.G.G.G.G', BROKEN), [], 'never against short notes');
  assert.deepEqual(stretches('G2 z2', 'C,2 z2'), [], 'never against rests');
  assert.deepEqual(stretches('c/d/e/f/ g/f/e/d/', BROKEN), [], 'never over a melody that walks');
  const t = lies(two('Piano', 'G4', BROKEN), { period: 'romantic' });
  assert.equal(marksOf(t).filter((m) => m.kind === 'pedal').length, t.pedal.length);
});

test('hands go apart in articulation: a pair is left while the other hand goes on; short beside bound: handbook 14.3', () => {
  const pair = lies(two('Piano', '(GF) E2', '(C,D,E,F,)'));
  assert.match(told(pair, 0, 'Hands')!, /after beat 2 the right hand lifts, the other goes on bound/);
  const short = lies(two('Piano', '.G.F.E.D', '(C,D,E,F,)'));
  assert.match(told(short, 0, 'Hands')!, /on beat 1 the right hand is short, the other bound/);
  assert.equal(told(lies(two('Piano', '(GFED)', '(C,D,E,F,)')), 0, 'Hands'), undefined);
});

test('an organ holds common notes and lets go of those that come again: handbook 14.4', () => {
  const organ = lies('M:4/4\nL:1/4\nV:1 nm="Organ"\nK:C\n[CEG][CFA] G G|');
  assert.match(told(organ, 0, 'Touch')!, /C4 held over to beat 2; G4 again on beat 4: let go for half of the value before/);
  assert.equal(told(lies('M:4/4\nL:1/4\nV:1 nm="Piano"\nK:C\n[CEG][CFA] G G|'), 0, 'Touch'), undefined);
});

test('notes that the other hand takes are written as its own: handbook 14.2', () => {
  const t = lies(two('Piano', '[Gce]4', '[C,G,E]4'));
  const hands = marksOf(t).filter((m) => m.kind === 'hand');
  assert.deepEqual(
    hands.map((m) => m.value),
    t.wide.flatMap((w) => w.shared.map((s) => (s.to === 'right' ? 'r.h.' : 'l.h.')))
  );
  assert.ok(hands.length > 0);
});
