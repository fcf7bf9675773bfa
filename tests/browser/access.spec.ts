import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { demoPath } from '../unit/helpers';
import { drawn, expect, openRoom, saved, test, visit } from './fixtures';

/** What axe-core finds on the page as it stands, of some weight. */
async function findings(page: Page, rules?: string[]): Promise<string[]> {
  // Colours that are still turning from one page to the other are neither.
  await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished.catch(() => {}))));
  // The engraving is a picture with a name.
  const builder = new AxeBuilder({ page }).exclude('.system');
  const { violations } = await (rules ? builder.withRules(rules) : builder).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`);
}

for (const room of ['Survey', 'Structure', 'Reading', 'Hearing', 'Proof', 'Press', 'Rehearse'] as const)
  test(`no serious accessibility finding: ${room}, light and dark`, async ({ page }) => {
    await page.addInitScript(() => localStorage.setItem('nuvelo-theme', 'light'));
    await openRoom(page, 'Andantino', room);
    if (room === 'Hearing') await expect(page.getByTestId('explained').first()).toBeVisible();
    // A button that is being enabled has the colours of neither state.
    if (room === 'Hearing' || room === 'Reading') await expect(page.getByTestId('play')).toBeEnabled();
    expect(await findings(page)).toEqual([]);
    await page.getByRole('button', { name: 'Dark page' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    // Nothing but colours differs.
    expect(await findings(page, ['color-contrast', 'link-in-text-block'])).toEqual([]);
  });

for (const address of ['/', '/bin', '/type', '/write', '/rules', '/players', '/practice'])
  test(`no serious accessibility finding: ${address}`, async ({ page }) => {
    await visit(page, address);
    expect(await findings(page)).toEqual([]);
  });

test('no serious accessibility finding: the strip, the help, the guide', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await page.locator('.music').focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('strip')).toBeVisible();
  await expect(page.getByTestId('play')).toBeEnabled();
  expect(await findings(page)).toEqual([]);
  await page.keyboard.press('l');
  await expect(page.getByTestId('strip')).toContainText('mf');
  expect(await findings(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
  expect(await findings(page)).toEqual([]);
  await visit(page, '/guide');
  expect(await findings(page)).toEqual([]);
});

test('no serious accessibility finding: the writing room, at each of its stages', async ({ page }) => {
  await visit(page, '/write');
  await page.getByLabel('Title', { exact: true }).fill('Access');
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page.locator('[data-testid=written] .system[data-drawn=true]').first()).toBeVisible();
  await page.getByTestId('written').focus();
  for (const key of ['w', 'c', 'Escape']) {
    expect(await findings(page)).toEqual([]);
    await page.keyboard.press(key);
  }
  expect(await findings(page)).toEqual([]);
});

test.describe('a first visit', () => {
  test.use({ storageState: { cookies: [], origins: [] } });
  test('no serious accessibility finding: the way through the rooms', async ({ page }) => {
    await visit(page, '/');
    await expect(page.getByTestId('first-visit')).toBeVisible();
    expect(await findings(page)).toEqual([]);
  });
});

test('with the keyboard alone: from a file through every room to the files and the PDF', async ({ page }) => {
  test.setTimeout(300_000);
  // The browser hands choosers over only where somebody waits for them; from the beginning, so that none is missed.
  page.on('filechooser', () => {});
  await visit(page, '/');
  /** Tab until the element that has the focus matches. */
  const tabTo = async (matches: (name: string, tag: string) => boolean, back = false) => {
    for (let k = 0; k < 900; k++) {
      await page.keyboard.press(back ? 'Shift+Tab' : 'Tab');
      const [name, tag] = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement;
        const label = (e as HTMLInputElement).labels?.[0] ?? e.closest('label');
        return [e.getAttribute('aria-label') ?? (label?.textContent?.trim() || e.textContent?.trim()) ?? '', e.tagName];
      });
      if (matches(name, tag)) return;
    }
    throw new Error('nothing to tab to');
  };
  await tabTo((name, tag) => name === 'Import a score' && tag === 'BUTTON');
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Enter')]);
  const score = readFileSync(demoPath('etude.abc'), 'utf8').replace(/^T:.*$/m, 'T:Keys alone');
  await chooser.setFiles({ name: 'keys.abc', mimeType: 'text/plain', buffer: Buffer.from(score) });
  await page.waitForURL(/\/survey$/);
  await tabTo((name, tag) => name === 'Reading' && tag === 'A');
  await page.keyboard.press('Enter');
  await drawn(page);
  await tabTo((name) => name.startsWith('Score,'));
  for (let k = 0; k < 3; k++) await page.keyboard.press('Control+ArrowRight');
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 4');
  await page.keyboard.press('Control+Shift+ArrowRight');
  await expect(page.getByTestId('brief-title')).toHaveText('Bars 4 to 5');
  for (let k = 0; k < 17; k++) await page.keyboard.press('Control+ArrowRight');
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 22');
  await expect(page.getByTestId('proposal').first()).toBeVisible();
  const before = await page.getByTestId('open-count').textContent();
  await tabTo((name, tag) => name === 'Keep' && tag === 'BUTTON');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('open-count')).not.toHaveText(before!);
  await tabTo((name, tag) => name.startsWith('Kind') && tag === 'SELECT');
  await page.keyboard.type('Fer');
  await tabTo((name, tag) => name === 'Add' && tag === 'BUTTON');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('marking').filter({ hasText: 'Fermata' })).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('marking').filter({ hasText: 'Fermata' })).toHaveCount(0);
  await page.keyboard.press('Control+y');
  await expect(page.getByTestId('marking').filter({ hasText: 'Fermata' })).toHaveCount(1);
  await saved(page);
  await page.keyboard.press('Control+Home');
  await tabTo((name, tag) => name === 'Structure' && tag === 'A', true);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Harmony' })).toBeVisible();
  await drawn(page);
  await tabTo((name) => name.startsWith('Score,'));
  await tabTo((name, tag) => name === 'Set this key' && tag === 'BUTTON');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Corrections (1)' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('tab', { name: 'Corrections', exact: true })).toBeVisible();
  await saved(page);
  await tabTo((name, tag) => name === 'Press' && tag === 'A', true);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('sheet').first()).toBeVisible();
  await tabTo((name, tag) => name === 'Files' && tag === 'BUTTON');
  await page.keyboard.press('Enter');
  await tabTo((name, tag) => name === 'MusicXML' && tag === 'A');
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(download.suggestedFilename()).toMatch(/\.musicxml$/);
  await page.keyboard.press('Escape');
  await tabTo((name, tag) => name === 'PDF' && tag === 'BUTTON', true);
  const [paper] = await Promise.all([page.waitForEvent('download', { timeout: 60_000 }), page.keyboard.press('Enter')]);
  expect(paper.suggestedFilename()).toMatch(/\.pdf$/);
});
