import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument } from 'pdf-lib';
import { longScore } from '../../scripts/long-score';
import { allPages, expect, onPages, openRoom, ownPiece, pagesText, saved, test, visit } from './fixtures';

const demoScore = (file: string): string => readFileSync(join(import.meta.dirname, '../../demo/scores', file), 'utf8');
const tab = (page: import('@playwright/test').Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

test('the edition comes as a PDF and as MEI, set as it was asked for; how far it is is told', async ({ page }) => {
  await ownPiece(page, 'andantino.abc', 'Set for the stand');
  await openRoom(page, 'Set for the stand', 'Press');
  await allPages(page);
  await onPages(page, /Preface.*phrase 1/);
  await page.getByLabel('To play from').check();
  await page.getByLabel('Size').selectOption('Letter');
  await saved(page);
  await expect.poll(() => pagesText(page), { timeout: 30_000 }).not.toMatch(/Preface/);
  await allPages(page);
  await expect(page.getByTestId('sheet').first().locator('svg')).toHaveAttribute('viewBox', '0 0 612 792');
  const download = page.waitForEvent('download');
  await page.getByTestId('download-pdf').click();
  await expect(page.getByTestId('pdf-stage')).toHaveText(/^PDF: (asking|reading|engraving).*…$/);
  const file = await download;
  expect(file.suggestedFilename()).toBe('set-for-the-stand.pdf');
  const pdf = await PDFDocument.load(readFileSync(await file.path()));
  expect(pdf.getPage(0).getWidth()).toBe(612);
  // What is seen is what is in the file.
  expect(pdf.getPageCount()).toBe(await page.getByTestId('sheet').count());
  await page.getByRole('button', { name: 'Files', exact: true }).click();
  const mei = page.waitForEvent('download');
  await page.getByTestId('download-mei').click();
  expect(readFileSync(await (await mei).path(), 'utf8')).toContain('<persName xml:id="editor">');
  // One undo takes the paper back.
  await page.getByRole('button', { name: /^Undo setting the pages/ }).click();
  await expect(page.getByLabel('Size')).toHaveValue('A4');
});

test('printing takes the pages alone, on the paper that they are set for', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Press');
  await allPages(page);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByTestId('sheet').first()).toBeVisible();
  await expect(page.getByRole('tab', { name: 'Pages' })).toBeHidden();
  await expect(page.getByRole('link', { name: 'Shelf' })).toBeHidden();
  const printed = await PDFDocument.load(await page.pdf({ preferCSSPageSize: true }));
  expect(printed.getPageCount()).toBe(await page.getByTestId('sheet').count());
  expect(Math.round(printed.getPage(0).getWidth())).toBe(595);
});

test('the preface is drafted, written in, set in form, kept over a reload, and drafted again', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Prefaced');
  await openRoom(page, 'Prefaced', 'Press');
  await tab(page, 'Preface');
  const field = page.getByRole('textbox', { name: 'Preface' });
  await expect(field).toContainText('Prefaced by Aurelio Vantini, for Violin: 30 bars');
  await field.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Played last year on the ');
  await page.getByRole('button', { name: 'Bold' }).click();
  await page.keyboard.type('old pier');
  // Left at once: what was typed a moment ago is kept.
  await page.reload();
  await tab(page, 'Preface');
  await expect(field).toContainText('Played last year on the old pier');
  await expect(field.locator('strong')).toHaveText('old pier');
  await saved(page);
  await onPages(page, /Played last year on the .*old pier/);
  await expect(page.getByTestId('sheet').locator('text[font-weight=bold]', { hasText: 'old pier' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Draft it again' }).click();
  await expect(field).not.toContainText('old pier');
  await page.getByRole('button', { name: /^Undo drafting the preface/ }).click();
  await expect(field).toContainText('old pier');
});

test('what is pasted into the preface is text: nothing of it can run', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Pasted');
  await openRoom(page, 'Pasted', 'Press');
  await tab(page, 'Preface');
  const field = page.getByRole('textbox', { name: 'Preface' });
  await field.click();
  await field.evaluate((e) => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      '<p>pasted <a href="javascript:alert(1)" onclick="alert(2)">link</a><img src=x onerror="alert(3)"><script>alert(4)</script></p>'
    );
    e.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(field).toContainText('pasted link');
  await expect(field.locator('a, img, script, [onclick]')).toHaveCount(0);
  await field.blur();
  await saved(page);
  await onPages(page, /pasted link/);
});

test('a card for the stand, with lines of one’s own', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Carded');
  await openRoom(page, 'Carded', 'Press');
  await tab(page, 'Card');
  const line = page.getByLabel('To remember, 1');
  await expect(line).not.toHaveValue('');
  await line.fill('Look at the lamp, not at the hand.');
  await line.blur();
  await page.getByRole('button', { name: 'Show the card' }).click();
  await saved(page);
  await onPages(page, /To remember.*Look at the lamp, not at the hand\./);
  await allPages(page);
  await expect(page.getByTestId('sheet')).toHaveCount(1);
});

test('an edition is frozen; what is changed later is compared with it, bar by bar', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Frozen');
  await openRoom(page, 'Frozen', 'Reading');
  const form = page.getByTestId('add-marking');
  await form.getByLabel('What').selectOption('pp');
  await form.getByLabel('Because').fill('Far off.');
  await form.getByRole('button', { name: 'Add' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await tab(page, 'Editions');
  await page.getByLabel('Note').fill('for the jury');
  await page.getByRole('button', { name: 'Freeze as edition 1' }).click();
  // The pages are made for it, beside what other tests have made.
  await expect(page.getByTestId('edition')).toContainText('Edition 1', { timeout: 45_000 });
  await expect(page.getByTestId('edition')).toContainText('for the jury');
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByTestId('marking')).toHaveCount(1);
  await page
    .getByTestId('marking')
    .getByRole('button', { name: /Dynamic/ })
    .click();
  await page.getByTestId('marking').getByLabel('What').selectOption('f');
  await page.getByTestId('marking').getByRole('button', { name: 'Change', exact: true }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await tab(page, 'Editions');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  const bar = page.getByTestId('compared-bars').locator('tbody tr');
  await expect(bar).toHaveCount(1);
  await expect(bar).toContainText('changed beat 1: dynamic pp → beat 1: dynamic f');
  await expect(bar).toContainText(/[\d.]+ → [\d.]+ s/);
  await expect(page.getByTestId('compared-length')).toContainText('They last');
  const download = page.waitForEvent('download');
  await page.getByTestId('edition').getByRole('link', { name: 'MusicXML' }).click();
  const frozen = readFileSync(await (await download).path(), 'utf8');
  expect(frozen).toMatch(/<pp\/>/);
  await page.getByRole('button', { name: 'Back to the pages' }).click();
  await expect(page.getByTestId('sheet').first()).toBeVisible();
});

test('the archive of a piece is taken in like a score, with its reading', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Press');
  await tab(page, 'Editions');
  const download = page.waitForEvent('download');
  await page.getByTestId('archive').click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Andantino grazioso.nuvelo.json');
  const archive = JSON.parse(readFileSync(await file.path(), 'utf8')) as { piece: { title: string } };
  archive.piece.title = 'From the archive';
  const text = JSON.stringify(archive);
  await visit(page, '/');
  const chooser = page.getByTestId('chooser');
  await chooser.setInputFiles({ name: 'piece.nuvelo.json', mimeType: 'application/json', buffer: Buffer.from(text.slice(0, 5000)) });
  await expect(page.getByRole('alert')).toContainText('This looks like an archive but is no valid JSON');
  await chooser.setInputFiles({ name: 'piece.nuvelo.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page).toHaveURL(/\/pieces\/\d+/);
  await expect(page.getByRole('heading', { name: 'From the archive' })).toBeVisible();
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await onPages(page, /The middle asks the question/);
});

test('a second source: every difference beside its bar, a choice with its reason, and the report', async ({ page }) => {
  await ownPiece(page, 'andantino.abc', 'Two sources');
  await openRoom(page, 'Two sources', 'Press');
  await tab(page, 'Sources');
  await page.getByLabel('Called').fill('The fair copy');
  const copy = demoScore('andantino-fair-copy.abc').replace(/^T:.*$/m, 'T:Two sources');
  await page.getByTestId('source-chooser').setInputFiles({ name: 'copy.abc', mimeType: 'text/plain', buffer: Buffer.from(copy) });
  await expect(page.getByTestId('other-source')).toContainText('The fair copy: 10 differences, 0 decided');
  await page.getByRole('button', { name: 'Look at the differences' }).click();
  const differences = page.getByTestId('difference');
  await expect(differences).toHaveCount(10);
  const note = differences.and(page.locator('[data-kind=notes]'));
  await note.scrollIntoViewIfNeeded();
  await expect(note).toContainText('bar 12: notes');
  await expect(note.locator('g.note.differs')).toHaveCount(2);
  await note.getByLabel('Take this').check();
  await note.getByLabel('Because').fill('The copy is by the composer.');
  await note.getByLabel('Because').blur();
  await expect(page.getByTestId('other-source')).toContainText('1 decided');
  await saved(page);
  await page.getByRole('button', { name: 'Back to the pages' }).click();
  await onPages(page, /Critical report.*B: The copy is by the composer\./);
  // The page that is read and heard follows: bar 12 has the copy's E.
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.locator('#m11 g.note').first()).toBeVisible();
  const heights = () =>
    page
      .locator('#m11 g.note .notehead use')
      .evaluateAll((e) => e.map((u) => Number(/, (\d+)\)/.exec(u.getAttribute('transform')!)![1])).sort((a, b) => a - b));
  const taken = await heights();
  await page.getByRole('button', { name: /^Undo choosing/ }).click();
  await page.getByRole('button', { name: /^Undo choosing/ }).click();
  await expect.poll(heights).not.toEqual(taken);
});

test('a long edition is made without holding up the others', async ({ page }) => {
  const text = longScore(150).replace('Long score of 150 bars', 'A long evening');
  const made = await page.request.post('/api/pieces?name=long.musicxml', { data: Buffer.from(text) });
  const piece = Number(/"pieces":\[(\d+)/.exec(await made.text())![1]);
  await visit(page, `/pieces/${piece}/press`);
  await expect(page.getByTestId('sheet').first()).toBeVisible();
  const done: string[] = [];
  const download = page.waitForEvent('download').then(() => done.push('pdf'));
  await page.getByTestId('download-pdf').click();
  await expect(page.getByTestId('pdf-stage')).toBeVisible();
  await page.request.get('/').then(() => done.push('shelf'));
  await download;
  expect(done).toEqual(['shelf', 'pdf']);
});

test('on a phone on the stand the pages fill the width and nothing is cut', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 780 });
  await openRoom(page, 'Corrente', 'Press');
  await allPages(page);
  const box = (await page.getByTestId('sheet').first().boundingBox())!;
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(390);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
