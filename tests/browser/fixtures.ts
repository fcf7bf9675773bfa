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
        // A conflict between two windows is answered with status 409, which the browser logs by itself.
        if (message.type() === 'error' && !message.text().includes('409')) faults.push(`console: ${message.text()}`);
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

/** Opens a room of a demo piece (the oldest ones stand last on the shelf) by its title and waits for the first engraved system. */
export async function openRoom(page: Page, title: string, room: 'Survey' | 'Structure' | 'Reading' | 'Proof' | 'Press'): Promise<void> {
  await visit(page, '/');
  await page.locator('li', { hasText: title }).last().getByRole('link', { name: room }).click();
  if (room === 'Proof') await expect(page.getByTestId('finding-count')).toBeVisible();
  else if (room !== 'Survey') await drawn(page);
}

export const drawn = (page: Page) => expect(page.locator('.system[data-drawn=true]').first()).toBeVisible();
export const saved = (page: Page) => expect(page.getByTestId('saved')).toHaveText('all saved');
