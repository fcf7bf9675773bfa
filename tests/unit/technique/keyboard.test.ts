import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { keyboardFingering, type HandName, type KeyboardFingering } from '../../../src/core/technique/keyboard.ts';
import { handOf, wideChords } from '../../../src/core/technique/hands.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { playerLine, secondsAt } from '../../../src/core/technique/player-line.ts';
import { abc } from '../helpers.ts';

function fingers(hand: HandName, text: string, pins = new Map<number, number>()): KeyboardFingering {
  const score = abc(text);
  return keyboardFingering(playerLine(score, 0, secondsAt(score, 120, 120)), { hand, pins });
}
const scale = (key: string, notes: string): string => `M:none\nL:1/4\nK:${key}\n${notes}|`;
const told = (f: KeyboardFingering): string => f.grips.map((g) => g.join('+')).join(' ');

test('major scales in both hands, one octave up and two', () => {
  // Handbook 14.1 [C]; the others are the standard fingerings of any scale book [C].
  assert.equal(told(fingers('right', scale('C', 'C D E F G A B c'))), '1 2 3 1 2 3 4 5');
  assert.equal(told(fingers('left', scale('C', 'C, D, E, F, G, A, B, C'))), '5 4 3 2 1 3 2 1');
  assert.equal(told(fingers('right', scale('G', 'G A B c d e f g'))), '1 2 3 1 2 3 4 5');
  assert.equal(told(fingers('left', scale('G', 'G, A, B, C D E F G'))), '5 4 3 2 1 3 2 1');
  assert.equal(told(fingers('right', scale('F', 'F G A B c d e f'))), '1 2 3 4 1 2 3 4');
  assert.equal(told(fingers('left', scale('F', 'F, G, A, B, C D E F'))), '5 4 3 2 1 3 2 1');
  assert.equal(told(fingers('right', scale('Bb', 'B, C D E F G A B'))), '2 1 2 3 1 2 3 4');
  assert.equal(told(fingers('left', scale('Bb', 'B,, C, D, E, F, G, A, B,'))), '3 2 1 4 3 2 1 2');
});

/** A line of keys, spelled as ABC with every accidental said. */
function typed(keys: readonly { step: number; alter: number }[]): string {
  const names = keys.map(({ step, alter }) => {
    const octave = Math.floor(step / 7);
    const letter = 'CDEFGAB'[((step % 7) + 7) % 7];
    const sign = alter > 0 ? '^' : alter < 0 ? '_' : '=';
    return sign + letter + (octave > 4 ? "'".repeat(octave - 4) : ','.repeat(4 - octave));
  });
  return scale('C', names.join(' '));
}
/** D4, about which the keys of a piano are their own mirror. */
const D4 = 29;

test('mirrored hands mirror the fingering', () => {
  const key = fc.record({ step: fc.integer({ min: D4 - 8, max: D4 + 8 }), alter: fc.constantFrom(-1, 0, 0, 1) });
  fc.assert(
    fc.property(fc.array(key, { minLength: 2, maxLength: 12 }), (keys) => {
      const right = fingers('right', typed(keys));
      const left = fingers('left', typed(keys.map(({ step, alter }) => ({ step: 2 * D4 - step, alter: -alter }))));
      assert.deepEqual(left.grips, right.grips);
      assert.ok(Math.abs(left.total - right.total) < 1e-9);
    }),
    { numRuns: 150 }
  );
});

test('a pinned finger stays and makes nothing cheaper; chords have a finger for each key', () => {
  const text = scale('C', 'C E G c B A G F E D C2 [CEG] [DFB]');
  const free = fingers('right', text);
  fc.assert(
    fc.property(fc.nat(11), fc.integer({ min: 1, max: 5 }), (at, finger) => {
      const pinned = fingers('right', text, new Map([[at, finger]]));
      assert.equal(pinned.grips[at].at(-1), finger);
      assert.ok(pinned.total >= free.total - 1e-9);
    })
  );
  const chord = free.grips.at(-1)!;
  assert.equal(new Set(chord).size, 3);
  assert.ok(
    chord.every((f, k) => k === 0 || f > chord[k - 1]),
    'fingers rise with the keys'
  );
});

test('a chord beyond the hand is shared with the other, which keeps its own', () => {
  const score = abc('M:4/4\nL:1/1\n%%score {A | B}\nV:A name="Piano"\nV:B clef=bass\nK:C\nV:A\n[Ec\'e\']|\nV:B\n[C,G,]|\n');
  const part = score.parts[0];
  const which = handOf(score, part);
  const lines = Object.fromEntries(
    (['right', 'left'] as const).map((h) => [h, playerLine(score, 0, secondsAt(score, 60), (n) => which(n) === h)])
  );
  const [wide] = wideChords(lines);
  assert.deepEqual([wide.hand, wide.semitones, wide.possible], ['right', 24, false]);
  assert.deepEqual(
    wide.shared.map((s) => [pitchName(s.note.pitch!), s.to]),
    [],
    'E4 is too far from C3 for a ninth'
  );
  const [reached] = wideChords(lines, 16);
  assert.deepEqual(
    reached.shared.map((s) => [pitchName(s.note.pitch!), s.to]),
    [['E4', 'left']]
  );
});
