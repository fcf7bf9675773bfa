import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { bowing, type BowDirection, type Bowing, type BowSettings } from '../../../src/core/technique/bow.ts';
import { playerLine, secondsAt, type PlayerLine } from '../../../src/core/technique/player-line.ts';
import { abc } from '../helpers.ts';

const SETTINGS: BowSettings = {
  school: 'rule-of-downbow',
  loud: () => false,
  gesture: () => 0,
  phraseEnds: new Set(),
  pins: new Map()
};
const lineOf = (text: string, tempo: number): PlayerLine => {
  const score = abc(text);
  return playerLine(score, 0, secondsAt(score, tempo, tempo));
};
const bow = (text: string, tempo = 96, settings: Partial<BowSettings> = {}): Bowing =>
  bowing(lineOf(text, tempo), { ...SETTINGS, ...settings });
/** "d u d u", with what each stroke is where it is not plain. */
const told = ({ strokes }: Bowing): string => strokes.map((s) => s.direction.charAt(0) + (s.way === 'plain' ? '' : `(${s.way})`)).join(' ');

test('four equal notes in common time: down up down up', () => {
  // Handbook 12.2: Muffat 1698, from memory.
  assert.equal(told(bow('M:4/4\nL:1/4\nK:C\nC D E F|G A B c|')), 'd u d u d u d u');
});

test('three equal notes that fill a bar: slowly down up down and down again, quickly down up up', () => {
  // Handbook 12.2: Muffat 1698, from memory.
  const bars = 'M:3/4\nL:1/4\nK:C\nC D E|F G A|B c d|c3|';
  assert.equal(told(bow(bars, 50)), 'd u d d(retake) u d d(retake) u d d(retake)');
  assert.equal(told(bow(bars, 160)), 'd u u(hook) d u u(hook) d u u(hook) d');
});

test('a dotted figure: long and short in one bow', () => {
  // Handbook 12.2: L. Mozart 1756, from memory.
  assert.equal(told(bow('M:2/4\nL:1/8\nK:C\nC>D E>F|G>A B>c|c4|', 66)), 'd d(hook) u u(hook) d d(hook) u u(hook) d');
});

test('an odd upbeat goes up; a slur is one stroke; a rest lifts', () => {
  assert.equal(told(bow('M:4/4\nL:1/4\nK:C\nG|c2 (B A)|(G F) E z|C4|')).slice(0, 9), 'u d u d u');
  const { strokes } = bow('M:4/4\nL:1/4\nK:C\n(C D E) F|C2 z2|C4|');
  assert.deepEqual(
    strokes.map((s) => [s.from, s.to, s.direction]),
    [
      [0, 2, 'down'],
      [3, 3, 'up'],
      [4, 4, 'down'],
      [5, 5, 'down']
    ]
  );
  assert.equal(strokes[3].way, 'lift');
});

test('grace notes go with their note; slurs that meet at a note are asked about', () => {
  assert.deepEqual(
    bow('M:2/4\nL:1/4\nK:C\n{d}c d|e2|').strokes.map((s) => [s.from, s.to]),
    [
      [0, 1],
      [2, 2],
      [3, 3]
    ]
  );
  assert.deepEqual(bow('M:4/4\nL:1/4\nK:C\n(C D (E) F)|G4|').contradictions.length <= 1, true);
  const met = bow('M:4/4\nL:1/4\nK:C\n(C (D) E) F|G4|');
  assert.ok(met.strokes.length > 0);
});

test('a slur that is longer than the bow is divided, or named', () => {
  const long = bow('M:4/4\nL:1/1\nK:C\n(C D E F|G A) z|', 40, { loud: () => true });
  assert.ok(long.strokes.some((s) => s.way === 'split'));
  assert.ok(long.tooLong.length > 0);
});

test('a pin is never moved, a way that is excluded is never cheaper, and what is shown besides costs more', () => {
  const text = 'M:3/4\nL:1/8\nK:G\nG2 (AB) c2|d>e f2 g2|(gf ed) c2|B2 A2 G2|(G3 A) B2|c6|';
  const line = lineOf(text, 90);
  const free = bowing(line, SETTINGS);
  fc.assert(
    fc.property(
      fc.dictionary(fc.nat(line.attacks.length - 1).map(String), fc.constantFrom<BowDirection>('down', 'up'), { maxKeys: 4 }),
      (given) => {
        const pins = new Map(Object.entries(given).map(([k, d]) => [Number(k), d]));
        const pinned = bowing(line, { ...SETTINGS, pins });
        for (const [k, d] of pins) assert.equal(pinned.strokes.find((s) => s.from <= k && k <= s.to)!.direction, d);
        assert.ok(pinned.total >= free.total - 1e-9);
      }
    ),
    { numRuns: 200 }
  );
  for (const a of free.alternatives) assert.ok(a.price >= -1e-9 && a.strokes.length > 0);
  const covered = free.strokes.flatMap((s) => Array.from({ length: s.to - s.from + 1 }, (_, k) => s.from + k));
  assert.deepEqual(
    covered,
    line.attacks.map((_, k) => k),
    'each note hangs on one bow'
  );
  const sum = free.strokes.flatMap((s) => s.costs).reduce((n, c) => n + c.price, 0);
  assert.ok(Math.abs(sum - free.total) < 1e-6, 'every price has its reason');
});

test('the second half of a bar that a repeat cuts is no downbeat', () => {
  const { strokes } = bow('M:3/4\nL:1/4\nK:C\nG|c d e|c2:|G|e d c|c2:|');
  const upbeats = strokes.filter((s) => s.from === 0 || s.from === 5);
  assert.deepEqual(
    upbeats.map((s) => s.direction),
    ['up', 'up']
  );
});
