import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { clicksOf, indexAt, placeAt, secondsAt, spanOf } from '../../../src/core/performance/transport.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { MOMENTS } from '../../../src/core/search.ts';
import { timeActIn } from '../../../src/core/style/terms/read-words.ts';
import { instrumentOf } from '../../../src/core/style/instruments/instrument-of.ts';
import { brightnessOf } from '../../../src/core/performance/loudness.ts';
import { abc, demo } from '../helpers.ts';
import { drafted, playableOf, literal } from './play.ts';

const near = (a: number, b: number): void => assert.ok(Math.abs(a - b) < 1e-6, `${a} is not ${b}`);

test('a place outlives a new version: the same bar, as far into it, as often played', () => {
  const playable = playableOf(demo('corrente.abc').score);
  const [plan, page] = [perform(playable, drafted(playable, 'baroque')), literal(playable)];
  fc.assert(
    fc.property(fc.double({ min: 0, max: 0.999, noNaN: true }), (share) => {
      const seconds = share * plan.length;
      const place = placeAt(plan, seconds);
      near(secondsAt(plan, place), seconds);
      const other = placeAt(page, secondsAt(page, place));
      assert.deepEqual([other.measure, other.pass], [place.measure, place.pass]);
    })
  );
  const span = spanOf(plan, 3, 5);
  assert.equal(plan.bars[indexAt(plan.bars, span.from + 1e-6)].measure, 3);
  assert.equal(plan.bars[indexAt(plan.bars, span.to - 1e-6)].measure, 5);
});

test('clicks fall on the felt beats, on their parts, and where swing puts these', () => {
  const simple = playableOf(abc('M:3/4\nL:1/4\nQ:1/4=60\nK:C\nCDE|FGA|'));
  const beats = clicksOf(simple.score, literal(simple), 'beats');
  assert.deepEqual(
    beats.map((c) => [c.at, c.weight]),
    [
      [0, 2],
      [1, 1],
      [2, 1],
      [3, 2],
      [4, 1],
      [5, 1]
    ]
  );
  const parts = clicksOf(simple.score, literal(simple), 'parts');
  assert.equal(parts.length, 12);
  near(parts[1].at, 0.5);
  near(clicksOf(simple.score, literal(simple), 'parts', 'two-to-one')[1].at, 2 / 3);
  // 6/8 is felt in dotted beats, each of three parts.
  const compound = playableOf(abc('M:6/8\nL:1/8\nQ:3/8=60\nK:C\nCDE FGA|'));
  assert.equal(clicksOf(compound.score, literal(compound), 'beats').length, 2);
  assert.equal(clicksOf(compound.score, literal(compound), 'parts').length, 6);
});

test('additive meters click by their groups', () => {
  const seven = playableOf(abc('M:7/8\nL:1/8\nQ:1/8=120\nK:C\nC2 D2 E3|C2 D2 E3|'));
  const heads = clicksOf(seven.score, literal(seven), 'beats').filter((c) => c.at < 3.4);
  assert.deepEqual(
    heads.map((c) => Math.round(c.at * 2)),
    [0, 2, 4]
  );
  const all = clicksOf(seven.score, literal(seven), 'parts').filter((c) => c.at < 3.4);
  assert.deepEqual(
    all.map((c) => c.weight),
    [2, 0, 1, 0, 1, 0, 0]
  );
});

test('words of tempo in several languages; what does nothing to the time is left alone', () => {
  const cases: [string, object | null][] = [
    ['rit.', { kind: 'slow', size: 'plain' }],
    ['poco rall.', { kind: 'slow', size: 'little' }],
    ['molto ritardando', { kind: 'slow', size: 'much' }],
    ['accel. poco a poco', { kind: 'fast', size: 'plain' }],
    ['poco più mosso', { kind: 'new', way: 1, size: 'little' }],
    ['Meno mosso', { kind: 'new', way: -1, size: 'plain' }],
    ['a tempo', { kind: 'restore' }],
    ['Tempo I', { kind: 'restore' }],
    ['riten.', { kind: 'at once' }],
    ['cédez', { kind: 'slow', size: 'little' }],
    ['zögernd', { kind: 'slow', size: 'plain' }],
    ['wait a little', { kind: 'wait' }],
    ['morendo', { kind: 'slow', size: 'little' }],
    ['on the G string', null],
    ['strings alone', null],
    ['string. molto', { kind: 'fast', size: 'much' }],
    ['dolce', null],
    ['with F# and D#', null]
  ];
  for (const [text, expected] of cases) assert.deepEqual(timeActIn(text), expected, text);
  // Calando alone acts on loudness only in Mozart's time (handbook 7.5).
  assert.deepEqual(timeActIn('calando'), { kind: 'slow', size: 'little' });
  assert.equal(timeActIn('calando', true), null);
  assert.deepEqual(timeActIn('smorzando', true), { kind: 'slow', size: 'little' });
});

test('sounds are chosen by the names of instruments, the nearest where none is there', () => {
  const score = abc('K:C\nCDEF|');
  const of = (name: string) => {
    const { samples, program } = instrumentOf(score, { ...score.parts[0], name });
    return [samples, program];
  };

  assert.deepEqual(of('Violin I'), ['violin', 40]);
  assert.deepEqual(of('Clarinet in B flat'), ['clarinet', 71]);
  assert.deepEqual(of('Bassoon'), ['bassoon', 70]);
  assert.deepEqual(of('Oboe'), ['clarinet', 68]);
  assert.deepEqual(of('Horn in F'), ['french-horn', 60]);
  assert.deepEqual(of('Violoncello'), ['cello', 42]);
  assert.deepEqual(of(''), ['piano', 0]);
});

test('brightness grows with loudness and stays between 0 and 1', () => {
  fc.assert(
    fc.property(fc.double({ min: -60, max: 60, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true }), (db, more) => {
      const [a, b] = [brightnessOf(db), brightnessOf(db + more)];
      assert.ok(a >= 0 && b <= 1 && b >= a);
    })
  );
});

test('what begins when is found as by going through the list', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 20 }), { maxLength: 30 }), fc.integer({ min: -2, max: 22 }), (list, moment) => {
      const times = list.sort((a, b) => a - b);
      const first = times.findIndex((t) => t >= moment);
      assert.equal(MOMENTS.firstFrom(times, moment), first < 0 ? times.length : first);
      assert.equal(
        MOMENTS.lastBegun(times, moment),
        Math.max(
          0,
          times.findLastIndex((t) => t <= moment)
        )
      );
    })
  );
});
