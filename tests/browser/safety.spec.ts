import { drawn, expect, openRoom, ownPiece, saved, test } from './fixtures';

const add = async (page: import('@playwright/test').Page, value: string) => {
  const form = page.getByTestId('add-marking');
  await form.getByLabel('Kind').selectOption('dynamic');
  await form.getByLabel('What').selectOption(value);
  // Where something else is printed the form asks for a reason.
  await form.getByLabel('Because').fill('To be heard from the last row.');
  await form.getByRole('button', { name: 'Add' }).click();
};

const marked = async (page: import('@playwright/test').Page): Promise<number> =>
  Number(/(\d+) marked/.exec((await page.getByTestId('open-count').textContent()) ?? '')![1]);

test('two windows on one reading: both changes stay, and each window learns of the other’s', async ({ context, page }) => {
  await ownPiece(page, 'corrente.abc', 'Seen through two windows');
  await openRoom(page, 'Seen through two windows', 'Reading');
  const other = await context.newPage();
  await other.goto(page.url());
  await drawn(other);
  const before = await marked(page);
  await add(page, 'ppp');
  await expect(other.getByTestId('open-count')).toContainText(`${before + 1} marked`);
  await expect(other.getByText(/change made in another window was taken in/)).toBeVisible();
  await Promise.all([add(page, 'pp'), add(other, 'ff')]);
  for (const window of [page, other]) await expect(window.getByTestId('open-count')).toContainText(`${before + 3} marked`);
  await saved(page);
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 3} marked`);
});

test('a change made while the server does not answer survives a reload and is saved later', async ({ page, context }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  let down = true;
  await context.route('**/api/readings/*/commands', (route) =>
    down && route.request().method() === 'POST' ? new Promise(() => {}) : route.continue()
  );
  await add(page, 'fff');
  await expect(page.getByTestId('saved')).toHaveText('saving …');
  // From here on the server answers; what was sent before it is lost with the page.
  down = false;
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
  await saved(page);
  await page.reload();
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
});

test('what was saved while the page was already on its way anew is there', async ({ page, context }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  // The server has put the page together before the act comes, and the act is stored before the page arrives.
  const stored = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().endsWith('/commands'));
  let putTogether = () => {};
  const early = new Promise<void>((resolve) => (putTogether = resolve));
  await context.route('**/reading', async (route) => {
    const response = await route.fetch();
    putTogether();
    await stored;
    await route.fulfill({ response });
  });
  await context.route('**/api/readings/*/commands', async (route) => {
    if (route.request().method() === 'POST') await early;
    await route.continue();
  });
  await add(page, 'fff');
  await page.reload();
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
  await expect(page.getByText(/made in another window/)).toBeHidden();
});

test('a server that hangs is asked again, and an act whose answer was lost stands once', async ({ page, context }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  const posts: string[] = [];
  await context.route('**/api/readings/*/commands', async (route) => {
    if (route.request().method() !== 'POST') return route.continue();
    posts.push('asked');
    if (posts.length > 1) return route.continue();
    // It arrives and is stored, but the answer never comes.
    await route.fetch();
    return new Promise(() => {});
  });
  await add(page, 'fff');
  await expect(page.getByTestId('saved')).toContainText('The server takes too long to answer.', { timeout: 20_000 });
  await expect(page.getByTestId('saved')).toHaveText('all saved', { timeout: 20_000 });
  expect(posts.length).toBeGreaterThan(1);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('open-count')).toContainText(`${before} marked`);
});

test('an act that the server will never take is taken back and told, and what comes after it is saved', async ({ page, context }) => {
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  await context.route('**/api/readings/*/commands', (route) =>
    route.request().postData()?.includes('"value":"fff"')
      ? route.fulfill({ status: 400, json: { message: 'The change is not as it should be: it is too loud.' } })
      : route.continue()
  );
  await add(page, 'fff');
  await expect(
    page.getByText('“adding dynamic fff” was refused and has been taken back. The change is not as it should be: it is too loud.')
  ).toBeVisible();
  await expect(page.getByTestId('open-count')).toContainText(`${before} marked`);
  await add(page, 'pp');
  await saved(page);
  await page.reload();
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
});

test('the server refuses what does not fit, in a sentence', async ({ request }) => {
  const post = (body: object) => request.post('/api/readings/1/commands', { data: body });
  const wrong = await post({ base: 0, acts: [{ command: { type: 'nonsense' } }] });
  expect(wrong.status()).toBe(400);
  expect((await wrong.json()).message).toMatch(/^The change is not as it should be: .*\.$/);
  expect((await request.get('/api/readings/9999/edition')).status()).toBe(404);
  expect((await request.get('/api/sources/zz')).status()).toBe(400);
  expect((await request.get('/pieces/9999/reading')).status()).toBe(404);
});

test('where the browser keeps nothing, changes are saved all the same, and “all saved” stands only when they are', async ({
  page,
  context
}) => {
  await context.addInitScript(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  let full = true;
  await context.route('**/api/readings/*/commands', (route) =>
    full && route.request().method() === 'POST'
      ? route.fulfill({ status: 507, json: { message: 'The disk of the server is full, so nothing can be stored.' } })
      : route.continue()
  );
  await add(page, 'fff');
  await expect(page.getByText('This browser keeps nothing more for Nuvelo')).toBeVisible();
  await expect(page.getByTestId('saved')).toContainText('not saved yet; kept here and tried again. The disk of the server is full');
  full = false;
  await saved(page);
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 1} marked`);
});

test('when the server goes on from a backup the window stops, says so, and adds what it had not sent to what is there then', async ({
  page,
  context
}) => {
  await openRoom(page, 'Andantino', 'Reading');
  await expect(page.getByTestId('open-count')).toBeVisible();
  const before = await marked(page);
  let asked = 0;
  let own = '';
  // The server as it is after a restore: it knows the history of this window no more, and gives pages another.
  const OTHER = 'another-history';
  await context.route('**/api/readings/*/commands*', async (route) => {
    const request = route.request();
    const sent = request.postData() ?? '';
    own ||= /"history":"([^"]+)"/.exec(sent)?.[1] ?? new URL(request.url()).searchParams.get('history') ?? '';
    if (!sent.includes(OTHER) && !request.url().includes(OTHER)) {
      asked++;
      return route.fulfill({
        status: 410,
        json: { message: 'The server goes on from a backup that was restored since this window was opened.' }
      });
    }
    return route.continue({ url: request.url().replace(OTHER, own), ...(sent ? { postData: sent.replace(OTHER, own) } : {}) });
  });
  await context.route('**/__data.json*', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: (await response.text()).replaceAll(own, OTHER) });
  });
  await add(page, 'fff');
  const stopped = page.getByTestId('unsent');
  await expect(stopped).toContainText('Nothing more is saved from this window. The server goes on from a backup');
  await expect(stopped).toContainText('One change was never saved: adding dynamic fff');
  await expect(page.getByTestId('saved')).toContainText('nothing more is saved from this window');
  const then = asked;
  await add(page, 'pp');
  await expect(stopped).toContainText('2 changes were never saved');
  expect(asked).toBe(then);
  await stopped.getByRole('button', { name: 'Add to the reading as it is now' }).click();
  await saved(page);
  await expect(stopped).toBeHidden();
  await expect(page.getByTestId('open-count')).toContainText(`${before + 2} marked`);
  await context.unrouteAll();
  await page.reload();
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText(`${before + 2} marked`);
  await expect(stopped).toBeHidden();
});
