import { readFileSync } from 'node:fs';
import { sample } from '../unit/helpers';
import { drawn, expect, onPages, openRoom, ownPiece, pagesText, saved, test, visit } from './fixtures';

const choose = (page: import('@playwright/test').Page, name: string, buffer: Buffer) =>
  page.getByTestId('chooser').setInputFiles({ name, mimeType: 'application/xml', buffer });

test('the teacher ticks, comments, adds lines; they are kept and stand in the preface', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Ticked and told');
  await openRoom(page, 'Ticked and told', 'Survey');
  const instrument = page.locator('.entry', { hasText: 'Violin' }).first();
  await instrument.getByRole('checkbox').first().check();
  const meter = page.locator('.entry', { hasText: '3/4' }).first();
  await meter.hover();
  await meter.getByRole('button', { name: 'Comment on Meter' }).click();
  await meter.getByRole('textbox').fill('Dance steps of three, felt in one.');
  await meter.getByRole('textbox').press('Enter');
  await meter.getByLabel('in the preface').check();
  await page.getByLabel('A line of your own').fill('Ask about the borrowed violin.');
  await page.getByRole('button', { name: 'Add to the survey' }).click();
  await page.getByLabel('A line of your own').fill('Not for print.');
  await page.getByRole('button', { name: 'Add to the survey' }).click();
  // Only what is asked for goes into the preface.
  await page.locator('.own', { hasText: 'borrowed violin' }).getByLabel('in the preface').check();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Survey', exact: true }).click();
  await page.waitForURL(/\/survey/);
  await page.reload();
  await expect(page.getByLabel('Seen: Instrument')).toBeChecked();
  await expect(page.getByLabel('Your comment on Meter')).toHaveValue('Dance steps of three, felt in one.');
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await onPages(page, /Meter: Dance steps of three, felt in one\..*Ask about the borrowed violin\./);
  expect(await pagesText(page)).not.toContain('Not for print.');
});

test('the survey of a piece is printed on two pages at most, without its controls', async ({ page }) => {
  for (const title of ['Corrente', 'Andantino', 'Étude']) {
    await openRoom(page, title, 'Survey');
    await expect(page.getByTestId('count-line')).toBeVisible();
    const paper = (await page.pdf({ format: 'A4', margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' } })).toString(
      'latin1'
    );
    const pages = paper.match(/\/Type\s*\/Page\b/g) ?? [];
    expect(pages.length, title).toBeGreaterThan(0);
    expect(pages.length, title).toBeLessThanOrEqual(2);
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('checkbox')).toHaveCount(0);
    await expect(page.getByRole('textbox')).toHaveCount(0);
    await page.emulateMedia({ media: null });
  }
});

test('what the piece asks of its instrument leads to its bars', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Survey');
  const asks = page.getByTestId('asks');
  await expect(asks).toContainText('Highest position');
  await asks
    .getByRole('button', { name: /^Go to bar/ })
    .first()
    .click();
  await expect(page).toHaveURL(/reading\?bar=/);
});

test('a count line for any bar', async ({ page }) => {
  await openRoom(page, 'Étude', 'Survey');
  const count = page.getByTestId('count-line');
  await expect(count).toHaveText('12&34');
  await page.getByLabel('Bar', { exact: true }).fill('18');
  await expect(count).toContainText('e&a');
  await page.getByLabel('Bar', { exact: true }).fill('99');
  await expect(page.getByRole('alert')).toHaveText('There is no bar or letter “99” in this piece.');
});

test('an excerpt says what is in force where it begins, and is a piece of its own', async ({ page }) => {
  await openRoom(page, 'Étude', 'Survey');
  await page.getByTestId('excerpt-from').fill('12');
  await page.getByTestId('excerpt-to').fill('10');
  await expect(page.getByText(/In force there: 4\/4, mf \(since bar 9\), Andante espressivo .*poco più mosso/)).toBeVisible();
  await page.getByRole('button', { name: 'Make it a piece of its own' }).click();
  await expect(page.getByRole('alert')).toHaveText('The last bar stands before the first one.');
  await page.getByTestId('excerpt-to').fill('16');
  await page.getByRole('button', { name: 'Make it a piece of its own' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Étude No. 7 "Harbour Light", bars 12–16');
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await drawn(page);
  await expect(page.locator('.music')).toContainText('[poco più mosso]');
  await expect(page.locator('.music g.dynam').first()).toBeVisible();
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 12');
  await page.getByTestId('numbering').selectOption('counted');
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 1 (printed 12)');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 12');
});

test('written and sounding pitch: the page and the keys follow', async ({ page }) => {
  await openRoom(page, 'Étude', 'Reading');
  const accidentals = () => page.locator('.system').first().locator('g.keySig use, g.keySig g.keyAccid').count();
  const before = await page.locator('.system').first().innerHTML();
  await expect(page.locator('.brief')).toContainText('D minor, written E minor');
  expect(await accidentals()).toBeGreaterThan(0);
  await page.getByTestId('pitch').selectOption('sounding');
  await expect.poll(async () => (await page.locator('.system').first().innerHTML()) !== before).toBe(true);
});

test('of several parts one is chosen, the others can be hidden and are told in the brief', async ({ page }) => {
  await visit(page, '/');
  await choose(page, 'trio.xml', readFileSync(sample('MozartTrio.xml')));
  await expect(page.getByRole('heading', { name: 'Range' })).toBeVisible();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await drawn(page);
  const staves = () => page.locator('.system').first().locator('g.measure').first().locator('g.staff').count();
  const all = await staves();
  expect(all).toBeGreaterThan(2);
  await page.getByTestId('part').selectOption({ index: 1 });
  await page.getByLabel('others shown').uncheck();
  await expect.poll(staves).toBe(1);
  await expect(page.locator('.brief')).toContainText(/mostly|rests/);
  const form = page.getByTestId('add-marking');
  await form.getByLabel('What').selectOption('pp');
  await form.getByRole('button', { name: 'Add' }).click();
  await expect(page.locator('g.dynam.editorial')).toHaveCount(1);
  await page.getByLabel('others shown').check();
  await expect.poll(staves).toBe(all);
});

test('a tune is typed, engraved as it is typed, its fault shown at the character, and put on the shelf', async ({ page }) => {
  await visit(page, '/type');
  const field = page.getByTestId('tune');
  await field.fill('X:1\nT:Quay steps\nM:6/8\nL:1/8\nK:HP\n{gcd}c2A {e}A2B | c2e {g}f2e |]\n');
  await expect(page.getByTestId('tune-fault')).toContainText('2 bars');
  await drawn(page);
  await field.fill('X:1\nT:Quay steps\nM:6/8\nL:1/8\nK:HP\nc2A A?B |]\n');
  await expect(page.getByTestId('tune-fault')).toContainText('"?" has no meaning here (measure 1, line 6, character 6).');
  await page.getByRole('button', { name: 'Go to the character' }).click();
  expect(await field.evaluate((f: HTMLTextAreaElement) => f.value.slice(f.selectionStart, f.selectionEnd))).toBe('?');
  // A bar that does not add up is named, though it can be read.
  await field.fill('X:1\nT:Quay steps\nM:6/8\nL:1/8\nK:D\nc2A A2B | c2A A2 | d6 |]\n');
  await expect(page.getByTestId('tune-bar-fault')).toHaveText('Bar 2 is an eighth too short.');
  await page.reload();
  await expect(field).toHaveValue(/A2B . c2A A2/);
  await field.fill('X:1\nT:Quay steps\nM:6/8\nL:1/8\nK:HP\nc2A A2B |]\n');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByRole('heading', { name: 'Quay steps' })).toBeVisible();
});

test('the teacher says what a part is played on: the survey follows, and one undo takes it back', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Played on another');
  await openRoom(page, 'Played on another', 'Survey');
  const entries = page.locator('.entry');
  await expect(entries.filter({ hasText: 'out of range' })).toHaveCount(0);
  await page.getByTestId('instrument').selectOption('double-bass');
  await expect(entries.filter({ hasText: 'Violin (double bass)' })).toHaveCount(1);
  await expect(entries.filter({ hasText: 'out of range' })).toContainText('the usual range of the double bass');
  await page.getByRole('button', { name: /^Undo the instrument is the double bass/ }).click();
  await expect(entries.filter({ hasText: 'out of range' })).toHaveCount(0);
});

test('the survey is printed with its labels whole, and without what only the screen needs', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Survey');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print', exact: true })).toBeHidden();
  // A label breaks between words, never within one: each line of it has room for its longest word.
  const broken = await page.locator('.entry .label').evaluateAll((labels) =>
    labels
      .filter((label) => {
        const range = document.createRange();
        const text = document.createTreeWalker(label, NodeFilter.SHOW_TEXT);
        for (let node = text.nextNode(); node; node = text.nextNode())
          for (const word of (node.textContent ?? '').matchAll(/[^\s-]+/g)) {
            range.setStart(node, word.index);
            range.setEnd(node, word.index + word[0].length);
            if (range.getClientRects().length > 1) return true;
          }
        return false;
      })
      .map((label) => label.textContent)
  );
  expect(broken).toEqual([]);
});
