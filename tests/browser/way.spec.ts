import { readFileSync } from 'node:fs';
import { readMusicXml } from '../../src/core/score/musicxml/read';
import { longScore } from '../../scripts/long-score';
import { demo } from '../unit/helpers';
import { drawn, expect, onPages, saved, test, visit } from './fixtures';

/** A MusicXML file of the teacher's own: the demo's keyboard piece under another name. */
const document = demo('andantino.abc').text.replace('Andantino grazioso</work-title>', 'Jury piece</work-title>');

const withoutEditorial = (text: string): string =>
  text
    .replace(/<direction\b[^>]*>(?:(?!<\/direction>).)*<level bracket="yes">editorial<\/level>(?:(?!<\/direction>).)*<\/direction>/gs, '')
    .replace(
      /<notations>(?:<footnote>[^<]*<\/footnote>)?<level bracket="yes">editorial<\/level>(?:(?!<\/notations>).)*<\/notations>/gs,
      ''
    );

test('the whole way: import, survey, correct, decide, mark, undo, reload, press, download', async ({ page }) => {
  await visit(page, '/');
  await page.getByTestId('chooser').setInputFiles({ name: 'jury.musicxml', mimeType: 'application/xml', buffer: Buffer.from(document) });

  // Survey: everything leads to its bar.
  await expect(page.getByRole('heading', { name: 'Jury piece' })).toBeVisible();
  await expect(page.getByText('24 as written, 48 as played')).toBeVisible();
  await page.getByRole('button', { name: 'Go to bar 15' }).first().click();
  await drawn(page);
  await expect(page.getByTestId('brief-title')).toHaveText('Bar 15');

  // Structure: a key is corrected and what depends on it follows.
  await page.getByRole('link', { name: 'Structure', exact: true }).click();
  await expect(page.getByRole('tab', { name: 'Harmony' })).toBeVisible();
  await drawn(page);
  await page.locator('.music').focus();
  await page.keyboard.press('Home');
  for (let k = 0; k < 12; k++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('brief-title')).toHaveText('Bars 13 to 14');
  await expect(page.getByTestId('chord-fact').first()).toContainText('V65/V');
  await page.getByTestId('key-choice').selectOption('C major');
  await page.getByRole('button', { name: 'Set this key' }).click();
  await expect(page.getByTestId('key-fact').filter({ hasText: 'C major' })).toContainText('set by the instructor');
  await expect(page.getByTestId('chord-fact').first()).not.toContainText('/V');
  await page.getByRole('tab', { name: 'Corrections (1)' }).click();
  await expect(page.getByTestId('correction')).toContainText('C major');

  // Reading: keep, change, set aside.
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByTestId('period')).toBeVisible();
  await drawn(page);
  await page.getByTestId('period').selectOption('romantic');
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  for (let k = 0; k < 30; k++) await page.keyboard.press('ArrowLeft');
  for (let k = 0; k < 30; k++) await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('brief-title')).toHaveText('Bars 1 to 24');
  const proposals = page.getByTestId('proposal');
  await expect(proposals.first()).toBeVisible();
  const keptKey = await proposals.nth(0).getAttribute('data-key');
  await proposals.nth(0).getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByTestId('marking')).toHaveCount(1);
  const changing = proposals.filter({ hasText: 'Hairpin' }).first();
  await changing.getByRole('button', { name: 'Change' }).click();
  await changing.getByLabel('Changed value').selectOption('crescendo');
  await changing.getByRole('button', { name: 'Keep it so' }).click();
  await expect(page.getByTestId('marking')).toHaveCount(2);
  await proposals.nth(0).getByRole('button', { name: 'Set aside' }).click();
  await expect(page.getByText('1 set aside')).toBeVisible();

  // A hairpin by hand, undone and done again.
  await page.locator('.music').focus();
  await page.keyboard.press('Home');
  const form = page.getByTestId('add-marking');
  await form.getByLabel('Kind').selectOption('hairpin');
  await form.getByLabel('What').selectOption('diminuendo');
  await form.getByLabel('Because').fill('the hand needs it <here> & now');
  await form.getByRole('button', { name: 'Add' }).click();
  await expect(page.locator('g.hairpin.editorial').first()).toBeVisible();
  const counter = page.getByTestId('open-count');
  await expect(counter).toContainText('3 marked');
  await page.keyboard.press('Control+z');
  await expect(counter).toContainText('2 marked');
  await page.keyboard.press('Control+Shift+z');
  await expect(counter).toContainText('3 marked');
  await saved(page);

  // A reload loses nothing.
  await page.reload();
  await drawn(page);
  await expect(counter).toContainText('3 marked');
  await expect(page.getByTestId('period')).toHaveValue('romantic');

  // Press: the edition with its commentary, and the file.
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await onPages(
    page,
    /Commentary.*the hand needs it <here> & now.*was considered and not taken|was considered and not taken.*the hand needs it <here> & now/i
  );
  await page.getByRole('button', { name: 'Files', exact: true }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('download-musicxml').click()]);
  expect(download.suggestedFilename()).toBe('Jury piece.musicxml');
  const file = readFileSync((await download.path())!, 'utf8');
  expect(withoutEditorial(file)).toBe(document);
  expect(file.match(/<footnote>/g)).toHaveLength(3);
  expect(file).toContain('the hand needs it &lt;here&gt; &amp; now');
  expect(readMusicXml(file).hairpins.length).toBeGreaterThanOrEqual(readMusicXml(document).hairpins.length + 2);
  expect(keptKey).toBeTruthy();
});

test('a file that is no score gets one sentence, and nothing is stored', async ({ page }) => {
  await visit(page, '/');
  for (const [name, text, sentence] of [
    ['letter.xml', '<html><body/></html>', 'This is XML but not a score: it begins with <html> (line 1).'],
    ['half.musicxml', document.replace('Jury piece', 'Half a piece').slice(0, 900), /ends in the middle of the score \(line \d+\)\./],
    ['broken-tune.abc', 'X:1\nK:C\nAB?c|', '"?" has no meaning here (measure 1, line 3, character 3).']
  ] as const) {
    await page.getByTestId('chooser').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    await expect(page.getByRole('alert')).toContainText(sentence);
  }
  await page.reload();
  await expect(page.locator('li').first()).toBeVisible();
  for (const title of ['letter', 'Half a piece', 'broken-tune']) await expect(page.locator('li', { hasText: title })).toHaveCount(0);
});

test('a marking is moved, edited and removed; an ABC file comes in by dropping', async ({ page }) => {
  await visit(page, '/');
  const data = await page.evaluateHandle(() => {
    const transfer = new DataTransfer();
    transfer.items.add(new File(['X:1\nT:Dropped tune\nM:4/4\nL:1/4\nK:G\nGABc|d2B2|c2A2|G4|]\n'], 'tune.abc'));
    return transfer;
  });
  await page.dispatchEvent('.shelf', 'drop', { dataTransfer: data });
  await page.waitForURL(/\/survey$/);
  await expect(page.getByRole('heading', { name: 'Dropped tune' })).toBeVisible();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(page.getByTestId('period')).toBeVisible();
  await drawn(page);
  const form = page.getByTestId('add-marking');
  await form.getByLabel('What').selectOption('pp');
  await form.getByRole('button', { name: 'Add' }).click();
  const marking = page.getByTestId('marking').first();
  await expect(marking).toContainText('bar 1, beat 1');
  await marking.getByRole('button', { name: /Dynamic/ }).click();
  await marking.getByRole('button', { name: 'Later' }).click();
  await expect(marking).toContainText('bar 1, beat 2');
  await marking.getByLabel('What').selectOption('ff');
  await marking.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(marking).toContainText('ff');
  await page.locator('g.dynam.editorial').first().click();
  await expect(page.getByTestId('edit-marking')).toBeVisible();
  await marking.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByTestId('marking')).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('marking')).toHaveCount(1);
});

test('a long import is stopped, and nothing is stored', async ({ page }) => {
  await visit(page, '/');
  const text = longScore(3000).replace('Long score of 3000 bars', 'Endless study');
  await page.getByTestId('chooser').setInputFiles({ name: 'endless.musicxml', mimeType: 'application/xml', buffer: Buffer.from(text) });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('alert')).toContainText('The import was stopped; nothing was stored.');
  await page.reload();
  await expect(page.locator('li').first()).toBeVisible();
  await expect(page.locator('li', { hasText: 'Endless study' })).toHaveCount(0);
});
