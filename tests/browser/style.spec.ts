import { drawn, expect, openRoom, saved, test, visit } from './fixtures';

test('style: another school changes what is proposed, keeps its day, and is undone', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await drawn(page);
  const count = page.getByTestId('open-count');
  const before = await count.textContent();
  await page.getByRole('button', { name: 'Style and schools' }).click();
  const repeats = page.getByTestId('school-repeats');
  await repeats.getByRole('radio').nth(3).check();
  await expect(repeats).toContainText('decided on 20');
  await expect(count).not.toHaveText(before!);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(count).toHaveText(before!);
});

test('a reading is drafted in one act and taken back in one act; a rule is switched off', async ({ page }) => {
  await openRoom(page, 'Étude', 'Reading');
  await drawn(page);
  const count = page.getByTestId('open-count');
  await expect(count).toContainText('open');
  const before = await count.textContent();
  await page.getByRole('button', { name: 'Draft a reading' }).click();
  await expect(count).toContainText(/^0 open/);
  await saved(page);
  await page.reload();
  await expect(count).toContainText(/^0 open/);
  await page.getByRole('button', { name: /^Undo drafting/ }).click();
  await expect(count).toHaveText(before!);
  await page.getByRole('slider').focus();
  for (let k = 0; k < 26; k++) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'not this rule' }).first().click();
  await expect(count).not.toHaveText(before!);
});

test('the rules are listed with their sources and can be searched', async ({ page }) => {
  await visit(page, '/rules');
  await expect(page.getByTestId('rule-count')).toHaveText(/^(\d+) of \1$/);
  await page.getByLabel('with the words').fill('trill');
  await expect(page.getByRole('row', { name: /Say on which note a trill begins/ })).toContainText('C. P. E. Bach 1753');
  await expect(page.getByRole('row', { name: /Breathe where a phrase ends/ })).toHaveCount(0);
});

test('proof: a finding leads to its bar, is solved with one click, another is accepted with a reason', async ({ page }) => {
  await openRoom(page, 'Étude', 'Reading');
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
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
