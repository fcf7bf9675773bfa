import { drawn, expect, ownPiece, saved, test, visit } from './fixtures';

test('what is taken off the shelf lies in the bin, comes back whole, and is removed for good only when that is said', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'A tune for the bin');
  const card = page.getByTestId('piece').filter({ hasText: 'A tune for the bin' });
  const takeOff = async (): Promise<void> => {
    await visit(page, '/');
    await card.getByRole('button', { name: /What can be done/ }).click();
    await card.getByRole('button', { name: 'Take off the shelf' }).click();
    await expect(page.getByText('lies in the bin for 30 days')).toBeVisible();
    await expect(card).toBeHidden();
    await page.getByRole('link', { name: /^Bin/ }).click();
  };
  await takeOff();
  const binned = page.getByTestId('binned').filter({ hasText: 'A tune for the bin' });
  await binned.getByRole('button', { name: 'Put back on the shelf' }).click();
  await expect(binned).toBeHidden();
  await visit(page, '/');
  await expect(card).toBeVisible();
  await takeOff();
  await binned.getByRole('button', { name: 'Remove for good' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(binned).toBeHidden();
  await visit(page, '/');
  await expect(page.getByTestId('piece').first()).toBeVisible();
  await expect(card).toBeHidden();
});

test('all pieces come as one file', async ({ page }) => {
  await visit(page, '/');
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'All pieces as one file' }).click();
  expect((await saved).suggestedFilename()).toBe('Nuvelo, all pieces.zip');
});

test('a shelf of many: found by words, ordered, narrowed, grouped; what was taken off comes back with one click', async ({ page }) => {
  for (let k = 0; k < 3; k++) await ownPiece(page, 'etude.abc', `Pilot song ${k + 1}`);
  await visit(page, '/');
  const cards = page.getByTestId('piece');
  await page.getByTestId('find').fill('pilot SONG');
  await expect(cards).toHaveCount(3);
  await expect(cards.first()).toContainText('have a first look');
  await page.getByTestId('order').selectOption('title');
  await expect(cards.locator('h2')).toHaveText(['Pilot song 1', 'Pilot song 2', 'Pilot song 3']);
  const second = cards.nth(1);
  await second.getByRole('button', { name: /What can be done/ }).click();
  await second.getByLabel('Group').fill('For the jury');
  await second.getByLabel('Group').press('Enter');
  await expect(second.locator('.group')).toHaveText('For the jury');
  await page.getByTestId('by-group').selectOption('For the jury');
  await expect(cards).toHaveCount(1);
  await cards.getByRole('button', { name: /What can be done/ }).click();
  await cards.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(cards).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByTestId('find').fill('nothing of that name');
  await expect(page.getByText('Nothing on the shelf is like that.')).toBeVisible();
  await page.getByTestId('find').fill('Pilot');
  await expect(cards).toHaveCount(3);
  // What was worked on says so, and stands first.
  await cards.nth(2).getByRole('link', { name: 'Reading', exact: true }).click();
  await drawn(page);
  await page.getByTestId('period').selectOption('romantic');
  await saved(page);
  await visit(page, '/');
  await page.getByTestId('find').fill('pilot');
  await expect(cards).toHaveCount(3);
  await expect(cards.first()).toContainText('Pilot song 3');
  await expect(cards.first()).toContainText('Romantic');
  await expect(cards.first()).toContainText('opened today');
  await page.getByTestId('by-period').selectOption({ label: 'Romantic' });
  await page.getByTestId('by-stage').selectOption({ label: 'being read' });
  await expect(cards.first()).toContainText('Pilot song 3');
});

test('three hundred pieces: the shelf is there, whole to search, and nothing overlaps at any width', async ({ page }) => {
  const fields = {
    composer: 'Ilse Marten',
    instrument: 'Viola',
    bars: 24,
    group: null,
    period: null,
    openedAt: null,
    createdAt: 1,
    acts: 0,
    editions: 0
  };
  const pieces = Array.from({ length: 300 }, (_, k) => ({
    ...fields,
    id: k + 1,
    title: `Tide table ${k + 1} with a title that is rather long`
  }));
  await visit(page, '/type');
  // The shelf as the server would send it for so many.
  await page.route('**/__data.json*', async (route) => {
    const answer = await route.fetch();
    const text = await answer.text();
    if (!text.includes('composer')) return route.fulfill({ response: answer, body: text });
    const flat: unknown[] = [{ pieces: 1, bin: 2 }, [], 0];
    for (const piece of pieces) {
      const at = flat.length;
      (flat[1] as number[]).push(at);
      flat.push(Object.fromEntries(Object.keys(piece).map((key, i) => [key, at + 1 + i])), ...Object.values(piece));
    }
    await route.fulfill({
      response: answer,
      body: `${JSON.stringify({ type: 'data', nodes: [null, { type: 'data', data: flat, uses: { dependencies: ['nuvelo:shelf'] } }] })}\n`
    });
  });
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  const cards = page.getByTestId('piece');
  await expect(cards).toHaveCount(60);
  await expect(page.getByText('300 pieces')).toBeVisible();
  for (const width of [390, 1024, 1280, 1920]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await page.locator('.shelf').evaluate((e) => e.scrollWidth - e.clientWidth), `${width}`).toBeLessThanOrEqual(0);
    const covered = await page.evaluate(() => {
      const boxes = [...document.querySelectorAll('[data-testid=piece]')].slice(0, 12).map((e) => [e, e.getBoundingClientRect()] as const);
      const bad: string[] = [];
      boxes.forEach(([card, a], k) => {
        for (const [, b] of boxes.slice(k + 1))
          if (a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1) bad.push('cards');
        for (const part of card.querySelectorAll('a, button, h2')) {
          const box = part.getBoundingClientRect();
          if (box.width && (box.left < a.left - 1 || box.right > a.right + 1 || box.bottom > a.bottom + 1))
            bad.push(part.textContent ?? '');
        }
      });
      return bad;
    });
    expect(covered, `${width}`).toEqual([]);
  }
  await page.getByTestId('find').fill('table 299');
  await expect(cards).toHaveCount(1);
  await page.getByTestId('find').fill('');
  await page.getByRole('button', { name: 'Show 240 more' }).click();
  await expect(cards).toHaveCount(120);
});
