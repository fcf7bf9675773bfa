import type { Page } from '@playwright/test';
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

const BLUES = `X:1
T:Slipway Blues
M:4/4
L:1/4
%%score {R L}
V:R
V:L clef=bass
K:F
V:R
c_ef_e|c_B_A2|c_ef_e|c2z2|f_ec_B|_A_Bc2|c_ef_e|c2z2|g_bgf|_ef_ec|c_ef_e|f2z2|]
V:L
${['[F,A,C_E]4', '[B,,D,F,_A,]4', '[F,A,C_E]4', '[F,A,C_E]4', '[B,,D,F,_A,]4', '[B,,D,F,_A,]4', '[F,A,C_E]4', '[F,A,C_E]4', '[C,E,G,_B,]4', '[B,,D,F,_A,]4', '[F,A,C_E]4', '[F,A,C_E]4'].join('|')}|]
`;
const LAMENT = `X:1
T:Lament at Low Water
M:4/4
L:1/4
%%score {R L}
V:R
V:L clef=bass
K:Cm
V:R
[EGc]2[FAc]2|[EGc]2[FA_d]2|[DG=B]4|[EGc]4|]
V:L
C,2F,2|C,2F,2|G,4|C,4|]
`;

async function shelve(page: Page, name: string, text: string): Promise<void> {
  await page.goto('/');
  await page.locator('html[data-ready=true]').waitFor();
  await page.getByTestId('chooser').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await page.waitForURL(/pieces\/\d+/);
  await page.getByRole('link', { name: 'Structure' }).first().click();
  await drawn(page);
}

test('a blues is told as one; how sure a fact is stands in a word, its number on request', async ({ page }) => {
  await shelve(page, 'blues.abc', BLUES);
  const key = page.getByTestId('key-fact').first();
  await expect(key).toContainText('blues in F');
  await expect(page.locator('.ribbon .key-name')).toHaveText(['blues in F']);
  const word = key.getByRole('button', { name: /^(sure|likely|doubtful)/ });
  await expect(word).toHaveText(/^(sure|likely|doubtful)$/);
  await word.click();
  await expect(word).toHaveText(/, \d+ in 100$/);
  await expect(page.getByTestId('chord-fact').first()).toContainText('I7');
});

test('beside a chord of colour the plain one is named, drawn and can be heard', async ({ page }) => {
  await shelve(page, 'lament.abc', LAMENT);
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  await page.keyboard.press('ArrowRight');
  const plain = page.getByTestId('plain-chord');
  await expect(plain).toContainText('plain: ii°6; D♭ where the scale has D');
  await plain.getByRole('button').first().click();
  await expect(page.getByTestId('plain-staff').locator('g.note')).toHaveCount(6);
  await expect(plain.getByRole('button', { name: 'hear both' })).toBeVisible();
});
