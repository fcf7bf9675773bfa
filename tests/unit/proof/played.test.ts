import assert from 'node:assert/strict';
import { test } from 'node:test';
import { perform } from '../../../src/core/performance/perform.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import type { Reading } from '../../../src/core/reading/reading.ts';
import { abc } from '../helpers.ts';
import { drafted, playableOf, literal, readingOf } from '../performance/play.ts';
import { demo } from '../helpers.ts';

const playable = playableOf(abc('M:4/4\nL:1/16\nQ:1/4=60\nK:C\nCDEF G4 ABcd e4|f4 edcB A4 G4|'));

const kinds = (reading: Reading): string[] => {
  const performed = { plan: perform(playable, reading), page: literal(playable) };
  return proof(playable.study, reading, [], performed).map((f) => f.kind);
};

test('a ratio inside a beat that is bent too far is found, one that holds is not', () => {
  const leaning = {
    id: 'x',
    kind: 'articulation' as const,
    value: 'tenuto',
    part: 0,
    staff: 1,
    start: { n: 1, d: 4 },
    note: playable.tones[1].tone.note.id,
    because: []
  };
  const bent = readingOf('romantic', { rubato: 'arch' }, { markings: [leaning], amounts: { leaning: 2 } });
  // A dash of double leaning on the second of four sixteenths: a tenth of its length is a fortieth of the beat.
  assert.ok(!kinds(bent).includes('ratio inside the beat bent'));
  const far = { ...bent, period: 'romantic' as const, localAmounts: [], rubato: {}, amounts: { leaning: 2 } };
  const many = [1, 5, 9].map((k) => ({
    ...leaning,
    id: `x${k}`,
    note: playable.tones[k].tone.note.id,
    start: playable.tones[k].tone.note.start
  }));
  assert.ok(
    !kinds({ ...far, markings: many, schools: { rubato: { option: 'beat-strict', on: '2026-11-25' } } }).includes(
      'ratio inside the beat bent'
    )
  );
  // A fermata on one of four sixteenths does bend it.
  const held = { ...leaning, kind: 'fermata' as const, value: 'fermata' };
  assert.ok(kinds({ ...far, markings: [held] }).includes('ratio inside the beat bent'));
});

test('time that is stolen and not given back is found; where it is given back, or not stolen, it is not', () => {
  const pulled = { timePulls: { 1: 1.2 } };
  assert.ok(kinds(readingOf('romantic', { rubato: 'stolen' }, pulled)).includes('stolen time not given back'));
  assert.ok(!kinds(readingOf('romantic', { rubato: 'arch' }, pulled)).includes('stolen time not given back'));
  assert.ok(!kinds(readingOf('romantic', { rubato: 'stolen' })).includes('stolen time not given back'));
});

test('no such finding in drafted readings of the demo pieces', () => {
  for (const [name, period] of [
    ['etude.abc', 'romantic'],
    ['andantino.abc', 'classical'],
    ['corrente.abc', 'baroque']
  ] as const) {
    const own = playableOf(demo(name).score);
    const reading = drafted(own, period);
    const performed = { plan: perform(own, reading), page: literal(own) };
    const found = proof(own.study, reading, [], performed).filter((f) => /bent|stolen/.test(f.kind));
    assert.deepEqual(
      found.map((f) => f.what),
      []
    );
  }
});
