import { readFileSync } from 'node:fs';
import tonejs from '@tonejs/midi';
import type { Page } from '@playwright/test';
import { drawn, expect, openRoom, ownPiece, saved, test, visit } from './fixtures';

interface Scheduled {
  note: string;
  bar: number;
  onset: number;
  at: number;
  rate: number;
}

/** Keeps every note that is handed to the audio clock. */
const listen = (page: Page) =>
  page.evaluate(() => {
    const kept: unknown[] = [];
    (window as unknown as { kept: unknown[] }).kept = kept;
    addEventListener('nuvelo-scheduled', (e) => kept.push((e as CustomEvent).detail));
  });
const kept = (page: Page) => page.evaluate(() => (window as unknown as { kept: Scheduled[] }).kept);
const count = async (page: Page, least: number) => expect.poll(async () => (await kept(page)).length).toBeGreaterThanOrEqual(least);

/** The planned onsets of a reading, from its MIDI file, read by another program. */
async function planned(page: Page, format: string): Promise<number[]> {
  const id = /readings\/(\d+)\//.exec((await page.getByRole('link', { name: 'MIDI of the reading' }).getAttribute('href'))!)![1];
  const response = await page.request.get(`/api/readings/${id}/edition?format=${format}`);
  expect(response.ok()).toBe(true);
  const midi = new tonejs.Midi(await response.body());
  return midi.tracks.flatMap((t) => t.notes.map((n) => n.time)).sort((a, b) => a - b);
}

const play = (page: Page) => page.getByTestId('play').click();

test('what is handed to the audio clock is the plan, and the page follows', async ({ page }) => {
  await ownPiece(page, 'corrente.abc', 'Heard as planned');
  await openRoom(page, 'Heard as planned', 'Hearing');
  await listen(page);
  const onsets = await planned(page, 'mid');
  await play(page);
  await count(page, 14);
  await expect(page.getByTestId('playing-at')).toContainText(/Bar|Upbeat/);
  await expect(page.locator('.ribbon rect.playing')).toBeVisible();
  await expect(page.locator('g.note.sounding').first()).toBeAttached();
  const notes = await kept(page);
  const start = notes[0].at - notes[0].onset;
  for (const n of notes) {
    // Every note stands in the plan, and on the audio clock where the plan has it: no drift.
    expect(Math.min(...onsets.map((o) => Math.abs(o - n.onset)))).toBeLessThan(0.002);
    expect(Math.abs(n.at - n.onset - start)).toBeLessThan(1e-6);
  }
  await play(page);
  await expect(page.getByTestId('playing-at')).toHaveText('');
});

test('the page to the letter, another tempo and an amount are heard while it plays', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Heard while playing');
  await openRoom(page, 'Heard while playing', 'Hearing');
  await listen(page);
  const literal = await planned(page, 'literal.mid');
  await page.getByTestId('rate').fill('150');
  await play(page);
  await count(page, 4);
  await page.getByTestId('version').selectOption('page');
  const before = (await kept(page)).length;
  await count(page, before + 4);
  const after = (await kept(page)).slice(before + 1);
  for (const n of after) {
    expect(n.rate).toBe(1.5);
    expect(Math.min(...literal.map((o) => Math.abs(o - n.onset)))).toBeLessThan(0.002);
  }
  // Back to the reading, with everything turned off while it plays: the page again, within a beat.
  await page.getByTestId('version').selectOption('plan');
  await page.getByRole('tab', { name: 'How much' }).click();
  await page.getByRole('button', { name: 'all off' }).click();
  await expect(page.getByTestId('amount-arch')).toHaveValue('0');
  const then = (await kept(page)).length;
  await count(page, then + 3);
  for (const n of (await kept(page)).slice(then + 2)) expect(Math.min(...literal.map((o) => Math.abs(o - n.onset)))).toBeLessThan(0.002);
  await play(page);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('amount-arch')).toHaveValue('100');
  await saved(page);
});

test('selected bars come again and again; what sounds can be chosen', async ({ page }) => {
  await openRoom(page, 'Andantino', 'Hearing');
  await listen(page);
  await page.getByTestId('rate').fill('150');
  await page.getByText('selected bars again and again').click();
  await page.getByLabel('sounding').selectOption('skeleton');
  await play(page);
  await count(page, 12);
  await play(page);
  const notes = await kept(page);
  expect(new Set(notes.map((n) => n.bar))).toEqual(new Set([0]));
  const again = notes.filter((n) => n.note === notes[0].note);
  expect(again.length).toBeGreaterThan(1);
  // The bar lasts what it lasts, each time; a machine that is late begins a round later, never sooner.
  const rounds = again.slice(1).map((n, k) => n.at - again[k].at);
  const shortest = Math.min(...rounds);
  expect(rounds.filter((r) => r - shortest < 1e-6).length).toBeGreaterThanOrEqual(rounds.length / 2);
});

test('a sound file has its notes where the plan has them, and is louder where it should be', async ({ page }) => {
  const title = 'Dots soft and loud';
  const tune = `X:1\nT:${title}\nM:4/4\nL:1/4\nQ:1/4=90\nK:C\n!p!.C.E.G.c|!f!.C.E.G.c|\n`;
  const response = await page.request.post('/api/pieces?name=dots.abc', { data: Buffer.from(tune) });
  await response.text();
  await openRoom(page, title, 'Hearing');
  const onsets = await planned(page, 'mid');
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.getByText('Sound', { exact: true }).click();
  await page.getByText('plain tone').click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /Sound file/ }).click();
  const wav = readFileSync(await (await download).path());
  expect(wav.toString('latin1', 0, 4)).toBe('RIFF');
  const rate = wav.readUInt32LE(24);
  const channels = wav.readUInt16LE(22);
  const samples = Array.from({ length: (wav.length - 44) / (2 * channels) }, (_, k) => Math.abs(wav.readInt16LE(44 + 2 * channels * k)));
  const found: number[] = [];
  let quiet = Infinity;
  samples.forEach((s, k) => {
    if (s > 30) {
      if (quiet > 0.05 * rate) found.push(k / rate);
      quiet = 0;
    } else quiet++;
  });
  expect(found.length).toBe(8);
  found.forEach((t, k) => expect(Math.abs(t - onsets[k]), `note ${k + 1}`).toBeLessThan(0.005));
  const peak = (from: number, to: number) =>
    samples.slice(Math.round(from * rate), Math.round(to * rate)).reduce((a, b) => Math.max(a, b), 0);
  expect(peak(onsets[4], onsets[7] + 0.3)).toBeGreaterThan(3 * peak(onsets[0], onsets[4] - 0.05));
});

test('seconds are explained, a bar is pulled by button and by pointer, and goes back', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'Pulled about');
  await openRoom(page, 'Pulled about', 'Hearing');
  const told = page.getByTestId('explained').first();
  await expect(told).toContainText(/Bar 1: [\d.]+ s, literal 3\.33/);
  const before = await told.textContent();
  await page.getByTestId('longer').click();
  await expect(told).toContainText('pulled +0.0');
  const canvas = page.getByLabel(/Tempo of every bar/);
  const box = (await canvas.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + 70, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'let all pulled bars go (2)' })).toBeVisible();
  await page.getByRole('button', { name: 'let all pulled bars go (2)' }).click();
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  for (let k = 0; k < 4; k++) await page.keyboard.press('PageUp');
  await expect(told).toHaveText(before!);
  await page.reload();
  await drawn(page);
  await expect(told).toHaveText(before!);
});

test('taps are compared and taken over, a rhythm is inspected, recordings stand side by side', async ({ page }) => {
  await ownPiece(page, 'andantino.abc', 'Tapped and compared');
  await openRoom(page, 'Tapped and compared', 'Hearing');
  await page.getByRole('tab', { name: 'Tap it' }).click();
  const pad = page.getByTestId('tap-pad');
  for (let k = 0; k < 5; k++) await pad.click();
  // The keyboard taps the pad, too.
  await page.keyboard.press('Enter');
  await page.keyboard.press(' ');
  await expect(page.getByTestId('tapped').locator('tbody tr')).toHaveCount(2);
  await page.getByTestId('take-rubato').click();
  await expect(page.getByRole('button', { name: /let the own rubato go \(2 bars\)/ })).toBeVisible();
  await page.getByRole('tab', { name: 'Rhythm' }).click();
  await expect(page.getByTestId('entries')).toContainText('2 &');
  await expect(page.getByText('3 : 1')).toBeVisible();
  await page.getByRole('tab', { name: 'Recordings' }).click();
  await page.getByLabel('Name of the recording').fill('harbour hall, spring');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByLabel(/^Bar \d+ begins at$/).fill('soon');
  await page.getByRole('button', { name: 'Write down' }).click();
  await expect(page.getByRole('alert')).toContainText('“soon” is no time');
  await page.getByLabel(/^Bar \d+ begins at$/).fill('99999999');
  await page.getByRole('button', { name: 'Write down' }).click();
  await expect(page.getByRole('alert')).toContainText('more than the ten hours');
  await page.getByLabel(/^Bar \d+ begins at$/).fill('0');
  await page.getByRole('button', { name: 'Write down' }).click();
  await page.getByRole('slider', { name: 'The whole piece' }).focus();
  await page.keyboard.press('PageDown');
  await page.getByLabel(/^Bar \d+ begins at$/).fill('0:16');
  await page.getByRole('button', { name: 'Write down' }).click();
  // Eight bars of three beats in sixteen seconds.
  await expect(page.getByTestId('compared')).toContainText('90');
  await saved(page);
  await page.reload();
  await drawn(page);
  await page.getByRole('tab', { name: 'Recordings' }).click();
  await expect(page.getByTestId('compared')).toContainText('harbour hall, spring');
});

test('a proposal is heard with and without before it is kept', async ({ page }) => {
  await ownPiece(page, 'etude.abc', 'On trial');
  await openRoom(page, 'On trial', 'Reading');
  await listen(page);
  await page.getByTestId('period').selectOption('romantic');
  const proposal = page.getByTestId('proposal').first();
  await expect(proposal).toBeVisible();
  await proposal.getByRole('button', { name: 'hear with' }).click();
  await count(page, 2);
  await proposal.getByRole('button', { name: 'without' }).click();
  const before = (await kept(page)).length;
  await count(page, before + 2);
  await page.keyboard.press('h');
  await expect(page.getByTestId('play')).toHaveText('Hear');
});

test('the sound of a file that is not there is told, and nothing is lost', async ({ page }) => {
  await visit(page, '/');
  const response = await page.request.get('/api/readings/99999/edition?format=mid');
  expect(response.status()).toBe(404);
  const wrong = await page.request.get('/api/readings/1/edition?format=ogg');
  expect(wrong.status()).toBe(400);
});
