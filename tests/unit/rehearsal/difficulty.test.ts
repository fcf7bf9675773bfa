import assert from 'node:assert/strict';
import { test } from 'node:test';
import { DIFFICULTY_PARTS, hotSpots, type BarDifficulty } from '../../../src/core/rehearsal/difficulty.ts';
import { abc } from '../helpers.ts';
import { contextOf } from './made.ts';

const bars = (text: string): readonly BarDifficulty[] => contextOf(abc(text)).difficulty;
const FLUTE = 'M:4/4\nL:1/8\nQ:1/4=100\nV:1 nm="Flute"\nK:C\n';

test('each part grows with what it is of: handbook 21.1', () => {
  const grows = (
    part: BarDifficulty['parts'] extends Record<infer P, number> ? P : never,
    easy: string,
    hard: string,
    head = FLUTE
  ): void => {
    const [a, b] = bars(`${head}${easy}|${hard}|`);
    assert.ok(b.parts[part] > a.parts[part], `${part}: ${a.parts[part]} and ${b.parts[part]}`);
  };
  grows('speed', 'c4d4', 'c/d/e/f/g/a/b/a/ g/f/e/d/c/B/A/G/');
  grows('leaps', 'cdefgfed', "cc'cc'cc'cc'");
  grows('accidentals', 'cdefgfed', 'c^cd^de^f^g^a');
  grows('rhythm', 'c2c2c2c2', 'c3d/e/ f2 g/a3/');
  grows('extremes', 'cdefgfed', "c''2b'2c''2b'2");
  grows('crossings', 'd2e2f2g2', 'G,eG,eG,eG,e', FLUTE.replace('Flute', 'Violin'));
  grows('span', '[CE]4[DF]4', '[Ca]4[Db]4', FLUTE.replace('Flute', 'Piano'));
  grows('soft-high', '!p!cdefgfed', "c''2b'2c''2b'2");
});

test('all values are from 0 to 1; a bar of rest is nothing', () => {
  for (const b of bars(`${FLUTE}z8|c'c,c'c,c'c,c'c,|c/4d/4e/4f/4g/4a/4b/4c'/4d6|`)) {
    for (const part of DIFFICULTY_PARTS) assert.ok(b.parts[part] >= 0 && b.parts[part] <= 1, part);
    assert.ok(b.value >= 0 && b.value <= 1);
  }
  assert.equal(bars(`${FLUTE}z8|cdefgfed|`)[0].value, 0);
});

test('hot spots are runs of hard bars with a bar before and after, cut where a phrase begins', () => {
  const bar = (measure: number, value: number): BarDifficulty => ({
    measure,
    value,
    parts: { ...(Object.fromEntries(DIFFICULTY_PARTS.map((p) => [p, 0])) as BarDifficulty['parts']), leaps: value }
  });
  const values = [0.1, 0.1, 0.1, 0.8, 0.8, 0.1, 0.1, 0.1, 0.8, 0.8, 0.1, 0.1].map((v, k) => bar(k, v));
  const joins = (starts: number[] = [], walls: number[] = []) => ({ phraseStarts: new Set(starts), walls: new Set(walls) });
  const spans = (starts: number[], walls: number[] = []): number[][] => hotSpots(values, joins(starts, walls)).map((s) => [s.from, s.to]);
  assert.deepEqual(spans([]), [
    [2, 5],
    [7, 10]
  ]);
  assert.deepEqual(spans([4]), [
    [2, 4],
    [3, 5],
    [7, 10]
  ]);
  // Behind a repeat one does not begin with the bar that is printed before it.
  assert.deepEqual(spans([], [3, 10]), [
    [3, 5],
    [7, 9]
  ]);
  assert.deepEqual(hotSpots(values, joins())[0].why, ['leaps']);
  assert.deepEqual(hotSpots([bar(0, 0.1), bar(1, 0.1)], joins()), [], 'nothing is hard in an easy piece');
});
