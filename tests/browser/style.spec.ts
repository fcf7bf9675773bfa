import { drawn, expect, onPages, openRoom, ownPiece, saved, test, visit } from './fixtures';

test('style: another school changes what is proposed and asks about what was kept, keeps its day, and is undone', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await drawn(page);
  await page.getByRole('button', { name: 'Style and schools' }).click();
  const trills = page.getByTestId('school-trill-start');
  await trills.getByRole('radio').nth(1).check();
  await expect(trills).toContainText(/decided on \d{4}/);
  await page.keyboard.press('Escape');
  await expect(trills).toBeHidden();
  const name = page.getByTestId('brief-title');
  // From bar to bar: a dialog that closes may still give the focus back.
  for (let k = 0, bar = await name.textContent(); k < 20 && bar !== 'Bar 11'; k++, bar = await name.textContent()) {
    await page.getByRole('slider', { name: 'The whole piece' }).press('ArrowRight');
    await expect(name).not.toHaveText(bar!);
  }
  await expect(name).toHaveText('Bar 11');
  const asked = page.getByText('The rule says “from the main note” here now.');
  await expect(asked).toBeVisible();
  await asked.getByRole('button', { name: 'Take it' }).click();
  await expect(asked).toHaveCount(0);
  await expect(page.getByTestId('marking').filter({ hasText: 'from the main note' })).toHaveCount(1);
  for (let k = 0; k < 2; k++) await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('marking').filter({ hasText: 'from above' })).toHaveCount(1);
  await expect(asked).toHaveCount(0);
});

test('a reading is drafted in one act and taken back in one act; a rule is switched off', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Drafted at once');
  await openRoom(page, 'Drafted at once', 'Reading');
  const count = page.getByTestId('open-count');
  await expect(count).toContainText(/^[1-9]\d* open/);
  await page.getByRole('button', { name: 'Draft a reading' }).click();
  const first = page.getByRole('dialog', { name: 'Draft a reading' });
  // The page speaks for a period; the teacher decides.
  await expect(first.getByTestId('period-guess')).toContainText('many hairpins');
  await first.getByRole('button', { name: 'take Romantic' }).click();
  await expect(first.getByTestId('draft-period')).toHaveValue('romantic');
  await expect(page.getByTestId('period')).toHaveValue('classical');
  await first.getByText('spare:').click();
  await first.getByRole('button', { name: 'Draft', exact: true }).click();
  await expect(first).toBeHidden();
  // Few marks: what is not printed stays open.
  await expect(count).toContainText(/^[1-9]\d* open · [1-9] marked/);
  const drafted = await count.textContent();
  await saved(page);
  await page.reload();
  await expect(count).toHaveText(drafted!);
  await page.getByRole('button', { name: /^Undo drafting/ }).click();
  await expect(count).toContainText(' 0 marked');
  await expect(page.getByTestId('period')).toHaveValue('classical');
  const undone = await count.textContent();
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  for (let k = 0; k < 26; k++) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'not this rule' }).first().click();
  await expect(count).not.toHaveText(undone!);
});

test('the first step asks for a tempo, takes none that nobody plays, and who cancels has changed nothing', async ({ page }) => {
  const tune = 'X:1\nT:A bare quay\nM:4/4\nL:1/4\nK:C\nV:1 name="Flute"\nc d e f|g a g e|d e f d|c4|e f g a|g2 e2|d c d B|c4|]\n';
  await (await page.request.post('/api/pieces?name=quay.abc', { data: Buffer.from(tune) })).text();
  await openRoom(page, 'A bare quay', 'Reading');
  const count = page.getByTestId('open-count');
  const before = await count.textContent();
  await page.getByRole('button', { name: 'Draft a reading' }).press('Enter');
  const first = page.getByRole('dialog', { name: 'Draft a reading' });
  await first.getByLabel(/^Tempo/).fill('5000');
  await first.getByTestId('draft-period').selectOption('romantic');
  await first.getByRole('button', { name: 'Draft', exact: true }).press('Enter');
  await expect(first.getByTestId('draft-said')).toHaveText('A tempo lies between 10 and 500 beats a minute.');
  await first.getByRole('button', { name: 'Cancel' }).press('Enter');
  await expect(first).toBeHidden();
  await expect(page.getByTestId('period')).toHaveValue('classical');
  await expect(count).toHaveText(before!);
  // Period, tempo and draft are one act.
  await page.getByRole('button', { name: 'Draft a reading' }).press('Enter');
  await first.getByLabel(/^Tempo/).fill('84');
  await first.getByTestId('draft-period').selectOption('romantic');
  await first.getByRole('button', { name: 'Draft', exact: true }).press('Enter');
  await expect(page.getByTestId('period')).toHaveValue('romantic');
  await expect(count).not.toContainText(' 0 marked');
  await page.getByRole('button', { name: /^Undo drafting/ }).click();
  await expect(page.getByTestId('period')).toHaveValue('classical');
  await expect(count).toHaveText(before!);
});

test('the composer’s own practice is told with its source, stays, and stands in the preface; a practice tempo is counted in clicks', async ({
  page
}) => {
  await openRoom(page, 'Andantino', 'Reading');
  await page.getByRole('button', { name: 'Style and schools' }).click();
  const dialog = page.getByRole('dialog', { name: 'Style and schools' });
  await dialog.getByLabel('What is known of it').fill('He never slowed before the last bar.');
  await dialog.getByLabel('Where that is written').fill('a pupil’s letter');
  await dialog.getByRole('button', { name: /^2 clicks/ }).click();
  await expect(dialog.getByText(/is asked for\.$/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('saved')).toHaveText('all saved');
  await page.reload();
  await page.getByRole('button', { name: 'Style and schools' }).click();
  await expect(dialog.getByLabel('What is known of it')).toHaveValue('He never slowed before the last bar.');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Press', exact: true }).click();
  await onPages(page, /He never slowed before the last bar\. \(a pupil’s letter\)/);
});

test('the rules are listed with their sources and can be searched', async ({ page }) => {
  await visit(page, '/rules');
  await expect(page.getByTestId('rule-count')).toHaveText(/^(\d+) of \1$/);
  await page.getByLabel('with the words').fill('trill');
  await expect(page.getByRole('row', { name: /Say on which note a trill begins/ })).toContainText('C. P. E. Bach 1753');
  await expect(page.getByRole('row', { name: /Breathe where a phrase ends/ })).toHaveCount(0);
});

test('proof: a finding leads to its bar, is solved with one click, another is accepted with a reason', async ({ page }) => {
  const tune = 'X:1\nT:A pudding\nM:4/4\nL:1/4\nK:C\nV:1 name="Flute"\nc d e f|"^rit."g a b2|c d e f|g4|e f g a|c4|]\n';
  const made = await page.request.post('/api/pieces?name=pudding.abc', { data: Buffer.from(tune) });
  await made.text();
  await openRoom(page, 'A pudding', 'Proof');
  const findings = page.getByTestId('finding');
  await expect(findings.first()).toBeVisible();
  const count = await findings.count();
  const solvable = findings.filter({ has: page.getByRole('button', { name: /^Add / }) }).first();
  await solvable.getByRole('button', { name: /^Add / }).click();
  await expect(findings).toHaveCount(count - 1);
  const other = findings.first();
  await other.getByRole('button', { name: /It stands/ }).click();
  await other.getByLabel('Accepted because').fill('It is meant so.');
  await other.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(page.getByTestId('accepted')).toContainText('It is meant so.');
  await expect(findings).toHaveCount(count - 2);
  await findings.first().getByRole('button', { name: 'Go to the bar' }).click();
  await expect(page.getByTestId('brief-title')).toBeVisible();
});
