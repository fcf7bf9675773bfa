import { drawn, expect, openRoom, saved, settled, test } from './fixtures';
import type { Locator, Page } from '@playwright/test';

const TUNE = (name: string, voice: string): string =>
  `X:1\nT:${name}\nM:4/4\nL:1/4\nQ:1/4=84\nV:1 name="${voice}"\nK:D\n|:D E F G|A B c d|d c B A|!p!A2 G F|E F G A|B A G2|F E D C|D4:|\n`;

async function tune(page: Page, name: string, voice: string): Promise<void> {
  const made = await page.request.post('/api/pieces?name=tune.abc', { data: Buffer.from(TUNE(name, voice)) });
  expect(made.ok()).toBe(true);
  await made.text();
  await openRoom(page, name, 'Reading');
}

/** The notes of a bar on the page, by the bar's number. */
const notesOf = (page: Page, bar: number): Locator => page.locator(`.music g.measure#m${bar - 1} g.note`);
const head = (page: Page, bar: number, k: number): Locator => notesOf(page, bar).nth(k).locator('g.notehead').first();
const strip = (page: Page): Locator => page.getByTestId('strip');
const verb = (page: Page, word: string): Locator => strip(page).locator(`[data-verb="${word}"]`);
const signs = (page: Page, kind: string): Locator => page.locator(`.music g.${kind}.editorial`);
const centre = async (where: Locator): Promise<{ x: number; y: number }> => {
  await expect(where).toBeVisible();
  await settled(where.page());
  const box = (await where.boundingBox()) ?? { x: NaN, y: NaN, width: 0, height: 0 };
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

/** At the head of a note, which staff lines may cross. */
async function clickNote(page: Page, where: Locator, extend = false): Promise<void> {
  await expect(() => where.scrollIntoViewIfNeeded({ timeout: 1000 })).toPass();
  const { x, y } = await centre(where);
  if (extend) await page.keyboard.down('Shift');
  await page.mouse.click(x, y);
  if (extend) await page.keyboard.up('Shift');
}

/** Counts what a teacher does with mouse and keys. */
class Counted {
  count = 0;
  constructor(private readonly page: Page) {}
  async click(where: Locator): Promise<void> {
    this.count++;
    await where.click();
  }
  async note(where: Locator, extend = false): Promise<void> {
    this.count++;
    await clickNote(this.page, where, extend);
  }
  async press(key: string): Promise<void> {
    this.count++;
    await this.page.keyboard.press(key);
  }
}

/** Clicks or keys that a mark may cost. */
const MOST = 3;

test('a hairpin, a slur, a bow, a finger and a breath cost three clicks or three keys at most', async ({ page }) => {
  await tune(page, 'Counted marks', 'Violin');
  const spent: Record<string, number> = {};
  const does = async (what: string, act: (hand: Counted) => Promise<void>, made: Locator): Promise<void> => {
    const hand = new Counted(page);
    const before = await made.count();
    await act(hand);
    await expect(made).toHaveCount(before + 1);
    spent[what] = hand.count;
    expect(hand.count, what).toBeLessThanOrEqual(MOST);
  };
  // By mouse: first note, last note, word.
  await does(
    'hairpin, mouse',
    async (hand) => {
      await hand.note(head(page, 1, 0));
      await hand.note(head(page, 1, 3), true);
      await hand.click(verb(page, 'Grow'));
    },
    signs(page, 'hairpin')
  );
  await does(
    'slur, mouse',
    async (hand) => {
      await hand.note(head(page, 2, 0));
      await hand.note(head(page, 2, 1), true);
      await hand.click(verb(page, 'Join'));
    },
    signs(page, 'slur')
  );
  await does(
    'bow, mouse',
    async (hand) => {
      await hand.note(head(page, 3, 0));
      await hand.click(verb(page, 'Up bow'));
    },
    signs(page, 'bowing')
  );
  await does(
    'finger, mouse',
    async (hand) => {
      await hand.note(head(page, 3, 1));
      await hand.click(verb(page, 'Finger'));
      await hand.click(strip(page).getByRole('button', { name: '3', exact: true }));
    },
    signs(page, 'fingering')
  );
  await does(
    'break, mouse',
    async (hand) => {
      await hand.note(head(page, 6, 2));
      await hand.click(verb(page, 'Break'));
    },
    signs(page, 'breath')
  );
  // By keys, from a link at the top of the screen; the bar is the one that was worked in.
  await page.getByRole('link', { name: 'Reading', exact: true }).focus();
  await does('hairpin, keys', (hand) => hand.press('f'), signs(page, 'hairpin'));
  await page.keyboard.press('Escape');
  await does(
    'slur, keys',
    async (hand) => {
      await hand.press('ArrowRight');
      await hand.press('j');
    },
    signs(page, 'slur')
  );
  await page.keyboard.press('Escape');
  for (const [what, key, kind] of [
    ['bow, keys', 'd', 'bowing'],
    ['finger, keys', '2', 'fingering'],
    ['break, keys', 'b', 'breath']
  ] as const) {
    await does(what, (hand) => hand.press(key), signs(page, kind));
    await page.keyboard.press('Escape');
  }
  test.info().annotations.push({ type: 'clicks and keys', description: JSON.stringify(spent) });
  await saved(page);
  await page.reload();
  await drawn(page);
  await expect(signs(page, 'hairpin')).toHaveCount(2);
});

test('who breathes has a breath under the same key, and no bow', async ({ page }) => {
  await tune(page, 'Breaths', 'Flute');
  await clickNote(page, head(page, 2, 3));
  await expect(verb(page, 'Up bow')).toHaveCount(0);
  await page.keyboard.press('b');
  await expect(page.getByTestId('marking')).toContainText('Breath');
});

test('marks are taken hold of: ends go to notes, heights stay, across the staff they turn over; by mouse and by keys', async ({ page }) => {
  await tune(page, 'Held marks', 'Violin');
  await clickNote(page, head(page, 1, 0));
  await page.keyboard.press('g');
  const hairpin = signs(page, 'hairpin').first();
  await expect(hairpin).toBeVisible();
  const item = page.getByTestId('marking').first();
  const end = item.getByLabel('To', { exact: true });
  await expect(end.locator('option:checked')).toHaveText(/bar 1, beat 4/);
  // Its end, by mouse, to the third note of the next bar.
  await settled(page);
  const box = (await hairpin.boundingBox())!;
  const goal = await centre(head(page, 2, 2));
  await page.mouse.move(box.x + box.width - 3, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(goal.x - 8, box.y + 5, { steps: 4 });
  await expect(page.locator('.music .goal')).toHaveCount(1);
  await page.mouse.up();
  await expect(end.locator('option:checked')).toHaveText(/bar 2, beat 3/);
  // The same by keys, back by a note; then its beginning.
  await page.keyboard.press('ArrowLeft');
  await expect(end.locator('option:checked')).toHaveText(/bar 2, beat 2/);
  await page.keyboard.press('x');
  await page.keyboard.press('ArrowRight');
  await expect(item.getByLabel('At', { exact: true }).locator('option:checked')).toHaveText(/bar 1, beat 2/);
  // Height by keys: half a space each.
  const low = (await centre(hairpin)).y;
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect.poll(async () => (await centre(hairpin)).y).toBeGreaterThan(low + 2);
  // A dynamic: dragged up it stands higher, across the staff it turns over; one undo takes back one act.
  await clickNote(page, head(page, 3, 0));
  await page.keyboard.press('l');
  await page.keyboard.press('6');
  const level = signs(page, 'dynam').first();
  await expect(level).toBeVisible();
  const from = await centre(level);
  const staff = (await page.locator('.music g.measure#m2 g.staff').first().boundingBox())!;
  expect(from.y).toBeGreaterThan(staff.y + staff.height / 2);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x, staff.y - 30, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await centre(level)).y).toBeLessThan(staff.y);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await centre(level)).y).toBeGreaterThan(staff.y + staff.height / 2);
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(async () => (await centre(level)).y).toBeLessThan(staff.y);
  // To the next note by mouse.
  const there = await centre(level);
  const next = await centre(head(page, 3, 1));
  await page.mouse.move(there.x, there.y);
  await page.mouse.down();
  await page.mouse.move(next.x, there.y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId('marking').filter({ hasText: 'Dynamic' })).toContainText('bar 3, beat 2');
  await page.keyboard.press('Delete');
  await expect(level).toHaveCount(0);
  await saved(page);
});

test('the page comes first: what stands against print asks why, in place', async ({ page }) => {
  await tune(page, 'Against print', 'Violin');
  await clickNote(page, head(page, 4, 0));
  await page.keyboard.press('l');
  await page.keyboard.press('6');
  await expect(strip(page)).toContainText('p is printed there');
  await page.keyboard.type('the hall is large');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('marking')).toContainText('the hall is large');
  await expect(strip(page)).not.toContainText('printed there');
});

test('walked by keys a note is read aloud with what stands on it; Tab goes on to marks and proposals', async ({ page }) => {
  await tune(page, 'Read aloud', 'Violin');
  const aloud = page.getByTestId('aloud');
  await page.locator('.music').focus();
  await page.keyboard.press('Home');
  await expect(aloud).toHaveText(/^bar 1, beat 1, D 4, quarter/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(aloud).toHaveText(/^bar 1, beat 3, F sharp 4, quarter/);
  await page.keyboard.press('w');
  await page.keyboard.press('1');
  await expect(aloud).toHaveText(/F sharp 4, quarter.*editorial accent/);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(aloud).toHaveText(/; to bar 1, beat 4, G 4/);
  await page.keyboard.press('Shift+Home');
  await page.keyboard.press('t');
  await page.keyboard.press('2');
  await expect(page.getByTestId('marking')).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('marking')).toHaveCount(1);
  // A proposal: looked at on the page, kept there; another set aside.
  const open = page.locator('.ribbon .open');
  await expect(open.first()).toBeAttached();
  const before = Number(/^(\d+) open/.exec((await page.getByTestId('open-count').textContent())!)![1]);
  await page.locator('.music').focus();
  await page.keyboard.press('Home');
  for (let k = 0; k < 40 && !(await strip(page).textContent())!.includes('proposed'); k++) await page.keyboard.press('ArrowRight');
  for (let k = 0; k < 5 && !(await strip(page).textContent())!.startsWith('Proposed'); k++) await page.keyboard.press('Tab');
  await expect(strip(page)).toContainText('Proposed:');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('open-count')).toContainText(`${before - 1} open · 2 marked`);
});

test('rests and bar lines are chosen too; words and an emendation are typed in place', async ({ page }) => {
  await tune(page, 'Typed in place', 'Violin');
  const line = (await page.locator('.music g.measure#m1 g.barLine').first().boundingBox())!;
  await page.mouse.click(line.x - 3, line.y + line.height / 2 + 4);
  await expect(page.getByTestId('aloud')).toHaveText(/^bar 2, beat 4/);
  await page.keyboard.press('s');
  await page.keyboard.type('from the string');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('marking')).toContainText('“from the string”'.replace(/[“”]/g, ''));
  await clickNote(page, head(page, 1, 1));
  await page.keyboard.press('e');
  await page.keyboard.type('Q9');
  await page.keyboard.press('Enter');
  await expect(strip(page).getByRole('alert')).toContainText('A note is a letter');
  await page.getByLabel('Emendation').fill('Eb4');
  await page.keyboard.press('Enter');
  await expect(strip(page)).toContainText('another note is printed');
  await page.keyboard.type('the autograph has a flat');
  await page.keyboard.press('Enter');
  await expect(page.locator('.music g.note.emendation')).toHaveCount(1);
});
