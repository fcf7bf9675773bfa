import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { PDFDocument } from 'pdf-lib';
import { addDays, dayOf, inFull } from '../../src/core/rehearsal/plan/day';
import { expect, openRoom, saved, test, visit } from './fixtures';

const today = dayOf(new Date());

/** Begins a plan in the room that is open. @returns its address */
async function beginPlan(page: Page, title: string, days = 14, occasion = 'jury'): Promise<string> {
  await page.getByRole('tab', { name: 'Plan' }).click();
  const another = page.getByRole('button', { name: 'Another plan' });
  await expect(another.or(page.getByRole('button', { name: 'Begin the plan' })).first()).toBeVisible();
  if (await another.isVisible()) await another.click();
  await page.getByLabel('Name').fill(title);
  await page.getByLabel('Until the').selectOption(occasion);
  await page.getByLabel('On', { exact: true }).fill(addDays(today, days));
  await page.getByLabel('Minutes a day').fill('40');
  // Whatever day it is, something is planned for it.
  await page.getByText('Sun', { exact: true }).click();
  await page.getByRole('button', { name: 'Begin the plan' }).click();
  await expect(page.getByTestId('task').first()).toBeVisible();
  return (await page.getByRole('link', { name: 'Open the plan' }).getAttribute('href'))!;
}

const allKept = (page: Page) => expect(page.getByTestId('saved').or(page.getByTestId('connection'))).toHaveText('all saved');
const plannedOn = (page: Page, day: string) => page.getByTestId(`day-${day}`).getByTestId('planned');

test('from a piece to difficulty, drills, a plan, a session with the ladder, offline on a phone, and another plan', async ({
  page,
  context
}) => {
  test.setTimeout(120_000);
  await openRoom(page, 'Corrente', 'Rehearse');
  const spots = page.getByTestId('hot-spot');
  await expect(spots.first()).toBeVisible();
  const count = await spots.count();
  // The chart chooses bars on the page; the teacher leaves a place out, and takes it back.
  await spots.last().getByRole('button', { name: /^Bars/ }).click();
  await spots.last().getByRole('button', { name: 'Leave it out' }).click();
  await expect(spots).toHaveCount(count - 1);
  await page.keyboard.press('Control+z');
  await expect(spots).toHaveCount(count);
  await saved(page);

  const address = await beginPlan(page, 'Until the jury, from the piece');
  const before = await page.getByTestId('task').count();
  expect(before).toBeGreaterThanOrEqual(count + 3);
  await page.getByRole('tab', { name: 'Hard places' }).click();
  await spots
    .nth(count - 2)
    .getByRole('button', { name: /^Bars/ })
    .click();
  await page.getByRole('tab', { name: 'Drills' }).click();
  await page.getByRole('button', { name: /Make practice material/ }).click();
  const drills = page.getByTestId('drills').locator('article');
  for (let k = 0; k < 3; k++) {
    await drills.nth(k).getByRole('button', { name: 'Into the plan' }).click();
    await expect(drills.nth(k).getByRole('button', { name: 'In the plan' })).toBeVisible();
  }
  await page.getByRole('tab', { name: 'Plan' }).click();
  await expect(page.getByTestId('task')).toHaveCount(before + 3);
  // The checklist of each section is there, and is ticked with its day.
  await page.getByRole('tab', { name: 'Checklist' }).click();
  await page.getByTestId('check-section').first().locator('label').first().click();
  await expect(page.getByTestId('check-section').first().getByRole('checkbox').first()).toBeChecked();

  // The plan: what is done today is planned.
  await visit(page, address);
  await allKept(page);
  await expect(plannedOn(page, today).first()).toBeVisible();
  const planned = await plannedOn(page, today).count();

  // A session on a phone.
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole('link', { name: 'Practise now' }).click();
  const heading = page.locator('.task h1');
  await expect(heading).toBeVisible();
  await expect(page.locator('.notes .system svg').first()).toBeVisible();
  for (const name of ['Not yet', 'Clean', 'Next']) {
    const box = (await page.getByRole('button', { name }).boundingBox())!;
    expect(box.height).toBeGreaterThanOrEqual(60);
    expect(box.x + box.width).toBeLessThanOrEqual(390);
    expect(box.y + box.height).toBeLessThanOrEqual(844);
  }
  const tempo = page.getByTestId('tempo');
  const start = Number(await tempo.textContent());
  for (let k = 0; k < 3; k++) await page.keyboard.press('Space');
  const up = Number(await tempo.textContent());
  expect(up).toBeGreaterThan(start);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  expect(Number(await tempo.textContent())).toBeLessThan(up);
  await page.keyboard.press('Backspace');
  await expect(tempo).toHaveText(String(up));
  const clicked = page.evaluate(() => new Promise((done) => addEventListener('nuvelo-click', () => done(true), { once: true })));
  await page.getByRole('button', { name: 'Click on' }).click();
  expect(await clicked).toBe(true);
  await page.getByRole('button', { name: 'Click off' }).click();

  // The page is kept for being without a connection; then that is gone.
  await page.waitForFunction(async () => {
    const names = await caches.keys();
    const kept = await Promise.all(names.map(async (n) => (await (await caches.open(n)).keys()).map((r) => new URL(r.url).pathname)));
    const all = kept.flat();
    return all.some((p) => p.endsWith('/session')) && all.some((p) => p.includes('/sheets/')) && all.some((p) => p.includes('/_app/'));
  });
  await context.setOffline(true);
  await page.getByText('Say something about it').click();
  await page.getByLabel('Own words').fill('The shift holds.');
  await page.getByLabel('Own words').blur();
  const first = await heading.textContent();
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByTestId('connection')).toContainText('not sent yet');
  await expect(heading).not.toHaveText(first!);
  // Opened again without a connection it goes on where it was.
  const second = await heading.textContent();
  await page.getByRole('button', { name: 'Clean' }).click();
  await page.reload();
  await expect(heading).toHaveText(second!);
  await expect(page.getByTestId('connection')).toContainText('not sent yet');
  await context.setOffline(false);
  await allKept(page);

  // What was done stands once, with its words, and the day is another.
  const key = address.split('/').pop()!;
  const state = (await (await page.request.get(`/api/practice/plans/${key}`)).json()) as {
    visits: { words: string; clean: number; missed: number; day: string }[];
  };
  expect(state.visits.map((v) => [v.words, v.clean, v.missed, v.day])).toEqual([['The shift holds.', 3, 1, today]]);
  await page.setViewportSize({ width: 1280, height: 800 });
  await visit(page, address);
  await expect(page.getByTestId(`day-${today}`)).toContainText('1 task');
  expect(await plannedOn(page, today).count()).toBeLessThan(planned);
  await page.getByRole('tab', { name: 'Progress' }).click();
  await expect(page.getByTestId('task-days')).toContainText(String(start));
});

test('the days of a plan: dragged, moved by a choice, refused with a reason, undone, printed, for the calendar', async ({ page }) => {
  test.setTimeout(90_000);
  await openRoom(page, 'Corrente', 'Rehearse');
  await visit(page, await beginPlan(page, 'Days to be dragged'));
  const first = plannedOn(page, today).first();
  const title = (await first.locator('span').first().textContent())!;
  const there = (day: string) => plannedOn(page, day).filter({ hasText: title });
  await there(today).dragTo(page.getByTestId(`day-${addDays(today, 2)}`));
  await expect(there(addDays(today, 2))).toHaveCount(1);
  await expect(there(today)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(there(today)).toHaveCount(1);
  // The same without a mouse.
  await there(today).focus();
  await page.keyboard.press('Enter');
  const choice = page.getByLabel('The chosen task').getByLabel('On', { exact: true });
  await choice.selectOption({ label: inFull(addDays(today, 1)) });
  await expect(there(addDays(today, 1))).toHaveCount(1);
  // Nothing new in the last two days.
  await choice.selectOption({ label: inFull(addDays(today, 13)) });
  await expect(page.getByRole('alert')).toHaveText('Nothing new is begun in the last two days before a performance.');
  await expect(there(addDays(today, 1))).toHaveCount(1);
  await allKept(page);
  await page.reload();
  await expect(there(addDays(today, 1))).toHaveCount(1);

  const calendar = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Calendar file' }).click();
  const ics = readFileSync((await (await calendar).path())!, 'utf8');
  expect(ics).toContain(`DTSTART;VALUE=DATE:${today.replaceAll('-', '')}`);
  expect(ics).toContain('Jury: Days to be dragged');
  const book = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Practice book (PDF)' }).click();
  const pdf = await PDFDocument.load(readFileSync((await (await book).path())!));
  expect(pdf.getPageCount()).toBeGreaterThan(1);
  expect(pdf.getTitle()).toBe('Days to be dragged');

  // A nearer date, fewer minutes: worked out anew.
  await page.getByRole('tab', { name: 'Settings' }).click();
  await page.getByLabel('Minutes a day').fill('6');
  await page.getByRole('button', { name: 'Change the plan' }).click();
  await expect(plannedOn(page, today)).toHaveCount(1);
  // Pain stops it, until that is taken back.
  await page.getByRole('link', { name: 'Practise now' }).click();
  await page.getByRole('button', { name: 'It hurts' }).click();
  await expect(page.getByRole('heading', { name: 'Stop here' })).toBeVisible();
  await page.getByRole('link', { name: 'To the plan' }).click();
  await expect(page.getByText(/a clinician who treats musicians/).first()).toBeVisible();
  await expect(page.getByTestId('planned')).toHaveCount(0);
  await page.getByRole('button', { name: 'It is well again: plan on' }).click();
  await expect(page.getByTestId('planned').first()).toBeVisible();
});

test('an audition: what is asked for, a lot, one take, the sheet over the takes; and a set of tunes', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Rehearse');
  await visit(page, await beginPlan(page, 'The audition', 10, 'audition'));
  await page.getByRole('tab', { name: 'Audition' }).click();
  // Nonsense is told in a sentence, and nothing is lost.
  await page.getByLabel('quarter =').fill('quick');
  await page.getByLabel('quarter =').press('Enter');
  await expect(page.getByRole('alert')).toHaveText('“quick” is no tempo: write quarters a minute, as 88 or 88–96.');
  await page.getByLabel('quarter =').fill('88-96');
  await page.getByLabel('quarter =').press('Enter');
  await page.getByRole('button', { name: 'Suggest one from what is hardest' }).click();
  await expect(page.getByLabel(/Where to be sure/)).toHaveValue(/^Be sure rather than grand in bar/);
  for (const [mark, tempo] of [
    ['in part', '80'],
    ['yes', '92']
  ]) {
    await page.getByRole('button', { name: 'Draw the order by lot' }).click();
    await expect(page.getByTestId('lot').locator('li')).toHaveCount(1);
    await page.getByLabel('taken at').fill(tempo);
    await page.getByLabel('taken at').press('Enter');
    if (tempo === '80') await expect(page.getByTestId('lot')).toContainText('80: slower than the 88 to 96 that are asked for');
    await page
      .getByRole('group', { name: /^Sound/ })
      .getByText(mark, { exact: true })
      .click();
    await page.getByRole('button', { name: 'Keep this take' }).click();
  }
  await expect(page.getByTestId('takes').locator('tbody tr').first()).toContainText('in part');
  await expect(page.getByTestId('takes').locator('tbody tr').first()).toContainText('yes');

  await page.getByRole('tab', { name: 'Sets' }).click();
  await page.getByLabel('Another set').fill('Evening set');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const set = page.getByTestId('set');
  await set.getByLabel('Another tune').selectOption({ label: 'Rope and Tar' });
  await expect(set.locator('li')).toHaveCount(1);
  await set.getByLabel('Another tune').selectOption({ index: 1 });
  await expect(set.locator('li')).toHaveCount(2);
  await set.getByRole('button', { name: 'From the notes' }).click();
  await expect(set.getByLabel('Into it')).toHaveValue(/from \S+ (up|down) \d+ semitones? to|both on/);
  await allKept(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Sets' }).click();
  await expect(page.getByTestId('set').locator('li')).toHaveCount(2);
});

test('a marking and a finding become tasks in one act', async ({ page }) => {
  await openRoom(page, 'Corrente', 'Reading');
  await page.locator('.music').focus();
  for (let k = 0; k < 5; k++) await page.keyboard.press('Control+ArrowRight');
  const marking = page.getByTestId('marking').first();
  await marking.locator('.head').click();
  await marking.getByRole('button', { name: 'Make it a task' }).click();
  await expect(page.getByText(/^In the plan “.*”: Bar 5: /)).toBeVisible();
  await page.getByRole('link', { name: 'Rehearse', exact: true }).click();
  await page.getByRole('tab', { name: 'Plan' }).click();
  await expect(page.getByTestId('task').filter({ hasText: 'Bar 5: ' }).first()).toBeVisible();
});
