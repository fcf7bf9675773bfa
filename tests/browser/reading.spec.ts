import { drawn, expect, onPages, openRoom, ownPiece, saved, test } from './fixtures';
import type { Page } from '@playwright/test';

const ribbon = (page: Page) => page.getByRole('slider', { name: 'The whole piece' });
const title = (page: Page) => page.getByTestId('brief-title');

/** Selects a bar by the arrow keys. */
async function toBar(page: Page, name: string): Promise<void> {
  for (let k = 0; k < 6; k++) await ribbon(page).press('PageUp');
  for (let k = 0; k < 60 && (await title(page).textContent()) !== name; k++) await ribbon(page).press('ArrowRight');
  await expect(title(page)).toHaveText(name);
}

test('the dynamic plan is pulled at by key and by pointer, has a peak and a ceiling, and goes back', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Reading');
  const plan = page.getByRole('slider', { name: /The dynamic plan/ });
  const level = page.getByTestId('plan-level');
  await toBar(page, 'Bar 4');
  const before = await level.textContent();
  await plan.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(level).toContainText('pulled');
  await expect(plan).toHaveAttribute('aria-valuetext', /Bar 4: .*dB/);
  await page.keyboard.press('Delete');
  await expect(level).toHaveText(before!);
  const box = (await plan.boundingBox())!;
  const x = box.x + (6.5 / 24) * box.width;
  await page.mouse.move(x, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(x, box.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect(level).toContainText(/Bar 7: .*pulled/);
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await page.getByRole('button', { name: 'Peak here' }).click();
  await expect(page.getByTestId('plan-peak')).toContainText('Peak bar 7');
  await page.getByLabel('Ceiling', { exact: true }).selectOption({ label: 'mf' });
  await expect(page.getByTestId('plan-peak')).toContainText('mf');
  await saved(page);
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('plan-peak')).toContainText('Peak bar 7, mf');
  // Pulled by key twice and let go, pulled by pointer, the peak, the ceiling.
  for (let k = 0; k < 6; k++) await page.getByRole('button', { name: /^Undo/ }).click();
  await toBar(page, 'Bar 4');
  await expect(level).toHaveText(before!);
});

test('a question has a card at its place: what each answer changes, here only, later, and as everywhere again', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await toBar(page, 'Bar 11');
  const card = page.getByTestId('question').filter({ hasText: /trill/i });
  await card.getByRole('button').first().click();
  await expect(card.getByText('as now: changes no proposal')).toBeVisible();
  await expect(card.getByText(/adds 2.*takes 2 away/)).toBeVisible();
  await card.getByRole('radio').nth(1).check();
  await card.getByRole('button', { name: 'Here only' }).click();
  await expect(card).toContainText(/here since \d{4}/);
  await expect(page.getByText('The rule says “from the main note” here now.')).toBeVisible();
  await toBar(page, 'Bar 27');
  await expect(page.getByText('The rule says “from the main note” here now.')).toHaveCount(0);
  await toBar(page, 'Bar 11');
  await card.getByRole('button').first().click();
  await card.getByRole('button', { name: 'as everywhere' }).click();
  await expect(card).not.toContainText('here since');
  await toBar(page, 'Bar 5');
  const usual = page.getByTestId('question').filter({ hasText: 'as usual for the period' }).first();
  const other = page.locator(`[data-testid=question][data-key=${await usual.getAttribute('data-key')}]`);
  await other.getByRole('button').first().click();
  await other.getByRole('button', { name: 'Later' }).click();
  await expect(other).toContainText('put off on');
});

test('proposals are kept by rule in one act; the stronger of two rules names the weaker', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Reading');
  const count = page.getByTestId('open-count');
  await toBar(page, 'Bar 9');
  const before = await count.textContent();
  const open = Number(/(\d+) open/.exec(before!)![1]);
  const scope = page.getByTestId('scope');
  await scope.getByRole('combobox').selectOption('rule');
  const reached = Number(/All (\d+) proposals/.exec((await scope.textContent())!)![1]);
  expect(reached).toBeGreaterThan(1);
  await scope.getByRole('button', { name: 'Keep them' }).click();
  await expect(count).toContainText(`${open - reached} open`);
  await page.getByRole('button', { name: /^Undo keeping/ }).click();
  await expect(count).toHaveText(before!);
});

test('markings go to the same music elsewhere; one key gives reasons; the printed page asks for one', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await toBar(page, 'Bar 3');
  const form = page.getByTestId('add-marking');
  await form.getByLabel('Kind').selectOption('accent');
  await form.getByRole('button', { name: 'Add' }).click();
  const accent = page.getByTestId('marking').filter({ hasText: 'Accent' }).first();
  await expect(accent).toBeVisible();
  const head = accent.getByRole('button').first();
  await head.focus();
  await page.keyboard.press('r');
  await expect(accent.locator('.because').first()).toContainText(/bar 3/);
  await page.getByTestId('copies').getByRole('button', { name: 'bar 17', exact: true }).click();
  await toBar(page, 'Bar 19');
  await expect(page.getByTestId('marking').filter({ hasText: 'Accent' })).toContainText('As in bar 3: the same.');
  await toBar(page, 'Bar 9');
  await form.getByLabel('Kind').selectOption('dynamic');
  await form.getByLabel('What').selectOption('ff');
  await form.getByRole('button', { name: 'Add' }).click();
  await expect(form.getByRole('alert')).toContainText('p is printed there');
  await form.getByLabel('Because').fill('The hall swallows it.');
  await form.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByTestId('marking').filter({ hasText: 'Dynamic: ff' })).toContainText('The hall swallows it.');
});

test('a brief in own words is saved as it is written, survives a reload and stands in the commentary', async ({ page }) => {
  await openRoom(page, 'Étude', 'Reading');
  await toBar(page, 'Bar 5');
  await page.getByRole('button', { name: 'Pin this brief and edit it' }).click();
  const field = page.getByLabel('The brief in your words');
  await expect(field).toHaveValue(/What it is/);
  await field.fill('Again from afar, and a little nearer.');
  await toBar(page, 'Bar 6');
  await saved(page);
  await page.reload();
  await drawn(page);
  await toBar(page, 'Bar 5');
  await expect(page.getByTestId('written-brief')).toHaveText('Again from afar, and a little nearer.');
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await onPages(page, /Again from afar, and a little nearer\./);
});

test('a reading is copied, goes its own way, is renamed and taken away', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Two ways to the harbour');
  await openRoom(page, 'Two ways to the harbour', 'Reading');
  const count = page.getByTestId('open-count');
  await expect(count).toContainText(/^[1-9]\d* open · 0 marked/);
  const before = await count.textContent();
  const first = await page.getByTestId('reading').inputValue();
  await page.getByRole('button', { name: 'more', exact: true }).click();
  await page.getByRole('button', { name: 'Copy this reading' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('For the jury');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByTestId('reading').locator('option:checked')).toHaveText('For the jury');
  await drawn(page);
  await expect(count).toHaveText(before!);
  await page.getByRole('button', { name: 'Draft a reading' }).click();
  await page.getByRole('dialog', { name: 'Draft a reading' }).getByRole('button', { name: 'Draft', exact: true }).click();
  await expect(count).not.toHaveText(before!);
  await saved(page);
  // The other rooms keep to the reading that is open.
  await page.getByRole('link', { name: 'Survey', exact: true }).click();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByTestId('reading').locator('option:checked')).toHaveText('For the jury');
  await page.getByTestId('reading').selectOption(first);
  await expect(count).toHaveText(before!);
  await page.getByTestId('reading').selectOption({ label: 'For the jury' });
  await expect(count).not.toHaveText(before!);
  await page.getByRole('button', { name: 'more', exact: true }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.getByRole('button', { name: 'Take away', exact: true }).click();
  await expect(page.getByTestId('reading').locator('option')).toHaveCount(1);
  await expect(count).toHaveText(before!);
});

test('a corrected chord: what hung on it becomes a question, the teacher’s own markings stay', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await toBar(page, 'Bar 26');
  const accent = page.getByTestId('marking').filter({ hasText: 'Accent' });
  await expect(accent).toHaveCount(1);
  await expect(accent.getByRole('note')).toHaveCount(0);
  const marked = await page.getByTestId('open-count').textContent();
  await page.getByRole('link', { name: 'Structure', exact: true }).click();
  await drawn(page);
  await toBar(page, 'Bar 26');
  const another = page.getByTestId('chord-fact').filter({ hasText: 'N' }).getByRole('textbox');
  await another.fill('iv6');
  await another.press('Enter');
  await expect(page.getByRole('tab', { name: 'Corrections (1)' })).toBeVisible();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByTestId('open-count')).toBeVisible();
  await drawn(page);
  await toBar(page, 'Bar 26');
  await expect(accent.getByRole('note')).toContainText('The reason that the rule gave is no longer there');
  expect(/(\d+) marked/.exec((await page.getByTestId('open-count').textContent())!)![1]).toBe(/(\d+) marked/.exec(marked!)![1]);
  await toBar(page, 'Bar 5');
  await expect(page.getByTestId('marking').filter({ hasText: 'bow stays low' })).toHaveCount(1);
});

test('how it lies: bows of a bar are told, looked at on the page, written in, and stay', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await page.locator('.music').focus();
  for (let k = 0; k < 15; k++) await page.keyboard.press('Control+ArrowRight');
  const lies = page.getByTestId('how-it-lies');
  await expect(lies).toContainText('up (hooked)');
  const counted = page.getByTestId('open-count');
  const before = Number(/(\d+) marked/.exec((await counted.textContent())!)![1]);
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.getByText('bows as they lie').click();
  await expect(page.locator('.music [id^="lies-bowing"]').first()).toBeAttached();
  await page.keyboard.press('Escape');
  await lies.getByRole('button', { name: 'Write 1 bow in' }).click();
  await expect(counted).toContainText(`${before + 1} marked`);
  await expect(lies.getByRole('button', { name: /bow.* in$/ })).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo writing 1 bow$/ }).click();
  await expect(counted).toContainText(`${before} marked`);
  await saved(page);
});

test('what a note lies with is written by one key while walking; another way is taken whole; both are undone', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  const counted = page.getByTestId('open-count');
  const marked = async (): Promise<number> => Number(/(\d+) marked/.exec((await counted.textContent())!)![1]);
  await expect(page.getByTestId('how-it-lies')).toBeVisible();
  await page.locator('.music').focus();
  await page.keyboard.press('Control+ArrowRight');
  await page.keyboard.press('ArrowRight');
  const strip = page.getByTestId('strip');
  await expect(strip).toContainText(/lies with/);
  const before = await marked();
  await page.keyboard.press('Enter');
  await expect(strip).not.toContainText('lies with');
  expect(await marked()).toBeGreaterThan(before);
  await page.getByRole('button', { name: 'Undo writing what lies there' }).click();
  await expect(strip).toContainText(/lies with/);
  expect(await marked()).toBe(before);

  await page.keyboard.press('Escape');
  await page.locator('.music').focus();
  await page.keyboard.press('Control+Home');
  const lies = page.getByTestId('how-it-lies');
  const close = lies.getByText(/other ways? (?:is|are) close|Another way is close/);
  for (let k = 0; k < 30 && !(await close.isVisible()); k++) await page.keyboard.press('Control+ArrowRight');
  await close.click();
  await lies
    .getByRole('button', { name: /^Take this way/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Undo taking another way' })).toBeVisible();
  expect(await marked()).toBeGreaterThan(before);
  await page.getByRole('button', { name: 'Undo taking another way' }).click();
  await saved(page);
});

test('an answer about chords says what it changes before it is given; crossings over a string are drawn on request', async ({ page }) => {
  const leaps =
    'X:1\nT:Over the strings\nM:4/4\nL:1/4\nV:1 nm="Violin"\nK:G\nG, e G, e|(G, g) G, e|!diminuendo(!G, e G, e|[G,DBg]2 g2!diminuendo)!|]\n';
  const response = await page.request.post('/api/pieces?name=strings.abc&again', { data: Buffer.from(leaps) });
  expect(response.ok()).toBe(true);
  await response.text();
  await openRoom(page, 'Over the strings', 'Reading');
  await expect(page.getByTestId('how-it-lies')).toBeVisible();
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.getByText('crossings over a string').click();
  await expect(page.locator('.music [id^="crossing-"]').first()).toBeAttached();
  await page.keyboard.press('Escape');
  await page.getByTestId('period').selectOption('baroque');
  await page.locator('.music').focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('Control+ArrowRight');
  const question = page.locator('[data-testid=question][data-key=chord-break]').first();
  await question.getByRole('button').first().click();
  await expect(question).toContainText(/lies otherwise in (?:one bar|\d+ bars) \(bar \d/);
});
