import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { brief } from '../../../src/core/reading/brief.ts';
import { metronomeTempo, readMetronome } from '../../../src/core/score/metronome.ts';
import { tempoInForce } from '../../../src/core/score/tempo.ts';
import { dynamicLevels, levelInForce } from '../../../src/core/reading/in-force.ts';
import { placesIn } from '../../../src/core/reading/moments.ts';
import { abc, demo, open, sample } from '../helpers.ts';

test('the brief says what it is, what the page says, how long and how loud', () => {
  const { score } = demo('andantino.abc');
  const text = brief(score, analyse(score), [], 6, 6);
  assert.ok(text.whatItIs.some((l) => l.includes('V64 – V7')));
  assert.ok(text.whatThePageSays.some((l) => l === 'bar 7, beat 1: f'));
  assert.ok(text.whatThePageSays.some((l) => l.includes('trill mark')));
  // 3 quarters at 88 a minute: 180 / 88 = 2.045 s.
  assert.ok(text.howLongAndLoud[0].includes('2.05 s'));
  assert.ok(text.howLongAndLoud[1].includes('In force: f'));
});

test('metronome marks in quarters, with dots and ranges', () => {
  const mark = (unit: string, dots: number, perMinute: string) => metronomeTempo(readMetronome({ unit, dots, perMinute })!);
  assert.equal(mark('quarter', 0, '96'), 96);
  assert.equal(mark('quarter', 1, '60'), 90);
  assert.equal(mark('half', 0, '50'), 100);
  assert.equal(mark('eighth', 0, 'ca. 84–88'), 43);
  assert.equal(tempoInForce(abc('L:1/4\nQ:1/4=100\nK:C\nCDEF|'), { n: 2, d: 1 }), 100);
});

test('the dynamic in force at every moment; sforzandi change nothing that stays', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n!p!C !sfz!D E !f!F|!fp!G A B c|');
  const at = (n: number) => levelInForce(dynamicLevels(score), 0, { n, d: 1 })?.sign ?? null;
  assert.deepEqual([0, 1, 2, 3, 4].map(at), ['p', 'p', 'p', 'f', 'fp']);
});

test('places name beats as they are said', () => {
  assert.deepEqual(
    placesIn(abc('M:6/8\nL:1/16\nK:C\nA|C6 D6|'), 0, 0, 1).map((p) => p.label),
    ['upbeat, beat 6½', 'bar 1, beat 1', 'bar 1, beat 4']
  );
});

test('the brief of a long selection is a summary with the bars behind it', () => {
  const { score } = open(sample('Telemann.xml'));
  const text = brief(score, analyse(score), [], 0, 20);
  assert.ok(text.whatItIs.some((l) => /^Chords: \d+, most often I \(\d+\), /.test(l)));
  assert.ok(text.whatItIs.some((l) => /^half cadence in D major: \d times, in bars 4, /.test(l)));
  assert.ok(text.whatItIs.some((l) => /^a phrase begins: \d times, in bars 1, /.test(l)));
  assert.ok(text.whatThePageSays.some((l) => /^“Ob\.”: \d times, in bars /.test(l)));
  assert.ok([...text.whatItIs, ...text.whatThePageSays].length <= 20);
  // A few bars are told one by one.
  assert.ok(brief(score, analyse(score), [], 0, 3).whatThePageSays.some((l) => /^bar 1, beat \d: /.test(l)));
});
