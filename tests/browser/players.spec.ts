import AxeBuilder from '@axe-core/playwright';
import { expect, openRoom, ownPiece, saved, test, visit } from './fixtures';

test('a player is added, told of, undone; what cannot be is named; a reading is for a player whose breath counts', async ({ page }) => {
  await visit(page, '/players');
  await page.getByLabel('Another player').fill('Nora Brandt');
  await page.getByLabel('Another player').press('Enter');
  const nora = page.getByRole('region', { name: 'Nora Brandt' });
  await nora.getByLabel('plays the').selectOption('clarinet');
  await nora.getByLabel('Seconds on one breath').fill('900');
  await nora.getByLabel('Seconds on one breath').press('Tab');
  await expect(nora.getByRole('alert')).toHaveText('A number from 1 to 60, or nothing.');
  await nora.getByLabel('Seconds on one breath').fill('3');
  await nora.getByLabel('Seconds on one breath').press('Tab');
  await expect(nora.getByRole('alert')).toHaveCount(0);
  await nora.getByLabel('Own fingering of').fill('F#4');
  await nora.getByLabel('is', { exact: true }).fill('T sF#');
  await nora.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(nora.getByRole('listitem')).toContainText('F#4: T sF#');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(nora.getByRole('listitem')).toHaveCount(0);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(nora.getByRole('listitem')).toHaveCount(1);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Nora Brandt' }).getByLabel('Seconds on one breath')).toHaveValue('3');

  await ownPiece(page, 'etude.abc', 'Etude for Nora');
  await openRoom(page, 'Etude for Nora', 'Survey');
  await expect(page.getByTestId('asks')).toContainText(/about 14 s are usual/);
  await page.getByTestId('for-whom').selectOption({ label: 'Nora Brandt' });
  await expect(page.getByTestId('asks')).toContainText('Nora Brandt has about 3 s');
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await saved(page);

  // Who is taken away stays the one that the reading names.
  await visit(page, '/players');
  await page.getByRole('button', { name: 'Take Nora Brandt away' }).click();
  await expect(page.getByRole('region', { name: 'Nora Brandt' })).toHaveCount(0);
  await openRoom(page, 'Etude for Nora', 'Survey');
  await expect(page.getByTestId('for-whom').locator('option:checked')).toHaveText('Nora Brandt (not among your players)');
  await expect(page.getByTestId('asks')).toContainText(/about 14 s are usual/);
});
