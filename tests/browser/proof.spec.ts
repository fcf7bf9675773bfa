import { drawn, expect, ownPiece, openRoom, saved, test } from './fixtures';

test('findings are walked through with one key, each beside its bars of music, and mended in place', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Walked through');
  await openRoom(page, 'Walked through', 'Reading');
  // Levels without a reason, against each other.
  await page.locator('.music').focus();
  await page.keyboard.press('Home');
  for (const level of ['7', '4', '8']) {
    await page.keyboard.press('l');
    await page.keyboard.press(level);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+ArrowRight');
  }
  await saved(page);
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  const findings = page.getByTestId('finding');
  await expect(findings.nth(1)).toBeVisible();
  const bars = page.getByTestId('finding-bars');
  await expect(bars.locator('g.measure').first()).toBeVisible();
  await expect(findings.first()).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('n');
  await expect(findings.nth(1)).toHaveAttribute('aria-current', 'true');
  await expect(bars.locator('g.measure rect.tint').first()).toBeAttached();
  await page.keyboard.press('p');
  await expect(findings.first()).toHaveAttribute('aria-current', 'true');
  const before = await findings.count();
  await findings.first().getByRole('button', { name: 'It stands, because …' }).click();
  await page.getByLabel('Accepted because').fill('the hall is dry');
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(findings).toHaveCount(before - 1);
  await bars.getByRole('button', { name: 'Go to the bar' }).click();
  await drawn(page);
  await expect(page).toHaveURL(/reading/);
});

test('on a phone Reading is read from above, and nothing runs out at the side', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const room of ['Survey', 'Structure', 'Reading', 'Hearing', 'Proof', 'Press'] as const) {
    await openRoom(page, 'Andantino', room);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(over, room).toBeLessThanOrEqual(0);
  }
});
