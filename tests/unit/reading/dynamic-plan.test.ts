import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { dynamicPlan, levelDb, levelName, levelOf } from '../../../src/core/reading/dynamic-plan.ts';
import { abc } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nV:1 name="Flute"\nK:C\n';
const score = abc(`${HEAD}!p!c d e f|!<(!g a b!<)! c'|!f!c' b a g|!p!f e d c|c d e f|g f e d|c4|]`);
const facts = analyse(score);
const reading = (rest: Partial<Reading> = {}): Reading => ({ ...EMPTY_READING, period: 'modern', ...rest });
const shaped = (plan: Partial<Reading['plan']>) => dynamicPlan(score, facts, reading({ plan: { ...EMPTY_READING.plan, ...plan } }));

test('levels hold, a hairpin goes from the level in force to the next mark, and tells its room', () => {
  const plan = dynamicPlan(score, facts, reading());
  const [h] = plan.hairpins;
  assert.ok(Math.abs(h.from - 3) < 0.2 && Math.abs(h.to - 6) < 0.2, `${h.from} to ${h.to}`);
  assert.ok(Math.abs(h.room - 3) < 0.3);
  assert.ok(Math.abs(plan.bars[2].level - 6) < 0.2);
  assert.equal(plan.peak.measure, 1 + 1);
});

test('a pulled bar stands where it was pulled to and eases off within two bars', () => {
  const before = dynamicPlan(score, facts, reading());
  const plan = shaped({ levels: { 5: 5 } });
  assert.ok(Math.abs(plan.bars[5].level - 5) < 1e-9);
  assert.ok(plan.bars[4].level > before.bars[4].level);
  assert.ok(Math.abs(plan.bars[1].level - before.bars[1].level) < 1e-9);
  assert.ok(plan.bars[5].pulled && !plan.bars[4].pulled);
});

test('a peak that is set is louder than every other bar by half a step', () => {
  const plan = shaped({ peak: 5 });
  assert.equal(plan.peak.measure, 5);
  for (const b of plan.bars) if (Math.abs(b.measure - 5) > 2) assert.ok(plan.bars[5].level - b.level >= 0.5 - 1e-9, `bar ${b.measure}`);
});

test('nothing goes over a ceiling, and what is soft stays soft', () => {
  const plan = shaped({ ceiling: 5 });
  assert.ok(plan.loudest <= 5 + 1e-9);
  assert.ok(Math.abs(plan.bars[0].level - dynamicPlan(score, facts, reading()).bars[0].level) < 1e-9);
});

test('whatever is pulled, levels stay on the scale and in order of time', () => {
  fc.assert(
    fc.property(
      fc.dictionary(fc.integer({ min: 0, max: 6 }).map(String), fc.double({ min: 0, max: 9, noNaN: true })),
      fc.option(fc.integer({ min: 0, max: 6 })),
      fc.option(fc.double({ min: 1, max: 9, noNaN: true })),
      (levels, peak, ceiling) => {
        const { points } = shaped({ levels: levels as Record<number, number>, peak, ceiling });
        points.forEach((p, k) => {
          assert.ok(p.level >= 0 && p.level <= 9);
          assert.ok(k === 0 || p.time >= points[k - 1].time);
        });
      }
    )
  );
});

test('editorial hairpins without a goal do not add up: the level in force comes back', () => {
  const dim = (k: number, bar: number, quarters: number): Reading['markings'][number] => ({
    id: `h${k}`,
    kind: 'hairpin',
    value: 'diminuendo',
    part: 0,
    staff: 1,
    start: score.measures[bar].start,
    end: { n: score.measures[bar].start.n + quarters, d: 1 },
    because: []
  });
  const plan = dynamicPlan(score, facts, reading({ markings: [dim(0, 3, 2), dim(1, 4, 2), dim(2, 5, 2)] }));
  assert.ok(plan.softest > 2, `${plan.softest}`);
  // The arch of a phrase may shade it by a little.
  assert.ok(Math.abs(plan.bars[6].level - dynamicPlan(score, facts, reading()).bars[6].level) < 0.2);
});

test('levels have names in the piece’s own signs, and decibels beside them', () => {
  assert.equal(levelName(5), 'mf');
  assert.equal(levelName(5.4), 'mf+');
  assert.equal(levelName(2.7), 'p−');
  // Five decibels a step: handbook 5.1, from memory.
  assert.equal(levelDb(6), 5);
  assert.equal(
    levelOf(
      [
        { time: 0, level: 2 },
        { time: 4, level: 4 }
      ],
      1
    ),
    2.5
  );
});
