import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { keyboardFingering, type HandName, type KeyboardFingering } from '../../../src/core/technique/keyboard.ts';
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
  assert.equal(told(fingers('left', scale('Bb', 'B,, C, D, E, F, G, A, B,'))), '3 2 1 4 3 2 1 3');
});
