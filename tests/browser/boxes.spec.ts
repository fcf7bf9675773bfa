import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import type { Page } from '@playwright/test';
import { sampleFiles } from '../unit/helpers';
import { expect, settled, test, visit } from './fixtures';

/** What stands on the page beside notes: words, signs, rows of analysis, syllables. */
const BESIDE = ['harm', 'dir', 'tempo', 'dynam', 'fing', 'reh', 'trill', 'mordent', 'turn', 'fermata', 'pedal', 'syl', 'hairpin', 'breath']
  .map((kind) => `g.${kind}`)
  .join(', ');

/**
 * In the systems that are drawn: things beside notes that stand on each other or on heads and rests by more than a trembling
 * of the layout, and systems that leave their line or do not fill it.
 */
const faults = (page: Page): Promise<string[]> =>
  page.evaluate((beside) => {
    /** Letters without the room above and below them that fonts keep free, as a share of their size. */
    const [LETTER, BELOW] = [0.7, 0.22];
    const [WIDE, HIGH] = [3, 3];
    const found: string[] = [];
    const systems = [...document.querySelectorAll<HTMLElement>('.music div.system')];
    for (const system of systems.filter((s) => s.dataset.drawn === 'true')) {
      const boxes: { name: string; owner: Element; box: DOMRect }[] = [];
      for (const sign of system.querySelectorAll(beside))
        for (const leaf of sign.querySelectorAll<SVGGraphicsElement>('tspan, path, use, polyline')) {
          const words = leaf.tagName === 'tspan';
          // Signs of the music font inside words have boxes as high as a line.
          if (words && (leaf.querySelector('tspan') || !leaf.textContent?.trim() || /[\uE000-\uF8FF\u266D-\u266F]/.test(leaf.textContent)))
            continue;
          let box = leaf.getBoundingClientRect();
          if (words) {
            const text = leaf.closest<SVGGraphicsElement>('text')!;
            const height = Math.min(box.height, parseFloat(getComputedStyle(leaf).fontSize) * text.getScreenCTM()!.a * LETTER);
            box = new DOMRect(box.left, box.bottom - box.height * BELOW - height, box.width, height);
          }
          boxes.push({ name: `${sign.classList[0]} “${(sign.textContent ?? '').trim()}”`, owner: sign, box });
        }
      const heads = [...system.querySelectorAll('g.notehead, g.rest')].map((owner) => ({
        name: `${owner.classList[0]} of ${owner.closest('g.measure')?.id}`,
        owner,
        box: owner.getBoundingClientRect()
      }));
      boxes.forEach((a, k) => {
        for (const b of [...boxes.slice(k + 1), ...heads]) {
          const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
          const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
          if (a.owner !== b.owner && wide > WIDE && high > HIGH)
            found.push(`${a.name} on ${b.name}, from bar index ${system.dataset.from}`);
        }
      });
      const line = system.getBoundingClientRect();
      const ends = [...system.querySelectorAll('g.system')].map((s) =>
        Math.max(...[...s.querySelectorAll('g.staff')].map((staff) => staff.getBoundingClientRect().right))
      );
      ends.forEach((end, k) => {
        if (end > line.right + 1) found.push(`the system from bar index ${system.dataset.from} leaves its line`);
        // Only the last of the piece may be short.
        if ((system !== systems.at(-1) || k < ends.length - 1) && end < line.right - 0.05 * line.width)
          found.push(
            `the system from bar index ${system.dataset.from} fills ${(((end - line.left) / line.width) * 100).toFixed(0)} % of its line`
          );
      });
    }
    return found;
  }, BESIDE);

/**
 * Each of the real scores once, not in both forms of file. Music without a meter is left out: the engraver crowds the notes
 * of a bar that has none.
 */
const SCORES = sampleFiles().filter((f) => f.endsWith('.xml') && /<time\b/.test(readFileSync(f, 'utf8')));
/** In two rows, so that two workers share them. */
for (const row of [0, 1])
  test(`nothing stands on anything else, systems fill their lines: real scores, ${row + 1} of 2`, async ({ page }) => {
    test.setTimeout(600_000);
    for (const file of SCORES.filter((_, k) => k % 2 === row)) {
      // A comment of its own, so that another test may bring in the same file.
      const data = Buffer.concat([readFileSync(file), Buffer.from('<!-- boxes -->')]);
      const made = await page.request.post(`/api/pieces?name=${basename(file)}`, { data, maxRetries: 2 });
      const piece = /"pieces":\[(\d+)/.exec(await made.text())?.[1];
      await visit(page, `/pieces/${piece}/structure`);
      await expect(page.locator('.music g.harm').first()).toBeAttached();
      await settled(page);
      expect.soft(await faults(page), basename(file)).toEqual([]);
    }
  });
