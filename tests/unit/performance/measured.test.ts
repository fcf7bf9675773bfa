import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { LIMITS } from '../../../src/core/style/limits.ts';
import { compareRecordings, momentOf } from '../../../src/core/performance/recordings.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { rubatoOf, tappedBeats } from '../../../src/core/performance/tap.ts';
import { explainLoudness } from '../../../src/core/performance/explain.ts';
import { TAPS } from '../../../src/core/style/performance-weights.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { replay } from '../../../src/core/reading/log.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { abc } from '../helpers.ts';
import { playableOf, literal, readingOf } from './play.ts';

const playable = playableOf(abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCDEF|GABc|cBAG|FEDC|'));
const page = literal(playable);

/** Taps with the given length of each beat. */
const taps = (lengths: number[]): number[] => lengths.reduce<number[]>((t, l) => [...t, t[t.length - 1] + l], [5]);

test('even taps at another tempo are no rubato', () => {
  const beats = tappedBeats(page, 0, taps(new Array<number>(16).fill(0.8)));
  assert.equal(beats.length, 16);
  for (const b of beats) assert.ok(Math.abs(b.seconds - 0.8) < 1e-9);
  assert.ok(
    Object.values(rubatoOf(beats))
      .flat()
      .every((x) => x === 0)
  );
});

test('a slowing that is tapped and taken over is played; a slip is not', () => {
  const lengths = new Array<number>(16).fill(1);
  lengths[12] = 1.1;
  lengths[13] = 1.2;
  lengths[14] = 1.3;
  lengths[15] = 1.4;
  const clean = rubatoOf(tappedBeats(page, 0, taps(lengths)));
  assert.ok(clean[3][3] > clean[3][0] && clean[0][0] < 0);
  const p = perform(
    playable,
    readingOf('modern', { rubato: 'arch' }, { rubato: clean, amounts: { arch: 0, cadence: 0, 'phrase-end': 0 } })
  );
  assert.ok(p.bars[3].planned > 1.1 * p.bars[0].planned);
  assert.ok(p.bars[3].shares.some((s) => s.effect === 'own'));
  // One tap left out: a beat of double length.
  const slip = tappedBeats(page, 0, taps(lengths.map((l, k) => (k === 5 ? 4 : l))));
  assert.ok(slip[5].seconds < 1.2);
});

test('smoothing never leaves the range of what was tapped', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0.7, max: 1.4, noNaN: true }), { minLength: 3, maxLength: 16 }), (lengths) => {
      const beats = tappedBeats(page, 0, taps(lengths));
      for (const b of beats) assert.ok(b.seconds >= Math.min(...lengths) - 1e-9 && b.seconds <= Math.max(...lengths) + 1e-9);
    })
  );
});

test('recordings side by side: tempi and proportions by hand', () => {
  const recordings = [
    {
      id: 'a',
      label: 'the older one',
      times: [
        { measure: 0, seconds: 1 },
        { measure: 2, seconds: 9 },
        { measure: 4, seconds: 19 }
      ]
    },
    {
      id: 'b',
      label: 'the younger one',
      times: [
        { measure: 0, seconds: 0 },
        { measure: 4, seconds: 12 }
      ]
    }
  ];
  const { stretches, totals } = compareRecordings(playable.score, page, recordings);
  assert.deepEqual(totals, [18, 12]);
  // Eight quarters in eight seconds, then in ten.
  assert.equal(stretches[0].tempi[0], 60);
  assert.equal(stretches[1].tempi[0], 48);
  assert.equal(stretches[0].tempi[1], null);
  assert.ok(Math.abs(stretches[1].shares[0]! - 10 / 18) < 1e-9);
  assert.ok(Math.abs(stretches[0].literal - 60) < 1e-6);
});

test('amounts, pulls, rubato and recordings are acts of the reading, and are taken back', () => {
  const range = { from: frac(0), to: frac(4) };
  const log: Command[] = [
    { type: 'set-amount', effect: 'arch', amount: 0.5, range: null },
    { type: 'set-amount', effect: 'arch', amount: 2, range },
    { type: 'pull-time', measure: 1, ratio: 1.25 },
    { type: 'take-rubato', bars: { 0: [0.1, 0] } },
    { type: 'keep-recording', id: 'r', recording: { id: 'r', label: 'one', times: [] } }
  ];
  const reading = replay(log);
  assert.deepEqual(reading.amounts, { arch: 0.5 });
  assert.equal(reading.localAmounts[0].amount, 2);
  assert.equal(reading.recordings.length, 1);
  const p = perform(playable, { ...reading, period: 'modern' });
  assert.ok(Math.abs(p.bars[1].shares.find((s) => s.effect === 'pulled')!.amount - 1) < 1e-6);
  const back = replay([
    ...log,
    { type: 'set-amount', effect: 'arch', amount: null, range: null },
    { type: 'set-amount', effect: 'arch', amount: null, range },
    { type: 'pull-time', measure: 1, ratio: null },
    { type: 'take-rubato', bars: null },
    { type: 'keep-recording', id: 'r', recording: null }
  ]);
  assert.deepEqual(back, EMPTY_READING);
  assert.deepEqual(replay([...log, ...log.map(() => ({ type: 'undo' }) as Command)]), EMPTY_READING);
});

test('loudness is told with its reasons', () => {
  const p = perform(playable, readingOf('baroque'));
  assert.match(explainLoudness(p.loudness[0]), /^[+−][\d.]+ dB, marks alone \+0\.0: /);
});

test('however wild the taps, what is taken over stays within what a reading may hold', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0.01, max: 30, noNaN: true }), { minLength: 2, maxLength: 16 }), (lengths) => {
      const bars = rubatoOf(tappedBeats(page, 0, taps(lengths)));
      for (const x of Object.values(bars).flat()) assert.ok(x >= TAPS.least - 1 && x <= TAPS.most - 1);
    })
  );
});

test('too few taps, or taps beyond the end, make no beats of their own', () => {
  assert.deepEqual(tappedBeats(page, 0, []), []);
  assert.deepEqual(tappedBeats(page, 0, [1]), []);
  assert.equal(tappedBeats(page, 14, taps(new Array<number>(9).fill(1))).length, 2);
});

test('recordings with nothing to compare, or times that run backwards, give no tempo and no fault', () => {
  const one = (times: { measure: number; seconds: number }[]) => compareRecordings(playable.score, page, [{ id: 'a', label: 'a', times }]);
  assert.deepEqual(one([]).stretches, []);
  assert.deepEqual(one([{ measure: 0, seconds: 5 }]).totals, [null]);
  assert.equal(
    one([
      { measure: 0, seconds: 9 },
      { measure: 2, seconds: 3 }
    ]).stretches[0].tempi[0],
    null
  );
  assert.deepEqual(
    one([
      { measure: 90, seconds: 1 },
      { measure: 99, seconds: 3 }
    ]).stretches,
    []
  );
});

test('a moment of a recording as it is written, and one sentence where it is none', () => {
  assert.equal(momentOf('67.5'), 67.5);
  assert.equal(momentOf(' 1:07,5 '), 67.5);
  assert.equal(momentOf('1:02:03'), 3723);
  assert.equal(momentOf('90'), 90);
  assert.match(String(momentOf('soon')), /“soon” is no time/);
  assert.match(String(momentOf('1:75')), /In “1:75” the seconds are more than a minute holds/);
  assert.match(String(momentOf('1:60:00')), /minutes are more than an hour holds/);
  assert.match(String(momentOf('99999999')), /more than the ten hours/);
  assert.equal(momentOf(String(LIMITS.recording)), LIMITS.recording);
});
