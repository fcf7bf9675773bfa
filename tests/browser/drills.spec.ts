import { readFileSync } from 'node:fs';
import { readMusicXml } from '../../src/core/score/musicxml/read';
import { expect, openRoom, test } from './fixtures';

test('practice material of the chosen bars: offered with its reason, engraved, heard, saved as a score', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await page.locator('.music').focus();
  for (let k = 0; k < 22; k++) await page.keyboard.press('Control+ArrowRight');
  for (let k = 0; k < 2; k++) await page.keyboard.press('Control+Shift+ArrowRight');
  const drills = page.getByTestId('drills');
  await drills.getByRole('button', { name: 'Make practice material of these bars …' }).click();
  const bow = drills.locator('article', { hasText: 'The bow on open strings' });
  await expect(bow).toContainText(/the bow goes over \d strings/);
  await bow.getByRole('button', { name: 'Show' }).click();
  await expect(bow.locator('.system svg').first()).toBeVisible();
  const sounded = page.evaluate(() => new Promise((done) => addEventListener('nuvelo-scheduled', () => done(true), { once: true })));
  await bow.getByRole('button', { name: 'Hear' }).click();
  expect(await sounded).toBe(true);
  await bow.getByRole('button', { name: 'Stop' }).click();
  // Set otherwise it is another sheet, and the other way round another kind.
  const pairs = drills.locator('article', { hasText: 'Added from the end' });
  if (await pairs.count()) {
    await pairs.getByRole('button', { name: 'More: times' }).click();
    await expect(pairs.getByTestId('repeats')).toHaveText('2');
    await pairs.getByRole('button', { name: 'The other way round' }).click();
    await expect(drills.locator('article', { hasText: 'Added from the front' }).first()).toBeVisible();
  }
  const midi = page.waitForEvent('download');
  await bow.getByRole('button', { name: 'MIDI' }).click();
  expect((await midi).suggestedFilename()).toMatch(/\.mid$/);
  const tempo = Number(await bow.getByTestId('tempo').textContent());
  await bow.getByRole('button', { name: 'Faster' }).click();
  const quicker = Number(await bow.getByTestId('tempo').textContent());
  expect(quicker).toBeGreaterThan(tempo);
  const download = page.waitForEvent('download');
  await bow.getByRole('button', { name: 'MusicXML' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toMatch(/^bow-alone-bars-\d+-\d+\.musicxml$/);
  const saved = readFileSync((await file.path())!, 'utf8');
  expect(readMusicXml(saved).notes.length).toBeGreaterThan(5);
  expect(saved).toContain(`<sound tempo="${quicker}"/>`);
  // Other bars, other material.
  await page.locator('.music').focus();
  await page.keyboard.press('Control+ArrowLeft');
  await expect(drills.getByRole('button', { name: 'Make practice material of this bar …' })).toBeVisible();
});
