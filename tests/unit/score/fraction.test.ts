import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { add, cmp, div, format, frac, mul, parseFraction, sub, ZERO } from '../../../src/core/score/fraction.ts';

const fraction = fc.tuple(fc.integer({ min: -5000, max: 5000 }), fc.integer({ min: 1, max: 960 })).map(([n, d]) => frac(n, d));

test('sums and products of fractions obey the laws of arithmetic', () => {
  fc.assert(
    fc.property(fraction, fraction, fraction, (a, b, c) => {
      assert.deepEqual(add(a, b), add(b, a));
      assert.deepEqual(add(add(a, b), c), add(a, add(b, c)));
      assert.deepEqual(mul(a, add(b, c)), add(mul(a, b), mul(a, c)));
      assert.deepEqual(sub(add(a, b), b), a);
      if (b.n !== 0) assert.deepEqual(mul(div(a, b), b), a);
    })
  );
});

test('fractions are in lowest terms and compare like their values', () => {
  fc.assert(
    fc.property(fraction, fraction, (a, b) => {
      assert.ok(a.d > 0);
      assert.equal(Math.sign(cmp(a, b)), Math.sign(a.n / a.d - b.n / b.d));
    })
  );
});

test('what is written is read again', () => {
  fc.assert(fc.property(fraction, (a) => assert.deepEqual(parseFraction(format(a)), a)));
});

test('decimals are read exactly', () => {
  assert.deepEqual(parseFraction('0.1'), frac(1, 10));
  assert.deepEqual(parseFraction('-1.25'), frac(-5, 4));
  assert.deepEqual(parseFraction('.5'), frac(1, 2));
  assert.equal(parseFraction('a'), null);
  assert.equal(parseFraction('1/0'), null);
});

test('what cannot be held exactly is refused', () => {
  assert.throws(() => frac(1, 0), RangeError);
  assert.throws(() => add(frac(1, 94906267), frac(1, 94906266)), RangeError);
  assert.deepEqual(sub(frac(1, 3), frac(1, 3)), ZERO);
});
