import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test } from 'node:test';
import fc from 'fast-check';
import {
  fifthsName,
  fifthsOf,
  intervalBetween,
  intervalName,
  midi,
  pitchName,
  signatureAlter,
  transpose,
  type Pitch
} from '../../../src/core/score/pitch.ts';

// The package's ESM entry names a file that is not there; its browser build is whole and defines `Tonal`.
const source = readFileSync(createRequire(import.meta.url).resolve('tonal/browser/tonal.min.js'), 'utf8');
const { Interval, Note } = new Function(`${source}; return Tonal;`)() as {
  Note: { midi(name: string): number | null };
  Interval: { distance(from: string, to: string): string; get(name: string): { semitones?: number } };
};

const pitch = fc.record(
  { step: fc.integer({ min: 0, max: 6 }), alter: fc.integer({ min: -2, max: 2 }), octave: fc.integer({ min: 1, max: 7 }) },
  { noNullPrototype: true }
);

// Reference: the npm package tonal, which computes the same things from names.
test('names, key numbers and intervals agree with tonal', () => {
  fc.assert(
    fc.property(pitch, pitch, (a: Pitch, b: Pitch) => {
      assert.equal(midi(a), Note.midi(pitchName(a)));
      const interval = intervalBetween(a, b);
      assert.equal(interval.chromatic, Note.midi(pitchName(b))! - Note.midi(pitchName(a))!);
      const known = Interval.get(Interval.distance(pitchName(a), pitchName(b)));
      // The reference errs where letter and sound go opposite ways (C4 to B#3), and names nothing beyond four times augmented.
      const sameWay = interval.diatonic * interval.chromatic > 0;
      if (sameWay && Number.isFinite(known.semitones)) assert.equal(interval.chromatic, known.semitones);
      assert.deepEqual(transpose(a, interval), b);
    })
  );
});

test('intervals are named with quality and direction', () => {
  const c4: Pitch = { step: 0, alter: 0, octave: 4 };
  assert.equal(intervalName(intervalBetween(c4, { step: 4, alter: 0, octave: 4 })), 'P5');
  assert.equal(intervalName(intervalBetween(c4, { step: 6, alter: -1, octave: 3 })), '-M2');
  assert.equal(intervalName(intervalBetween(c4, { step: 3, alter: 1, octave: 4 })), 'A4');
  assert.equal(intervalName(intervalBetween(c4, c4)), 'P1');
});

test('spellings lie on the line of fifths', () => {
  assert.equal(fifthsName(0), 'C');
  assert.equal(fifthsName(6), 'F#');
  assert.equal(fifthsName(-2), 'Bb');
  fc.assert(fc.property(pitch, (p) => assert.equal(fifthsName(fifthsOf(p)), pitchName(p).replace(/-?\d+$/, ''))));
});

// Sharps F C G D A E B, flats in reverse: every theory book.
test('key signatures alter their letters in order', () => {
  const altered = (fifths: number) =>
    [...'CDEFGAB']
      .filter((_, step) => signatureAlter(step, fifths) !== 0)
      .sort()
      .join('');
  assert.equal(altered(0), '');
  assert.equal(altered(2), 'CF');
  assert.equal(altered(-3), 'ABE');
  assert.equal(altered(7), 'ABCDEFG');
  assert.equal(signatureAlter(3, 8), 2);
  assert.equal(signatureAlter(6, -8), -2);
});
