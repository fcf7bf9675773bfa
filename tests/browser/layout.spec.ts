import { drawn, expect, openRoom, test, visit } from './fixtures';
import type { Page } from '@playwright/test';

/**
 * Controls that leave what holds them, or lie under something else. Only what is in view counts, and only what is shown: a
 * control in a closed menu is none.
 */
const misplaced = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const HOLDERS = 'li, article, form, fieldset, section, aside, header, nav, [role=toolbar], .playbar';
    const faults: string[] = [];
    const controls = document.querySelectorAll<HTMLElement>('button, a[href], input:not([type=hidden]), select, textarea');
    for (const control of controls) {
      const box = control.getBoundingClientRect();
      const shown = control.checkVisibility({ visibilityProperty: true, opacityProperty: false }) && box.width > 2 && box.height > 2;
      const middle = [box.left + box.width / 2, box.top + box.height / 2] as const;
      const inView = middle[0] > 0 && middle[1] > 0 && middle[0] < innerWidth - 1 && middle[1] < innerHeight - 1;
      if (!shown || !inView || control.closest('.visually-hidden, .bx--visually-hidden')) continue;
      const name = (control.getAttribute('aria-label') ?? control.textContent ?? '').trim().slice(0, 40) || control.outerHTML.slice(0, 80);
      const holder = control.parentElement?.closest(HOLDERS);
      const frame = holder?.getBoundingClientRect();
      // What scrolls inside its holder may be cut there; what hangs in a menu belongs to the menu.
      const scrolls = holder && (holder.scrollHeight > holder.clientHeight + 1 || control.closest('.menu'));
      if (frame && (box.left < frame.left - 1 || box.right > frame.right + 1) && !control.closest('.menu'))
        faults.push(`“${name}” leaves its ${holder!.tagName.toLowerCase()} at the side`);
      if (frame && !scrolls && (box.top < frame.top - 1 || box.bottom > frame.bottom + 1))
        faults.push(`“${name}” leaves its ${holder!.tagName.toLowerCase()} above or below`);
      const top = document.elementFromPoint(...middle);
      const own = top && (control.contains(top) || top.contains(control) || top.closest('label')?.htmlFor === control.id);
      // Under the edge of a part that scrolls it is not covered but out of view.
      const clipped = (() => {
        for (let p = control.parentElement; p; p = p.parentElement) {
          const r = p.getBoundingClientRect();
          if (
            getComputedStyle(p).overflow !== 'visible' &&
            (middle[1] < r.top || middle[1] > r.bottom || middle[0] < r.left || middle[0] > r.right)
          )
            return true;
        }
        return false;
      })();
      if (!own && !clipped) faults.push(`“${name}” lies under ${top?.outerHTML.slice(0, 60)}`);
    }
    const wide = document.documentElement.scrollWidth - innerWidth;
    if (wide > 1) faults.push(`the page is ${wide} pixels wider than the window`);
    return faults;
  });

const SIZES = [
  [390, 844],
  [1024, 768],
  [1280, 800],
  [1920, 1080]
] as const;

test('on the shelf no control leaves its card or is covered, from a phone to a wide screen', async ({ page }) => {
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    await visit(page, '/');
    await expect(page.getByTestId('piece').first()).toBeVisible();
    expect(await misplaced(page), `at ${width}`).toEqual([]);
  }
});

for (const room of ['Survey', 'Structure', 'Reading', 'Hearing', 'Proof', 'Press'] as const)
  test(`in ${room} no control leaves its part or is covered`, async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await openRoom(page, 'Corrente', room);
    if (room === 'Reading') await drawn(page);
    for (const [width, height] of SIZES.slice(room === 'Press' ? 0 : 1)) {
      await page.setViewportSize({ width, height });
      await expect.poll(() => misplaced(page), { message: `at ${width}` }).toEqual([]);
    }
  });

test('typing a tune and the rules: no control is misplaced', async ({ page }) => {
  for (const address of ['/type', '/write', '/rules'])
    for (const [width, height] of SIZES.slice(1)) {
      await page.setViewportSize({ width, height });
      await visit(page, address);
      expect(await misplaced(page), `${address} at ${width}`).toEqual([]);
    }
});
