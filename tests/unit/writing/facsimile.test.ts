import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { barRegions, proposeCuts, type GreyPage } from '../../../src/core/writing/facsimile.ts';

/** A drawn page: systems of staves, with bar lines at given columns, on paper that is not quite white. */
function page(systems: { tops: number[]; bars: number[] }[], width = 600, height = 800, paper = 235, ink = 40): GreyPage {
  const data = new Uint8Array(width * height).fill(paper);
  const dot = (x: number, y: number): void => {
    data[y * width + x] = ink;
  };
  const [LEFT, RIGHT, SPACE] = [40, 560, 8];
  for (const { tops, bars } of systems) {
    for (const top of tops) for (let line = 0; line < 5; line++) for (let x = LEFT; x <= RIGHT; x++) dot(x, top + line * SPACE);
    const bottom = tops.at(-1)! + 4 * SPACE;
    for (const x of [...(tops.length > 1 ? [LEFT] : []), ...bars, RIGHT]) for (let y = tops[0]; y <= bottom; y++) dot(x, y);
    // Stems and heads, which are no bar lines.
    // A stem as long as the staff, with its head at the lowest line.
    for (const top of tops.slice(0, 1)) {
      for (let y = top; y <= top + 34; y++) dot(300, y);
      for (let y = top + 28; y < top + 37; y++) for (let x = 289; x < 301; x++) dot(x, y);
    }
    for (const x of [90, 150, 333]) for (let y = tops[0] + 6; y < tops[0] + 30; y++) dot(x, y);
  }
  return { width, height, data };
}
const rounded = (lines: number[], width = 600): number[] => lines.map((l) => Math.round(l * width));

test('a page falls into systems and bars: one staff, and two that are joined', () => {
  const cuts = proposeCuts(
    page([
      { tops: [100], bars: [200, 380] },
      { tops: [300, 370], bars: [250] },
      { tops: [600], bars: [] }
    ])
  );
  assert.deepEqual(
    cuts.map((s) => rounded(s.lines)),
    [
      [40, 200, 380, 560],
      [40, 250, 560],
      [40, 560]
    ]
  );
  assert.ok(cuts.every((s, k) => s.bottom > s.top && (k === 0 || cuts[k - 1].bottom <= s.top + 1e-9)));
  const regions = barRegions([cuts]);
  assert.equal(regions.length, 6);
  assert.ok(
    regions.every((r, k) => !k || regions[k - 1].top === r.top || regions[k - 1].bottom <= r.top + 1e-9),
    'what is shown of two systems does not overlap'
  );
  assert.ok(regions[3].top * 800 < 300 && regions[3].bottom * 800 > 402, 'both staves of a system belong to its bars');
});

test('a page without staves is not cut', () => {
  assert.deepEqual(proposeCuts({ width: 100, height: 100, data: new Uint8Array(10_000).fill(240) }), []);
});

test('bars stand in the order of reading, whatever the order in which they were cut', () => {
  const system = fc.record({
    top: fc.double({ min: 0, max: 0.4, noNaN: true }),
    bottom: fc.double({ min: 0.5, max: 1, noNaN: true }),
    lines: fc.uniqueArray(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 6 })
  });
  fc.assert(
    fc.property(fc.array(fc.array(system, { maxLength: 4 }), { maxLength: 3 }), (pages) => {
      const regions = barRegions(pages);
      assert.equal(
        regions.length,
        pages.flat().reduce((n, s) => n + s.lines.length - 1, 0)
      );
      for (const [k, r] of regions.entries()) {
        assert.ok(r.right >= r.left);
        const next = regions[k + 1];
        if (next) assert.ok(next.page > r.page || next.top > r.top || (next.top === r.top && next.left >= r.left) || next.top >= r.top);
      }
    })
  );
});

test('proposed cuts follow the drawn page, light or dark', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(
        fc.integer({ min: 90, max: 530 }).filter((x) => [90, 150, 295, 333].every((stem) => Math.abs(x - stem) > 14)),
        { maxLength: 5, selector: (x) => Math.floor(x / 40) }
      ),
      fc.integer({ min: 180, max: 255 }),
      fc.integer({ min: 0, max: 80 }),
      (bars, paper, ink) => {
        const sorted = [...bars].sort((a, b) => a - b).filter((x, k, all) => k === 0 || x - all[k - 1] > 14);
        const [system] = proposeCuts(page([{ tops: [200], bars: sorted }], 600, 400, paper, ink));
        assert.deepEqual(rounded(system.lines), [40, ...sorted, 560]);
      }
    ),
    { numRuns: 40 }
  );
});
