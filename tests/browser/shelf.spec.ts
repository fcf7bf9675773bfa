import { expect, ownPiece, test, visit } from './fixtures';

test('what is taken off the shelf lies in the bin, comes back whole, and is removed for good only when that is said', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'A tune for the bin');
  const card = page.getByTestId('piece').filter({ hasText: 'A tune for the bin' });
  const takeOff = async (): Promise<void> => {
    await visit(page, '/');
    await card.getByRole('button', { name: 'Take off' }).click();
    await expect(page.getByText('It lies in the bin for 30 days')).toBeVisible();
    await page.getByRole('button', { name: 'Take it off' }).click();
    await expect(card).toBeHidden();
    await page.getByRole('link', { name: /^Bin/ }).click();
  };
  await takeOff();
  const binned = page.getByTestId('binned').filter({ hasText: 'A tune for the bin' });
  await binned.getByRole('button', { name: 'Put back on the shelf' }).click();
  await expect(binned).toBeHidden();
  await visit(page, '/');
  await expect(card).toBeVisible();
  await takeOff();
  await binned.getByRole('button', { name: 'Remove for good' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(binned).toBeHidden();
  await visit(page, '/');
  await expect(page.getByTestId('piece').first()).toBeVisible();
  await expect(card).toBeHidden();
});

test('all pieces come as one file', async ({ page }) => {
  await visit(page, '/');
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'All pieces as one file' }).click();
  expect((await saved).suggestedFilename()).toBe('Nuvelo, all pieces.zip');
});
