/**
 * Measures what must be fast. Every figure is a ratio within one run, or a median in the browser, so that
 * another machine can be compared. Run it with `npm run bench`, which builds it like the workers are built.
 */
import { execFileSync, spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { SaxesParser } from 'saxes';
import { studyOf } from '../src/core/analysis/study.ts';
import { analyse, factsOf, openAnalysis } from '../src/core/analysis/analyse.ts';
import { playableScore } from '../src/core/performance/playable-score.ts';
import { perform } from '../src/core/performance/perform.ts';
import { EMPTY_READING } from '../src/core/reading/reading.ts';
import { draft, wholeScore } from '../src/core/reading/draft/draft.ts';
import { propose } from '../src/core/reading/propose.ts';
import type { Score } from '../src/core/score/model.ts';
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { withNewBar, withPitch, withRhythm } from '../src/core/writing/edits.ts';
import { EMPTY_HEAD, emptyWritten, type Written } from '../src/core/writing/written.ts';
import { durability } from './bench-durability.ts';
import { load } from './bench-load.ts';
import { rehearsal } from './bench-rehearsal.ts';
import { technique } from './bench-technique.ts';
import { longScore } from './long-score.ts';

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

function timed(work: () => unknown, times = 5): number {
  work();
  return median(
    Array.from({ length: times }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    })
  );
}

/** How much longer one work takes than another: each time one right after the other, so that a busy machine weighs on both. */
function ratio(long: () => unknown, short: () => unknown, times = 7): { ratio: number; long: number } {
  const clocked = (work: () => unknown): number => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  clocked(short);
  const pairs = Array.from({ length: times }, () => [clocked(long), clocked(short)]);
  return { ratio: median(pairs.map(([a, b]) => a / b)), long: median(pairs.map(([a]) => a)) };
}

const say = (what: string, value: string, limit: string) => console.log(`${what.padEnd(58)} ${value.padStart(12)}   ${limit}`);

async function core(): Promise<void> {
  const thousand = longScore(1000);
  const four = longScore(4000);
  const read = () => readMusicXml(thousand);
  const bare = () => new SaxesParser().write(thousand).close();
  say(`reading 1,000 bars (${(thousand.length / 1e6).toFixed(1)} MB) / bare saxes`, `${ratio(read, bare).ratio.toFixed(2)} ×`, '≤ 3');
  say('reading 4,000 bars / 1,000 bars', `${ratio(() => readMusicXml(four), read).ratio.toFixed(2)} ×`, '≤ 5');
  const memory = execFileSync(process.execPath, ['--import', 'tsx', 'scripts/read-memory.ts'], { encoding: 'utf8' }).trim();
  say('peak memory of reading 1,000 bars / the file', `${memory} ×`, '≤ 12');
  const score = readMusicXml(longScore(300));
  say('analysis of 300 bars', `${timed(() => analyse(score)).toFixed(0)} ms`, '');
  const known = studyOf(score);
  const style = { period: 'romantic' as const, schools: {}, ruleFactors: {} };
  say('all proposals for 300 bars', `${timed(() => propose(known, style)).toFixed(0)} ms`, '≤ 200 ms');
  say('a draft of 300 bars', `${timed(() => draft(known, style, wholeScore(known))).toFixed(0)} ms`, '≤ 300 ms');
  const found = execFileSync(process.execPath, ['--import', 'tsx', 'scripts/bench-critic.ts'], { encoding: 'utf8' });
  const critic = JSON.parse(found) as { marks: number; composers: number; drafts: number; claims: { made: number; refused: number } };
  say('the critic: marks a bar that drafts print', critic.marks.toFixed(2), '0.25 to 0.6');
  say('the critic: faults of drafts in 100 bars', critic.drafts.toFixed(2), '≤ 3');
  say('the critic: what it faults in composers’ own signs', critic.composers.toFixed(2), 'its own error');
  const { made, refused } = critic.claims;
  say('claims of the rules that cannot be read back, and are not made', `${refused} of ${made}`, '≤ 4 %');
  technique(timed, say);
  await rehearsal(timed, say);
  const quarter = readMusicXml(longScore(250));
  const whole = readMusicXml(thousand);
  /** All that the worker does for a piece: facts and the closer look. */
  const study = (s: Score) => structuredClone(studyOf(s).details);
  const all = ratio(
    () => study(whole),
    () => study(quarter)
  );
  say('all of Structure, 1,000 bars', `${all.long.toFixed(0)} ms`, '≤ 3000 ms');
  say('all of Structure, 1,000 bars / 250 bars', `${all.ratio.toFixed(2)} ×`, '≤ 5');
  const played = playableScore(studyOf(whole), EMPTY_READING.part);
  const reading = { ...EMPTY_READING, period: 'romantic' as const };
  say('1,000 bars performed', `${timed(() => perform(played, reading), 15).toFixed(0)} ms`, '≤ 150 ms');
  const analysis = openAnalysis(score);
  factsOf(analysis);
  let bar = 100;
  const corrected = timed(() => {
    const m = score.measures[bar++];
    return factsOf(analysis, [{ id: 'x', kind: 'chord', start: m.start, end: score.measures[bar].start, roman: 'vi' }]);
  }, 31);
  say('a chord corrected in 300 bars, facts again', `${corrected.toFixed(0)} ms`, '≤ 50 ms');
}

/**
 * Milliseconds from a click until something is on the screen, by the page's own clock: whoever asks from outside asks at
 * intervals of up to half a second.
 */
async function untilShown(page: Page, click: () => Promise<void>, selector: string): Promise<number> {
  await page.evaluate((selector) => {
    const shown = new Promise<number>((done) => {
      let start = 0;
      addEventListener('click', () => (start = performance.now()), { capture: true, once: true });
      new MutationObserver((_, observer) => {
        if (!start || !document.querySelector(selector)) return;
        observer.disconnect();
        requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)));
      }).observe(document, { childList: true, subtree: true, attributes: true });
    });
    Object.assign(window, { shown });
  }, selector);
  await click();
  return page.evaluate(() => (window as unknown as { shown: Promise<number> }).shown);
}

/** The edition of 300 bars: its first page in the room, the whole as a file, and how the server answers others meanwhile. */
async function press(page: Page, address: string): Promise<void> {
  const preview: number[] = [];
  for (let k = 0; k < 3; k++) {
    await page.goto(address);
    await page.waitForSelector('html[data-ready=true]');
    await page.waitForTimeout(1500);
    await page.locator('li').last().getByRole('link', { name: 'Reading', exact: true }).click();
    await page.waitForSelector('.system[data-drawn=true]');
    await page.waitForTimeout(6000);
    const press = page.getByRole('link', { name: 'Press', exact: true });
    preview.push(await untilShown(page, () => press.click(), '[data-testid=sheet]'));
    await page.waitForSelector('[data-testid=preview-stage]:has-text("page")');
  }
  say('300 bars: first page of the preview, opened first', `${preview[0].toFixed(0)} ms`, '≤ 1500 ms');
  say('300 bars: first page of the preview, opened again', `${median(preview.slice(1)).toFixed(0)} ms`, '≤ 1500 ms');
  const whole: number[] = [];
  const others: number[] = [];
  for (let k = 0; k < 3; k++) {
    // Of another state each time: a file of the same one is made once.
    const { acts } = (await (await page.request.get(`${address}/api/readings/1/commands?after=0`)).json()) as { acts: object[] };
    const command = { type: 'request-tempo', range: { low: 60, high: 90 + k } };
    await page.request.post(`${address}/api/readings/1/commands`, { data: { base: acts.length, acts: [{ command }] } });
    await page.waitForTimeout(3000);
    const start = performance.now();
    let done = false;
    const pdf = page.request.get(`${address}/api/readings/1/edition?format=pdf`, { timeout: 120_000 }).then(async (r) => {
      await r.body();
      done = true;
      whole.push(performance.now() - start);
    });
    while (!done) {
      const asked = performance.now();
      await page.request.get(`${address}/api/readings/1/commands?after=0`);
      others.push(performance.now() - asked);
      await page.waitForTimeout(100);
    }
    await pdf;
  }
  say('300 bars, two staves, as PDF on the server', `${(median(whole) / 1000).toFixed(1)} s`, '≤ 10 s');
  say('another request meanwhile', `${median(others).toFixed(0)} ms`, '');
}

/** When the largest picture of a page stands, by the page's own clock: a room with its first systems, the shelf with its cards. */
async function standsAfter(page: Page, address: string, times: number): Promise<number> {
  const seen: number[] = [];
  for (let k = 0; k < times; k++) {
    await page.goto(address);
    await page.waitForTimeout(2000);
    seen.push(
      await page.evaluate(
        () =>
          new Promise<number>((done) =>
            new PerformanceObserver((list) => done(list.getEntries().at(-1)!.startTime)).observe({
              type: 'largest-contentful-paint',
              buffered: true
            })
          )
      )
    );
  }
  return median(seen);
}

/** Milliseconds from a key to the mark on the page, bar by bar. */
async function marking(page: Page): Promise<number> {
  const times = await page.evaluate(async () => {
    const music = document.querySelector<HTMLElement>('.music')!;
    const press = (key: string, ctrlKey = false) => music.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey, bubbles: true }));
    const found: number[] = [];
    for (let k = 0; k < 12; k++) {
      press('ArrowRight', true);
      await new Promise((r) => setTimeout(r, 400));
      const before = music.querySelectorAll('g.hairpin.editorial').length;
      const start = performance.now();
      const drawn = new Promise<void>((done) => {
        const observer = new MutationObserver(() => {
          if (music.querySelectorAll('g.hairpin.editorial').length <= before) return;
          observer.disconnect();
          done();
        });
        observer.observe(music, { childList: true, subtree: true });
      });
      press('g');
      await drawn;
      found.push(performance.now() - start);
      press('Escape');
    }
    return found;
  });
  return median(times);
}

/** A score of many bars of eighths that is being written; its last bar has a rhythm and no pitches yet. */
function longWriting(bars: number): Written {
  const eighths = Array.from({ length: 8 }, () => ({ written: { n: 1, d: 2 }, rest: false }));
  let w = emptyWritten({ ...EMPTY_HEAD, title: 'Long writing', instrument: 'Violin', key: { fifths: 1, mode: 'major' } }, 'bar-0');
  for (let bar = 0; bar < bars; bar++) {
    w = withRhythm(bar ? withNewBar(w, bar - 1) : w, bar, 0, eighths);
    if (bar < bars - 1)
      for (let at = 0; at < 8; at++) w = withPitch(w, { bar, lane: 0, at }, { step: (bar + at) % 7, alter: 0, octave: 4 + (at % 2) });
  }
  return w;
}

/** Median milliseconds from a letter to its note on the page, in a score of 100 bars that is being written. */
async function typing(page: Page, address: string): Promise<number> {
  const made = await page.request.post(`${address}/api/writings`, { data: longWriting(100) });
  const { id } = (await made.json()) as { id: number };
  await page.goto(`${address}/write/${id}`);
  await page.waitForSelector('[data-testid=written] g.unsaid');
  await page.waitForTimeout(2000);
  const times = await page.evaluate(async () => {
    const written = document.querySelector<HTMLElement>('[data-testid=written]')!;
    const found: number[] = [];
    for (const key of 'cdefgab') {
      const before = written.querySelectorAll('g.unsaid').length;
      const start = performance.now();
      const drawn = new Promise<void>((done) => {
        const observer = new MutationObserver(() => {
          if (written.querySelectorAll('g.unsaid').length >= before) return;
          observer.disconnect();
          done();
        });
        observer.observe(written, { childList: true, subtree: true, attributes: true });
      });
      written.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await drawn;
      found.push(performance.now() - start);
      await new Promise((r) => setTimeout(r, 400));
    }
    return found;
  });
  return median(times);
}

/** Puts many small pieces on the shelf. */
async function fill(page: Page, address: string, count: number): Promise<void> {
  for (let k = 0; k < count; k++) {
    const data = Buffer.from(`X:1\nT:Tide table ${k + 1}\nC:Ilse Marten\nM:4/4\nL:1/4\nK:C\nC D E F|G4|\n`);
    await (await page.request.post(`${address}/api/pieces?name=tune.abc`, { data })).text();
  }
}

async function browser(pressOnly: boolean): Promise<void> {
  const port = '4320';
  const address = `http://127.0.0.1:${port}`;
  const folder = 'test-results-data-bench';
  rmSync(folder, { recursive: true, force: true });
  const serve = async () => {
    const server = spawn(process.execPath, ['build/index.js'], {
      env: { ...process.env, DATA_DIR: folder, PORT: port, HOST: '127.0.0.1', NUVELO_LOG: 'silent' },
      stdio: ['ignore', 'pipe', 'inherit']
    });
    await new Promise<void>((ready) => server.stdout!.on('data', (d) => String(d).includes('Listening') && ready()));
    return server;
  };
  let server = await serve();
  const chrome = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking']
  });
  try {
    // Who has been here before: on a first visit the largest thing on the screen is the way through the rooms.
    const page = await chrome.newPage({
      viewport: { width: 1280, height: 800 },
      storageState: { cookies: [], origins: [{ origin: address, localStorage: [{ name: 'nuvelo-first-visit', value: 'left' }] }] }
    });
    const response = await page.request.post(`${address}/api/pieces?name=long.musicxml`, { data: Buffer.from(longScore(300)) });
    await response.text();
    // What was warm from the import is not: a piece is opened on another day than it was brought in.
    const ended = new Promise((done) => server.once('exit', done));
    server.kill();
    await ended;
    server = await serve();
    if (pressOnly) {
      await press(page, address);
      return;
    }
    const opening: number[] = [];
    for (let k = 0; k < 5; k++) {
      // As a teacher opens it: from the shelf, which has stood for a moment.
      await page.goto(address);
      await page.waitForSelector('html[data-ready=true]');
      await page.waitForTimeout(3000);
      opening.push(await untilShown(page, () => page.click('[data-testid=piece] .head a'), '.system[data-drawn=true]'));
    }
    say('300 bars, two staves: first system stands after opening', `${median(opening).toFixed(0)} ms`, '≤ 1500 ms');
    const room = page.url();
    say('300 bars: the first systems stand in a room, by its own clock', `${(await standsAfter(page, room, 5)).toFixed(0)} ms`, '≤ 300 ms');
    await page.waitForSelector('.system[data-drawn=true]');
    await page.waitForSelector('[data-testid=proposal], [data-testid=add-marking]');
    await page.waitForTimeout(3000);
    say('300 bars: from a key to the mark on the page', `${(await marking(page)).toFixed(0)} ms`, '≤ 100 ms');
    const selecting = await page.evaluate(async () => {
      const music = document.querySelector<HTMLElement>('.music')!;
      const title = document.querySelector('[data-testid=brief-title]')!;
      const times: number[] = [];
      for (let k = 0; k < 15; k++) {
        const start = performance.now();
        const changed = new Promise<void>((done) =>
          new MutationObserver((_, o) => (o.disconnect(), done())).observe(title, { childList: true, characterData: true, subtree: true })
        );
        music.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', ctrlKey: true, bubbles: true }));
        await changed;
        times.push(performance.now() - start);
      }
      return times;
    });
    say('selecting a bar updates the brief', `${median(selecting).toFixed(0)} ms`, '≤ 100 ms');
    await page.getByTestId('period').selectOption('romantic');
    await page.waitForTimeout(3000);
    const keeping = await page.evaluate(async () => {
      const music = document.querySelector<HTMLElement>('.music')!;
      const count = document.querySelector('[data-testid=open-count]')!;
      /** Milliseconds until the page has been drawn again and the counts have changed; null when nothing was drawn within three seconds. */
      const measured = async (act: () => void): Promise<number | null> => {
        const start = performance.now();
        const drawn = new Promise<boolean>((done) => {
          new MutationObserver((_, o) => (o.disconnect(), done(true))).observe(music, { childList: true, subtree: true });
          setTimeout(() => done(false), 3000);
        });
        const counted = new Promise<void>((done) =>
          new MutationObserver((_, o) => (o.disconnect(), done())).observe(count, { childList: true, characterData: true, subtree: true })
        );
        act();
        const [seen] = await Promise.all([drawn, counted]);
        return seen ? performance.now() - start : null;
      };
      const button = (text: string, within: ParentNode = document) =>
        [...within.querySelectorAll<HTMLButtonElement>('button')].find((b) => b.textContent?.trim().startsWith(text));
      const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));
      const keep: (number | null)[] = [];
      // Bar by bar, as one works: the selected bar's system is in view, and is what has to be drawn again.
      for (let bar = 0; bar < 60 && keep.length < 15; bar++) {
        music.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', ctrlKey: true, bubbles: true }));
        await pause(300);
        const proposal = document.querySelector('[data-testid=proposal]');
        const act = proposal && button('Keep', proposal);
        if (act) keep.push(await measured(() => act.click()));
      }
      const remove: (number | null)[] = [];
      const draft: (number | null)[] = [];
      // On to bars where nothing has been kept yet: there the draft changes what is in view.
      for (let k = 0; k < 5; k++) music.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true }));
      await pause(1500);
      const undo: (number | null)[] = [];
      for (let k = 0; k < 7; k++) {
        button('Draft a reading')!.click();
        // Other dialogs stand closed in the page.
        const agree = () => [...document.querySelectorAll('[role=dialog]')].map((d) => button('Draft', d)).find((b) => b && !b.disabled);
        for (let k = 0; k < 50 && !agree(); k++) await pause(100);
        draft.push(await measured(() => agree()!.click()));
        await pause(1500);
        // An edit: one marking of the selected bar is taken away.
        document.querySelector<HTMLElement>('[data-testid=marking] .head')?.click();
        await pause(200);
        const gone = button('Remove');
        if (gone) {
          remove.push(await measured(() => gone.click()));
          await pause(700);
          undo.push(await measured(() => button('Undo')!.click()));
          await pause(700);
        }
        undo.push(await measured(() => button('Undo drafting')!.click()));
        await pause(1500);
      }
      return { keep, draft, edit: remove, undo };
    });
    for (const [what, times] of Object.entries(keeping)) {
      const seen = times.filter((t) => t !== null);
      say(
        `${what}, 300 bars: ribbon, page and brief (drawn ${seen.length} of ${times.length})`,
        seen.length ? `${median(seen).toFixed(0)} ms` : 'none',
        '≤ 300 ms'
      );
    }
    await page.waitForFunction(() => !document.querySelector<HTMLButtonElement>('[data-testid=play]')!.disabled);
    const starting = await page.evaluate(async () => {
      const play = document.querySelector<HTMLButtonElement>('[data-testid=play]')!;
      const times: number[] = [];
      for (let k = 0; k < 6; k++) {
        const start = performance.now();
        const first = new Promise<void>((done) => addEventListener('nuvelo-scheduled', () => done(), { once: true }));
        play.click();
        await first;
        // The first time the samples are fetched.
        if (k > 0) times.push(performance.now() - start);
        await new Promise((r) => setTimeout(r, 600));
        play.click();
        await new Promise((r) => setTimeout(r, 600));
      }
      return times;
    });
    say('hearing starts after, once loaded', `${median(starting).toFixed(0)} ms`, '≤ 300 ms');
    await press(page, address);
    say('100 bars being written: from a letter to its note', `${(await typing(page, address)).toFixed(0)} ms`, '≤ 100 ms');
    await fill(page, address, 500);
    say('a shelf of 500: its cards stand', `${(await standsAfter(page, address, 5)).toFixed(0)} ms`, '≤ 300 ms');
  } finally {
    await chrome.close();
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

// `npm run bench -- core`, `browser`, `load` or `durability` measures one part; `-- press` the edition alone.
const only = process.argv[2];
if (!only || only === 'core') await core();
if (!only || only === 'browser' || only === 'press') await browser(only === 'press');
if (!only || only === 'load') await load(say);
if (!only || only === 'durability') await durability(say);
