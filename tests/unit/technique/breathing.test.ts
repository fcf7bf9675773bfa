import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { breathing, breathPlace, type BreathSettings, type Breathing } from '../../../src/core/technique/breathing.ts';
import { playerLine, secondsAt, type PlayerLine } from '../../../src/core/technique/player-line.ts';
import { abc } from '../helpers.ts';

const SETTINGS: BreathSettings = {
  instrument: 'flute',
  capacity: null,
  loud: () => false,
  phraseEnds: new Set(),
  bound: new Set(),
  pins: new Map()
};
const lineOf = (text: string, tempo: number): PlayerLine => {
  const score = abc(text);
  return playerLine(score, 0, secondsAt(score, tempo, tempo));
};
const HEAD = 'M:4/4\nL:1/4\nK:C\n';
const breathe = (line: PlayerLine, settings: Partial<BreathSettings> = {}): Breathing => breathing(line, { ...SETTINGS, ...settings });

test('one breathes in rests and at the ends of phrases, never inside a slur or a tie', () => {
  const line = lineOf(`${HEAD}C D E F|G2 z2|(C D E F|G A B c|d4)|e4-|e4|f4|g4|`, 60);
  const { breaths } = breathe(line, { phraseEnds: new Set([14]) });
  assert.equal(breaths[0].at, 5);
  assert.equal(breaths[0].kind, 'full');
  for (const b of breaths) assert.ok(!line.attacks[b.at - 1].joined, `before ${b.at}`);
  assert.ok(
    breaths.some((b) => b.at === 14),
    'after the slur of nine notes there is little left'
  );
});

test('a breath is quick where there is no time, and late where nothing allows one', () => {
  const line = lineOf(`${HEAD}C D E F|G A B c|d e f g|a4|`, 60);
  assert.ok(breathe(line).breaths.every((b) => b.kind === 'quick'));
  const slurred = lineOf(`${HEAD}(C D E F|G A B c|d e f g|a4)|`, 60);
  assert.deepEqual(breathe(slurred).breaths, []);
  assert.deepEqual(breathe(slurred).late, [12]);
  assert.ok(
    breathe(line, { capacity: 4 }).breaths.length > breathe(line, { capacity: 12 }).breaths.length,
    'each player has an own capacity'
  );
});

test('not between a dissonance and its resolution, nor in a chromatic climb', () => {
  const line = lineOf(`${HEAD}C D E F|G A B c|d e f g|a4|`, 60);
  assert.equal(breathPlace(line, 4, { ...SETTINGS, bound: new Set([4]) }), null);
  const bound = new Set([4, 8]);
  for (const b of breathe(line, { bound }).breaths) assert.ok(!bound.has(b.at));
});

test('every breath stands at a place that is permitted, pins stay, and the seconds between breaths add up to the piece', () => {
  const tunes = [`${HEAD}C D E F|(G A) B c|d2 z2|e f g a|(g f e d)|c4|`, `${HEAD}C/D/E/F/ G2|A4|{B}c2 d2|z4|(e d c B|A G F E)|D4-|D4|C4|`];
  fc.assert(
    fc.property(
      fc.constantFrom(...tunes),
      fc.integer({ min: 30, max: 140 }),
      fc.dictionary(fc.integer({ min: 1, max: 12 }).map(String), fc.boolean(), { maxKeys: 3 }),
      (tune, tempo, given) => {
        const line = lineOf(tune, tempo);
        const pins = new Map(Object.entries(given).map(([k, v]) => [Number(k), v] as const));
        const { breaths, total } = breathe(line, { pins });
        for (const b of breaths) assert.ok(pins.get(b.at) === true || breathPlace(line, b.at, SETTINGS));
        for (const [at, taken] of pins)
          if (at < line.attacks.length)
            assert.equal(
              breaths.some((b) => b.at === at),
              taken,
              `pin at ${at}`
            );
        assert.ok(
          total >= breathe(line, { pins: new Map([...pins].filter(([, t]) => t)) }).total - 1e-9,
          'what is forbidden makes nothing cheaper'
        );
        // From each breath to the last sound before the next, and the silences between.
        let seconds = 0;
        let since = 0;
        for (const b of breaths) {
          seconds += b.secondsBefore + (line.attacks[b.at].from - line.attacks[b.at - 1].to);
          since = b.at;
        }
        const last = line.attacks.at(-1)!;
        assert.ok(Math.abs(line.attacks[0].from + seconds + (last.to - line.attacks[since].from) - last.to) < 1e-6);
      }
    ),
    { numRuns: 150 }
  );
});
