import assert from 'node:assert/strict';
import { test } from 'node:test';
import { fingerName, leftHand, ringing, stringName, type Fingering, type FingerPin } from '../../../src/core/technique/left-hand.ts';
import { playerLine, secondsAt } from '../../../src/core/technique/player-line.ts';
import { instrumentByKey } from '../../../src/core/style/instruments/index.ts';
import type { Period } from '../../../src/core/style/profiles.ts';
import { STRING_HANDS, STRING_TASTE } from '../../../src/core/style/string-hands.ts';
import { abc } from '../helpers.ts';

function hand(
  instrument: string,
  text: string,
  { period = 'classical' as Period, pins = new Map<number, (FingerPin | undefined)[]>(), tempo = 120 } = {}
): Fingering {
  const score = abc(text);
  const line = playerLine(score, 0, secondsAt(score, tempo, tempo));
  const open = instrumentByKey(instrument)!.strings!;
  return leftHand(line, { open, hand: STRING_HANDS[instrument], bowed: instrument !== 'guitar', taste: STRING_TASTE[period], pins });
}
/** "G0 G1 G2": strings and fingers. */
const told = (instrument: string, f: Fingering): string =>
  f.grips
    .map((g) => g.map((p) => (p ? stringName(instrumentByKey(instrument)!.strings!, p.string) + fingerName(p.finger) : '?')).join('+'))
    .join(' ');
const scale = (head: string, notes: string): string => `M:none\nL:1/4\n${head}\n${notes}|`;

test('one and two octaves of G major on the violin, in first position from the open string', () => {
  // Handbook 13.3 [C].
  const f = hand('violin', scale('K:G', 'G, A, B, C D E F G A B c d e f g'));
  assert.equal(told('violin', f), 'G0 G1 G2 G3 D0 D1 D2 D3 A0 A1 A2 A3 E0 E1 E2');
  assert.deepEqual(new Set(f.grips.flat().map((p) => p!.position)), new Set([1]));
});

test('two octaves in first position on viola and cello', () => {
  // [C] Any first scale book.
  assert.equal(
    told('viola', hand('viola', scale('K:C clef=alto', 'C, D, E, F, G, A, B, C D E F G A B c'))),
    'C0 C1 C2 C3 G0 G1 G2 G3 D0 D1 D2 D3 A0 A1 A2'
  );
  assert.equal(
    told('cello', hand('cello', scale('K:C clef=bass', 'C,, D,, E,, F,, G,, A,, B,, C, D, E, F, G, A, B, C'))),
    'C0 C1 C3 C4 G0 G1 G3 G4 D0 D1 D2 D4 A0 A1 A2'
  );
});

test('a double bass takes whole tones with the first and fourth finger', () => {
  const f = hand('double-bass', scale('K:G clef=bass octave=-1', 'G,, A,, B,, C, D, E, F, G,'));
  assert.ok(f.grips.flat().every((p) => p && [0, 1, 2, 4].includes(p.finger)));
});

test('double stops: on neighbouring strings within the hand, or named impossible', () => {
  const f = hand('violin', scale('K:C', '[DB] [G,A,] [G,B,] [EB] [ce]'));
  assert.deepEqual(
    f.chords.map((c) => c.possible),
    [true, false, false, true, true]
  );
  const seconds = hand('violin', scale('K:C', '[G,A,]'));
  assert.deepEqual(seconds.chords, [{ at: 0, possible: false, why: 'both G3 and A3 lie on the G string only' }]);
  assert.equal(hand('violin', scale('K:C', '[DB]')).chords[0].possible, true);
  assert.equal(hand('violin', scale('K:C', '[G,DBg]')).chords[0].possible, true, 'G major over four strings');
});

test('a pin stays; crossings over a string are listed; ringing notes too', () => {
  const f = hand('violin', scale('K:D', 'd e d e'), { pins: new Map([[1, [{ finger: '4' }]]]) });
  assert.equal(f.grips[1][0]!.finger, 4);
  const leap = hand('violin', scale('K:D', 'G, b G, b'));
  assert.deepEqual(
    leap.crossings.map((c) => [c.at, c.from, c.to]),
    [
      [1, 3, 0],
      [2, 0, 3],
      [3, 3, 0]
    ]
  );
  const score = abc(scale('K:D', 'D F A B d'));
  assert.deepEqual(ringing(playerLine(score, 0, secondsAt(score, 90)), instrumentByKey('violin')!.strings!), [0, 2, 4]);
});

test('a romantic page crosses less, a baroque one stays low', () => {
  const melody = 'M:4/4\nL:1/8\nK:D\n(A2 c2 e2 a2|g2 e2 c2 A2)|d8|';
  const heights = (period: Period): number =>
    hand('violin', melody, { period, tempo: 60 })
      .grips.flat()
      .reduce((n, p) => n + p!.position, 0);
  assert.ok(heights('romantic') >= heights('baroque'));
});

test('what costs something says so, and another way costs no less', () => {
  const f = hand('violin', "M:4/4\nL:1/8\nK:A\n(A2 c2 e2 a2|c'2 a2 e2 c2)|A8|", { tempo: 80 });
  const sum = f.costs.flat().reduce((n, c) => n + c.price, 0);
  assert.ok(Math.abs(sum - f.total) < 1e-6);
  for (const a of f.alternatives) assert.ok(a.price >= -1e-9);
});

test('three octaves of G major: the hand goes up to its first finger; a cello opens for D major', () => {
  // [C] Any scale book.
  const three = hand('violin', scale('K:G', "G, A, B, C D E F G A B c d e f g a b c' d' e' f' g'"));
  const places = three.grips.map((g) => g[0]!);
  assert.deepEqual(
    places.slice(16).flatMap((p, k) => (p.position !== places[15 + k].position ? [p.finger] : [])),
    [1, 1]
  );
  const cello = hand('cello', scale('K:D clef=bass', 'D,, E,, F,, G,, A,, B,, C, D,'));
  assert.deepEqual(told('cello', cello).split(' ').slice(0, 3), ['C1', 'C2', 'C4']);
  assert.ok(cello.grips[2][0]!.extended);
});

test('each head of a double stop keeps its own pin; what cannot be played so is named', () => {
  const pins = new Map([[0, [{ finger: '0' }, { finger: '0' }]]]);
  const f = hand('violin', scale('K:C', '[EB] [ce]'), { pins });
  // Neither is an open string.
  assert.deepEqual(f.refused, [0]);
  const sixth = hand('violin', scale('K:C', '[Ec]'), { pins: new Map([[0, [{ finger: '1' }, { finger: '2' }]]]) });
  assert.deepEqual(
    sixth.grips[0].map((p) => p!.finger),
    [1, 2]
  );
  assert.deepEqual(sixth.refused, []);
  assert.deepEqual(hand('violin', scale('K:C', 'G,'), { pins: new Map([[0, [{ string: 'E' }]]]) }).refused, [0]);
});
