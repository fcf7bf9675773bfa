import { drawn, expect, openRoom, test, visit } from './fixtures';

test.describe('a first visit', () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test('leads through the rooms with a piece, goes on after a reload, and can be left for good', async ({ page }) => {
    await visit(page, '/');
    const tour = page.getByTestId('first-visit');
    await expect(tour).toContainText('1 of 8');
    for (const room of ['Survey', 'Structure', 'Reading']) {
      await tour.getByRole('button', { name: `Next: ${room}` }).click();
      await expect(page).toHaveURL(new RegExp(`/pieces/\\d+/${room.toLowerCase()}`));
    }
    await drawn(page);
    await page.reload();
    await expect(tour).toContainText('4 of 8');
    await tour.getByRole('button', { name: 'Leave the tour' }).click();
    await expect(tour).toHaveCount(0);
    await page.reload();
    await drawn(page);
    await expect(tour).toHaveCount(0);
    await page.getByRole('button', { name: 'Help' }).click();
    await page.getByRole('button', { name: /two minutes/ }).click();
    await expect(tour).toContainText('1 of 8');
  });
});

test('help: keys by ?, signs explained, and the guide with its pictures', async ({ page }) => {
  await visit(page, '/');
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help' });
  await expect(help).toContainText('Grow');
  await help.getByRole('tab', { name: 'Signs and short names' }).click();
  await expect(help).toContainText('half cadence');
  await help.getByRole('link', { name: 'The guide' }).click();
  await expect(page.getByRole('heading', { name: 'The guide' })).toBeVisible();
  const picture = page.locator('.guide img').first();
  await picture.scrollIntoViewIfNeeded();
  await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(600);
});

test('signs are explained where they stand: on the page by the pointer, in the ribbon by keys', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Structure');
  const told = page.getByRole('tooltip');
  await page.locator('.music g.harm.chords').first().hover();
  await expect(told).toContainText('chords as Roman numerals');
  await page.keyboard.press('Escape');
  await expect(told).toHaveCount(0);
  await page.keyboard.press('Tab');
  await page.locator('[data-lane=form] .head').focus();
  await expect(told).toContainText('half cadence');
  await expect(page.locator('[data-lane=form] .head')).toHaveAttribute('aria-describedby', 'sign-explained');
  await page.keyboard.press('Tab');
  await expect(told).not.toContainText('half cadence');
});

test('music at once: the first systems stand in a room before the engraver has come', async ({ page }) => {
  await visit(page, '/');
  await page.getByTestId('piece').filter({ hasText: 'Étude' }).last().getByRole('link', { name: 'Reading', exact: true }).click();
  await drawn(page);
  const address = page.url();
  // The engraver never comes.
  await page.route(/engraver/, (route) => route.abort());
  await page.goto(address);
  const picture = page.getByTestId('first-picture').locator('img');
  await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.complete && i.naturalWidth > 0)).toBe(true);
  expect((await picture.boundingBox())!.height).toBeGreaterThan(200);
});
