import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { intervalWords, parallelWords, shiftWords } from '../../../src/core/analysis/words.ts';
import { frac, toNumber, type Fraction } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { measureAt } from '../../../src/core/score/position.ts';
import { abc, open, sample } from '../helpers.ts';
import { f1, scorePiece, type Tally } from './scorer.ts';
import { RETURNS, scoreReturns, type FoundPlace } from './returns.ts';

const placesOf = (score: Score, facts: Facts): FoundPlace[] => {
  const bar = (at: Fraction): number => measureAt(score, at).index + 1;
  return facts.parallels.map((p) => ({
    a: [bar(p.a.start), bar(p.a.last)],
    b: [bar(p.b.start), bar(p.b.last)],
    shift: toNumber(p.shift)
  }));
};

for (const tuned of [true, false])
  test(`what returns is found, and little else (${tuned ? 'tuned half' : 'other half'})`, () => {
    let wanted = 0;
    let wrong = 0;
    let bars = 0;
    const missing: string[] = [];
    const sections: Tally = { right: 0, wanted: 0, claimed: 0 };
    for (const piece of RETURNS.filter((p) => p.tuned === tuned)) {
      const score = piece.score();
      const own = scoreReturns(piece, placesOf(score, analyse(score)));
      wanted += piece.returns.length;
      wrong += own.wrong.length;
      bars += score.measures.length;
      for (const m of own.missing) missing.push(`${piece.name}: ${m.a} and ${m.b}`);
      const tally = piece.sections ? scorePiece(piece).sections! : null;
      if (tally) for (const k of ['right', 'wanted', 'claimed'] as const) sections[k] += tally[k];
    }
    assert.ok(wanted >= 25);
    assert.ok(missing.length <= 0.05 * wanted, missing.join('; '));
    assert.ok(!missing.some((m) => m.includes('later')), 'displaced themes are all found');
    assert.ok(wrong <= (2 * bars) / 100, `${wrong} false in ${bars} bars`);
    assert.ok(f1(sections) >= 0.95, `sections ${f1(sections)}`);
  });

test('a theme displaced by an eighth is one place, told in one sentence', () => {
  const piece = RETURNS.find((p) => p.name.startsWith('an eighth later'))!;
  const { parallels } = analyse(piece.score());
  assert.equal(parallels.length, 1);
  assert.equal(parallelWords(parallels[0]), 'at the same pitch, an eighth later in the bar');
});

test('a canon: the second voice is the first one two bars later, an octave below', () => {
  // Bach, Invention 2, BWV 773: a canon at the octave to bar 10; agreed among editions.
  const score = open(sample('BWV_0773.xml')).score;
  const canon = analyse(score).parallels.find((p) => p.lines && p.transposition === '-P8' && p.weight > 6);
  assert.ok(canon);
  assert.deepEqual([measureAt(score, canon.a.start).number, measureAt(score, canon.b.start).number], ['1', '3']);
  assert.deepEqual(canon.lines, ['the upper staff', 'the lower staff']);
});

test('the figures of a prelude are no parallel places, its true answer is', () => {
  const bars = (chords: string[]) =>
    chords
      .map((c) => c.split(' '))
      .map(([a, b, c, d]) => `${a}${b}${c}${d}`.repeat(2))
      .join('|');
  const model = ['C E G c', 'C F A d', 'B, F G d', 'C E G c'];
  const other = ['A, E A c', 'D ^F A d', 'G, D G B', 'G, F G B', '^C G _B e', 'D F A d', '^D ^F A c', 'E ^G B d'];
  const facts = analyse(abc(`M:4/4\nL:1/8\nK:C\n${bars([...model, ...other, ...model])}|]`));
  assert.ok(facts.parallels.length <= 2, String(facts.parallels.length));
  assert.ok(facts.parallels.some((p) => toNumber(p.a.start) === 0 && toNumber(p.b.start) === 48));
});

test('sections: printed letters, another signature, and new material after a full close begin one', () => {
  const labels = (text: string) => {
    const score = abc(`M:4/4\nL:1/8\nK:C\n${text}`);
    return analyse(score).sections.map((s) => measureAt(score, s.start).number);
  };
  const first = 'c2ed c2G2|A2cB A4|G2FE D2EF|E4 C4|c2ed c2G2|A2cB A2B2|c2G2 A2B2|c8|';
  const second = 'EGBe gfed|c4 z2 ed|B2 z2 A2 z2|F2G2 F2D2|EGBe gfed|c2f2 e2d2|edcB c2d2|e4 z4';
  assert.deepEqual(labels(`${first.replace(/\|$/, '')}|[K:Eb]${second}|]`), ['1', '9']);
  // In one key without a sign the same bars are one stretch: the signature is what divides.
  const plain = second.replace(/e/g, 'd').replace(/E/g, 'D');
  assert.deepEqual(labels(`${first}${plain.replace(/B/g, '=B')}|]`).length, 1);
  assert.deepEqual(labels(`${first}[P:B]${plain.replace(/B/g, '=B')}|]`), ['1', '9']);
});

test('intervals and shifts in words', () => {
  assert.equal(intervalWords('P1'), 'at the same pitch');
  assert.equal(intervalWords('P5'), 'a fifth higher');
  assert.equal(intervalWords('-M2'), 'a major second lower');
  assert.equal(intervalWords('m7'), 'a minor seventh higher');
  assert.equal(intervalWords('-P8'), 'an octave lower');
  assert.equal(intervalWords('-M17'), '2 octaves and a major third lower');
  assert.equal(intervalWords('A4'), 'an augmented fourth higher');
  assert.equal(shiftWords(frac(1, 2)), 'an eighth later in the bar');
  assert.equal(shiftWords(frac(-1)), 'a quarter earlier in the bar');
  assert.equal(shiftWords(frac(0)), '');
});
