import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { Way, type Question } from '../../../src/core/technique/cheapest.ts';

/** Prices of options by layer, and of steps between them. */
interface Prices {
  own: number[][];
  steps: number[][][];
}
const prices: fc.Arbitrary<Prices> = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 6 }).chain((widths) =>
  fc.record({
    own: fc.tuple(...widths.map((w) => fc.array(fc.integer({ min: 0, max: 9 }), { minLength: w, maxLength: w }))),
    steps: fc.tuple(
      ...widths
        .slice(1)
        .map((w, k) =>
          fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: w, maxLength: w }), { minLength: widths[k], maxLength: widths[k] })
        )
    )
  })
);

const question = ({ own, steps }: Prices, keys = false): Question<number> => ({
  layers: own.map((layer) => layer.map((_, o) => o)),
  own: (k, o, tally) => tally('own', own[k][o]),
  step: (k, a, b, tally) => tally('step', steps[k - 1][a][b]),
  ...(keys && { ownKey: (k: number) => JSON.stringify(own[k]), stepKey: (k: number) => JSON.stringify(steps[k - 1]) })
});

/** Every way there is. */
function* ways(own: number[][], k = 0): Generator<number[]> {
  if (k === own.length) yield [];
  else for (let o = 0; o < own[k].length; o++) for (const rest of ways(own, k + 1)) yield [o, ...rest];
}
const priceOf = ({ own, steps }: Prices, way: readonly number[]): number =>
  way.reduce((sum, o, k) => sum + own[k][o] + (k ? steps[k - 1][way[k - 1]][o] : 0), 0);

test('the cheapest of all ways is found, and the cheapest through each option', () => {
  fc.assert(
    fc.property(prices, (p) => {
      const all = [...ways(p.own)].map((way) => ({ way, price: priceOf(p, way) }));
      const way = new Way(question(p));
      assert.equal(way.total, Math.min(...all.map((w) => w.price)));
      assert.equal(priceOf(p, way.chosen), way.total);
      p.own.forEach((layer, k) =>
        layer.forEach((_, o) => assert.equal(way.totalThrough(k, o), Math.min(...all.filter((w) => w.way[k] === o).map((w) => w.price))))
      );
      assert.equal(new Way(question(p, true)).total, way.total, 'prices that are remembered are the same');
    })
  );
});

test('a detour goes through its option and costs what was said; every price has its reason', () => {
  fc.assert(
    fc.property(prices, fc.nat(5), fc.nat(3), (p, layer, option) => {
      const k = layer % p.own.length;
      const o = option % p.own[k].length;
      const way = new Way(question(p));
      const { from, options } = way.detour(k, o);
      assert.equal(options[k - from], o);
      const whole = way.chosen.map((c, n) => options[n - from] ?? c);
      assert.equal(priceOf(p, whole), way.totalThrough(k, o));
      const told = whole.flatMap((c, n) => way.costsAt(n, c, n ? whole[n - 1] : undefined)).reduce((sum, c) => sum + c.price, 0);
      assert.equal(told, way.totalThrough(k, o));
    })
  );
});

test('a cost that is added makes nothing cheaper', () => {
  fc.assert(
    fc.property(prices, fc.nat(5), fc.nat(3), fc.integer({ min: 1, max: 20 }), (p, layer, option, more) => {
      const k = layer % p.own.length;
      const dearer = { ...p, own: p.own.map((l, n) => (n === k ? l.map((x, o) => (o === option % l.length ? x + more : x)) : l)) };
      assert.ok(new Way(question(dearer)).total >= new Way(question(p)).total);
    })
  );
});

test('no layers, no way', () => {
  const way = new Way(question({ own: [], steps: [] }));
  assert.deepEqual([way.path, way.total], [[], 0]);
});
