import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test as base, type Page } from '@playwright/test';

/** Every test watches its pages: no request may leave the machine, nothing may be logged as an error. */
export const test = base.extend<{ watched: void }>({
  watched: [
    async ({ context }, use) => {
      const faults: string[] = [];
      context.on('request', (request) => {
        const url = new URL(request.url());
        if (!['127.0.0.1', ''].includes(url.hostname)) faults.push(`a request left the machine: ${request.url()}`);
      });
      context.on('console', (message) => {
        // A connection that a test takes away is told by the browser. A conflict between two windows (409), an act that is refused (400, 507) and another history (410) are answered so, which the browser logs by itself.
        if (message.type() === 'error' && !/status of (400|409|410|507)|ERR_INTERNET_DISCONNECTED/.test(message.text()))
          faults.push(`console: ${message.text()}`);
      });
      context.on('weberror', (error) => faults.push(`page: ${error.error().message}`));
      await use();
      expect(faults).toEqual([]);
    },
    { auto: true }
  ]
});

export { expect };

/** Goes to an address and waits until the page reacts. */
export async function visit(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await expect(page.locator('html[data-ready=true]')).toBeAttached();
}

/** Begin of the titles of the demo pieces. */
const DEMO = ['Corrente', 'Andantino', 'Étude'];

/** Address of a demo piece: the studio is filled with them first, so that they have the first numbers. */
async function demoPiece(page: Page, title: string): Promise<string> {
  for (let id = 1; id <= DEMO.length; id++) {
    const html = await (await page.request.get(`/pieces/${id}/survey`)).text();
    if (new RegExp(`<h1[^>]*>\\s*${title}`).test(html)) return `/pieces/${id}`;
  }
  throw new Error(`there is no demo piece that begins with ${title}`);
}

/** A copy of a demo piece with its reading, by way of its archive. @returns its address */
async function ownCopy(page: Page, title: string): Promise<string> {
  const archive = await page.request.get(`/api${await demoPiece(page, title)}/archive`);
  const made = await page.request.post('/api/pieces?name=copy.nuvelo.json', { data: await archive.body() });
  return `/pieces/${/"pieces":\[(\d+)/.exec(await made.text())![1]}`;
}

/**
 * Opens a room of a piece by its title and waits for what the room shows first. Of a demo piece each test has a copy of
 * its own, so that none meets another's acts.
 */
export async function openRoom(
  page: Page,
  title: string,
  room: 'Survey' | 'Structure' | 'Reading' | 'Hearing' | 'Proof' | 'Press' | 'Rehearse'
): Promise<void> {
  await visit(page, '/');
  if (DEMO.includes(title)) await visit(page, `${await ownCopy(page, title)}/${room.toLowerCase()}`);
  // Of pieces of a test's own the newest: a test that is tried again must not meet what it did before.
  else await page.locator('li', { hasText: title }).first().getByRole('link', { name: room, exact: true }).click();
  if (room === 'Proof') await expect(page.getByTestId('finding-count')).toBeVisible();
  else if (room === 'Press') await expect(page.getByTestId('sheet').first()).toBeVisible();
  else if (room !== 'Survey') await drawn(page);
}

/** Puts a demo score on the shelf under a title of its own, for tests that must not meet others at one piece. */
export async function ownPiece(page: Page, file: string, title: string): Promise<void> {
  // With a line of its own: a test that is tried again must not be given the piece of before.
  const own = `%${Date.now()}-${Math.random()}\nT:${title}`;
  const score = readFileSync(join(import.meta.dirname, '../../demo/scores', file), 'utf8').replace(/^T:.*$/m, own);
  const response = await page.request.post(`/api/pieces?name=${file}`, { data: Buffer.from(score) });
  expect(response.ok()).toBe(true);
  await response.text();
}

/** All words on the pages of the edition, in their order. */
export const pagesText = (page: Page): Promise<string> =>
  page
    .getByTestId('sheet')
    .evaluateAll((sheets) => sheets.flatMap((s) => [...s.querySelectorAll('text')].map((t) => t.textContent)).join(' '));
/** Waits until the pages say something. */
export const onPages = (page: Page, words: string | RegExp) => expect.poll(() => pagesText(page), { timeout: 60_000 }).toMatch(words);
/** Waits until all pages are there. */
export const allPages = (page: Page) => expect(page.getByTestId('preview-stage')).toHaveText(/^\d+ pages?$/, { timeout: 30_000 });
export const drawn = (page: Page) => expect(page.locator('.system[data-drawn=true]').first()).toBeVisible();
/** Waits until what stands on the page is what is known: nothing waits to be drawn anew. */
export async function settled(page: Page): Promise<void> {
  // What a key or a click has changed reaches the page's own marks with the next picture of the screen.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await expect(page.locator('.system[aria-busy=true]')).toHaveCount(0);
}
export const saved = (page: Page) => expect(page.getByTestId('saved')).toHaveText('all saved');
