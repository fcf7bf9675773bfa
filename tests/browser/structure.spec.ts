import { drawn, expect, openRoom, ownPiece, saved, test } from './fixtures';

test('form: sections on the ribbon and in the panel; one is renamed, and taken back', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Structure');
  await drawn(page);
  await page.getByRole('tab', { name: 'Form' }).click();
  await expect(page.locator('.ribbon .section-name')).toHaveText(['A', 'B', 'A′']);
  await expect(page.getByTestId('section-fact')).toContainText('A from bar 1');
  await page.locator('.music').focus();
  for (let k = 0; k < 8; k++) await page.keyboard.press('ArrowRight');
  await page.getByTestId('section-label').fill('C');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(page.locator('.ribbon .section-name')).toHaveText(['A', 'C', 'A′']);
  await saved(page);
  await page.reload();
  await expect(page.locator('.ribbon .section-name')).toHaveText(['A', 'C', 'A′']);
  await page.getByRole('tab', { name: 'Corrections (1)' }).click();
  await page.getByRole('button', { name: 'take back' }).click();
  await expect(page.locator('.ribbon .section-name')).toHaveText(['A', 'B', 'A′']);
});

test('parallel places stand side by side, their differences are walked through with a key', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Structure');
  await page.getByRole('tab', { name: 'Form' }).click();
  await page.getByTestId('parallel-fact').first().getByRole('button').first().click();
  const view = page.getByRole('region', { name: 'Parallel places side by side' });
  await expect(view.locator('.system[data-drawn=true]')).toHaveCount(2);
  const list = page.getByTestId('differences');
  await list.focus();
  const first = await list.locator('li.now').textContent();
  await page.keyboard.press('ArrowDown');
  await expect(list.locator('li.now')).not.toHaveText(first!);
  await expect(view.locator('g.note.differs, g.note.chosen').first()).toBeVisible();
});

test('"these two are the same music" is believed, shown and undone', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Structure');
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('tab', { name: 'Form' }).click();
  const before = await page.getByTestId('parallel-fact').count();
  await page.getByTestId('same-as').fill('20');
  await page.getByRole('button', { name: 'Say so' }).click();
  await expect(page.getByTestId('parallel-fact')).toHaveCount(before + 1);
  await expect(page.getByTestId('parallel-fact').last()).toContainText('set by the instructor');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('parallel-fact')).toHaveCount(before);
});

test('notes: roles are shown and corrected, pillars stand out, chosen notes are found elsewhere', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Notes of its own');
  await openRoom(page, 'Notes of its own', 'Structure');
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  for (let k = 0; k < 6; k++) await page.keyboard.press('ArrowRight');
  await page.getByRole('tab', { name: 'Lines' }).click();
  const notes = page.getByTestId('note-role');
  await expect(notes).toHaveCount(5);
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.getByLabel('pillars').check();
  await expect(page.locator('g.note.connecting').first()).toBeAttached();
  await notes.nth(1).getByRole('combobox').first().selectOption('appoggiatura');
  await expect(notes.nth(1)).toContainText('set');
  for (let k = 0; k < 4; k++) await notes.nth(k).getByRole('checkbox').check();
  await expect(page.locator('g.note.chosen').first()).toBeAttached();
  await page.getByRole('button', { name: 'Find 4 notes' }).click();
  await expect(page.getByTestId('found').first()).toBeVisible();
  expect(await page.getByTestId('found').count()).toBeGreaterThan(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(notes.nth(1)).not.toContainText('set');
});

test('the skeleton is engraved at two levels, the chart and table stand for every bar', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Structure');
  await page.getByTestId('below').selectOption('skeleton');
  const view = page.getByTestId('skeleton');
  await expect(view.locator('.system[data-drawn=true]').first()).toBeVisible();
  const all = await view.locator('g.note').count();
  await page.getByLabel('strong beats').check();
  await expect.poll(async () => view.locator('g.note').count()).toBeLessThan(all);
  await page.getByTestId('below').selectOption('chart');
  await expect(page.getByTestId('bar-table').locator('tbody tr')).toHaveCount(30);
  await page.getByTestId('bar-table').getByRole('button', { name: '12', exact: true }).click();
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 12');
});

test('rows of the page are switched on and off', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Structure');
  await drawn(page);
  // Systems out of view are drawn again only when they come into it.
  const first = page.locator('.system').first();
  await expect(first.locator('.analysis.count')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.getByLabel('count', { exact: true }).check();
  await expect(first.locator('.analysis.count').first()).toBeAttached();
  await page.getByLabel('phrases', { exact: true }).check();
  await expect(first.locator('.analysis.phrases').first()).toBeAttached();
  await page.getByLabel('chords', { exact: true }).uncheck();
  await expect(first.locator('.analysis.chords')).toHaveCount(0);
});
