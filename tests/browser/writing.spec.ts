import { readFileSync } from 'node:fs';
import { crc32, deflateSync } from 'node:zlib';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { parseAbc } from '../../src/core/score/abc/parse';
import { readAbc } from '../../src/core/score/abc/read';
import { keyAlter } from '../../src/core/score/accidentals';
import { toNumber } from '../../src/core/score/fraction';
import type { Score } from '../../src/core/score/model';
import { readMusicXml } from '../../src/core/score/musicxml/read';
import { pitchName, staffStep, type Pitch } from '../../src/core/score/pitch';
import { rhythmOf, sameNotes } from '../../src/core/writing/edits';
import { fromTune } from '../../src/core/writing/from-tune';
import { proposeBar } from '../../src/core/writing/proposals';
import { middleOf, nearest } from '../../src/core/writing/to-tune';
import { spelled } from '../../src/core/writing/values';
import { emptyBar, keyAt, meterAt, type Sound, type Written } from '../../src/core/writing/written';
import { studyOf } from '../../src/core/analysis/study';
import { midiFile } from '../../src/core/performance/midi';
import { perform } from '../../src/core/performance/perform';
import { playableScore } from '../../src/core/performance/playable-score';
import { EMPTY_READING } from '../../src/core/reading/reading';
import { demoPath } from '../unit/helpers';
import { drawn, expect, openRoom, ownPiece, saved, settled, test, visit } from './fixtures';

/** What a score says: notes, signs, words, bars. */
const content = (s: Score): unknown => ({
  notes: s.notes.map((n) => [
    n.staff,
    toNumber(n.start),
    toNumber(n.duration),
    n.pitch && pitchName(n.pitch),
    !!n.grace,
    n.tie,
    n.marks,
    n.lyrics
  ]),
  slurs: s.slurs.length,
  hairpins: s.hairpins.map((h) => [h.kind, toNumber(h.start), toNumber(h.end)]),
  words: s.directions
    .filter((d) => d.kind === 'words' || d.kind === 'dynamic')
    .map((d) => [toNumber(d.start), 'text' in d ? d.text : 'value' in d && d.value]),
  bars: s.measures.map((m) => [m.number, m.time?.text, m.repeatStart, m.repeatEnd])
});

/** Writes as a teacher does who has the page beside the screen: the shortest way that the room offers; counts keys and clicks. */
class Hand {
  acts = 0;
  constructor(
    private readonly page: Page,
    private readonly paper: Written
  ) {}

  async press(key: string): Promise<void> {
    this.acts++;
    await this.page.keyboard.press(key);
  }
  async click(name: string, within = this.page.locator('.desk')): Promise<void> {
    this.acts++;
    await within.getByRole('button', { name, exact: true }).click();
  }
  async field(label: string, text: string): Promise<void> {
    this.acts += 2;
    const field = this.page.locator('.desk').getByLabel(label, { exact: true });
    await field.fill(text);
    await field.press('Enter');
  }

  /** What stands so far of the paper: the bars before, and an empty one. */
  private before(bar: number): Written {
    return { ...this.paper, bars: [...this.paper.bars.slice(0, bar), emptyBar(this.paper.bars[bar].id, this.paper.lanes.length)] };
  }

  /** The notes of a bar: by a proposal where one fits. */
  async notes(bar: number, lane: number): Promise<void> {
    const sounds = this.paper.bars[bar].lanes[lane].filter((s) => !s.grace);
    const proposals = proposeBar(this.before(bar), bar, lane);
    const whole = proposals.findIndex((p) => p.kind === 'notes' && sameNotes(p.sounds, sounds));
    if (whole >= 0) return this.press(String(whole + 1));
    const rhythm = rhythmOf(sounds);
    const alike = proposals.findIndex((p) => p.kind === 'rhythm' && spelled(p.rhythm) === spelled(rhythm));
    if (alike >= 0) await this.press(String(alike + 1));
    else {
      for (const key of spelled(rhythm).replace(/ /g, '')) await this.press(key);
      if (!meterAt(this.paper, bar)) await this.press('Enter');
    }
    let last = this.pitchBefore(bar, lane);
    for (const s of sounds) {
      if (!s.pitches.length) continue;
      await this.pitch(s, last, bar);
      last = s.pitches.at(-1)!.pitch;
    }
  }

  private pitchBefore(bar: number, lane: number): Pitch {
    for (let b = bar - 1; b >= 0; b--) {
      const found = this.paper.bars[b].lanes[lane].findLast((s) => s.pitches.length && !s.grace);
      if (found) return found.pitches.at(-1)!.pitch;
    }
    return middleOf(this.paper.head.clefs[this.paper.lanes[lane].staff - 1]);
  }

  private async pitch(s: Sound, last: Pitch, bar: number): Promise<void> {
    let before = last;
    for (const [k, { pitch }] of s.pitches.entries()) {
      const letter = 'cdefgab'[pitch.step];
      await this.press(k ? letter.toUpperCase() : letter);
      const alter = keyAlter(keyAt(this.paper, bar), pitch.step);
      const got = nearest(pitch.step, alter, before);
      const octaves = (staffStep(pitch) - staffStep(got)) / 7;
      for (let n = 0; n < Math.abs(octaves); n++) await this.press(octaves > 0 ? 'Shift+ArrowUp' : 'Shift+ArrowDown');
      for (let n = alter; n !== pitch.alter; n += Math.sign(pitch.alter - n)) await this.press(pitch.alter > n ? '+' : '-');
      before = pitch;
    }
  }
}

async function begin(page: Page, head: Record<string, string>): Promise<void> {
  await visit(page, '/write');
  for (const [label, value] of Object.entries(head)) {
    const field = page.getByLabel(label, { exact: true });
    if ((await field.evaluate((e) => e.tagName)) === 'SELECT') await field.selectOption({ label: value });
    else {
      await field.fill(value);
      await field.press('Tab');
    }
  }
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page.locator('[data-testid=written] .system[data-drawn=true]').first()).toBeVisible();
  await page.getByTestId('written').focus();
}

/** The document of the piece that is open. */
async function shelved(page: Page): Promise<Score> {
  const piece = /pieces\/(\d+)/.exec(page.url())![1];
  const archive = (await (await page.request.get(`/api/pieces/${piece}/archive`)).json()) as { sources: { document: string }[] };
  return readMusicXml(archive.sources[0].document);
}

/** The most keys and clicks that a bar may cost on the mean. */
const MOST_A_BAR = 12;

test('a study is written from its page, rhythm first; the result is the same, and costs few keys', async ({ page }) => {
  test.setTimeout(300_000);
  const text = readFileSync(demoPath('etude.abc'), 'utf8');
  const { written } = fromTune(parseAbc(text))!;
  // The page: its notes, meters and bar lines; what is printed at them comes in the next test.
  const paper: Written = {
    ...written,
    bars: written.bars.map((b) => ({
      ...b,
      lanes: b.lanes.map((l) => l.map((s) => ({ ...s, decorations: [], slurStarts: 0, slurStops: 0, words: undefined })))
    }))
  };
  await begin(page, {
    Title: 'Written study',
    Composer: 'Eugénie Maravelle',
    Instrument: 'Clarinet in B flat',
    Sounds: 'in B flat: a tone lower',
    Key: 'E minor',
    Meter: '4/4',
    'Tempo in words': 'Andante espressivo',
    'beats a minute': '72'
  });
  const hand = new Hand(page, paper);
  for (let bar = 0; bar < paper.bars.length; bar++) {
    const { meter, doubleBar } = paper.bars[bar];
    if (meter !== undefined || doubleBar) {
      await hand.press('Escape');
      if (meter !== undefined) await hand.field('Meter from here', meter);
      if (doubleBar) {
        hand.acts++;
        await page.getByLabel('double bar line').setChecked(true, { force: true });
      }
      await page.getByTestId('written').focus();
      await hand.press('r');
    }
    await hand.notes(bar, 0);
    await expect(page.getByTestId('written')).toHaveAttribute('aria-label', new RegExp(`^Bar ${bar + 2}, rhythm`));
  }
  const mean = hand.acts / paper.bars.length;
  test.info().annotations.push({ type: 'keys and clicks a bar', description: mean.toFixed(1) });
  expect(mean).toBeLessThan(MOST_A_BAR);
  await saved(page);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/survey$/);
  const plain = text
    .replace(/![^!]*!|"\^[^"]*"|\((?!3)|\)/g, '')
    .replace(/^(Q:.*)$/m, 'Q:"Andante espressivo" 1/4=72')
    .replace(/H(?=[a-g^_=])/gi, '');
  const [made, printed] = [content(await shelved(page)), content(readMusicXml(readAbc(plain)))] as { notes: unknown; bars: unknown }[];
  expect(made.notes).toEqual(printed.notes);
  expect(made.bars).toEqual(printed.bars);
});

/** Short scores of three kinds, with what is particular to each. */
const KINDS: { name: string; head: Record<string, string>; text: string }[] = [
  {
    name: 'a minuet on two staves',
    head: { Instrument: 'Piano', Staves: 'two, one instrument', Key: 'G major', Meter: '3/4' },
    text: 'X:1\nT:a minuet on two staves\nM:3/4\nL:1/8\n%%score {A | B}\nV:A name="Piano"\nV:B clef=bass\nK:G\nV:A\nd2 GABc|d2 G2 G2|e2 cdef|g6|]\nV:B\n[G,B,]4 A,2|B,6|C6|B,2 G,2 D,2|]\n'
  },
  {
    name: 'a march for pipes',
    head: { Instrument: 'Highland bagpipe', Key: 'D major', Meter: '2/4' },
    text: 'X:1\nT:a march for pipes\nM:2/4\nL:1/8\nV:1 name="Highland bagpipe"\nK:D\n{Gdc}d>e {g}f2|{Gde}d2 {gAGAG}A2|{g}c>B {GdGe}A2|d4|]\n'
  },
  {
    name: 'a song',
    head: { Instrument: 'Voice', Key: 'E♭ major', Meter: '3/4' },
    text: 'X:1\nT:a song\nM:3/4\nL:1/4\nV:1 name="Voice"\nK:Eb\nE2 F|G A B|c B A|G3|]\nw:slow the wa-ter ri-ses on the stone\n'
  }
];

test('a minuet on two staves, a march for pipes with its graces and a song with its words are written by hand', async ({ page }) => {
  test.setTimeout(300_000);
  for (const { name, head, text } of KINDS) {
    const paper = fromTune(parseAbc(text))!.written;
    await begin(page, { Title: name, ...head });
    const hand = new Hand(page, paper);
    for (let lane = 0; lane < paper.lanes.length; lane++) {
      if (lane) {
        await page.getByRole('button', { name: 'lower staff', exact: true }).click();
        for (let n = 0; n <= paper.bars.length; n++) await page.keyboard.press('ArrowLeft');
      }
      for (let bar = 0; bar < paper.bars.length; bar++) await hand.notes(bar, lane);
    }
    const signs = paper.bars.flatMap((b) => b.lanes[0]);
    if (signs.some((s) => s.grace || s.lyrics.length)) {
      // Back to the first note; then from note to note.
      await page.keyboard.press('Escape');
      for (let n = 0; n < signs.length + 4; n++) await page.keyboard.press('ArrowLeft');
      for (const { lanes } of paper.bars) {
        let graces: string[] = [];
        for (const s of lanes[0]) {
          if (s.grace) graces.push(pitchName(s.pitches[0].pitch));
          else {
            if (graces.length) await hand.field('Grace notes before it', graces.join(' '));
            if (s.lyrics.length) await hand.field('Syllable', s.lyrics[0]);
            graces = [];
            await page.getByTestId('written').focus();
            await page.keyboard.press('ArrowRight');
          }
        }
      }
    }
    await saved(page);
    await page.getByRole('button', { name: 'Put it on the shelf' }).click();
    await page.waitForURL(/\/survey$/);
    expect(content(await shelved(page)), name).toEqual(content(readMusicXml(readAbc(text))));
  }
});

test('a bar is typed as ABC by who knows it; what is wrong in it is named', async ({ page }) => {
  await begin(page, { Title: 'Typed bars', Key: 'G major', Meter: '3/4' });
  await page.getByText('Or typed as ABC').click();
  const field = page.getByLabel('This bar; C is middle C, the unit an eighth');
  await field.fill('G2 ?A');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Bar 1: "?" has no meaning here (character 4).');
  await field.fill('G2 A>F (3Bcd');
  await field.press('Enter');
  await expect(page.getByTestId('written')).toHaveAttribute('aria-label', 'Bar 2, rhythm');
  await expect(page.locator('[data-testid=written] g.note')).toHaveCount(6);
});

test('signs, words, syllables, graces and two staves are put where they are printed; the mouse says pitches', async ({ page }) => {
  await begin(page, { Title: 'Two staves', Instrument: 'Piano', Staves: 'two, one instrument', Key: 'G major', Meter: '2/4' });
  const written = page.getByTestId('written');
  await page.keyboard.press('q');
  await page.keyboard.press('q');
  // The mouse: a click at the height of the top line is F sharp in G major.
  await expect(page.locator('[data-testid=written] g.note')).toHaveCount(2);
  await settled(page);
  const lines = await page
    .locator('[data-testid=written] g.measure#m0 g.staff')
    .first()
    .locator(':scope > path')
    .evaluateAll((paths) => paths.map((p) => p.getBoundingClientRect().top));
  const note = await page.locator('[data-testid=written] g.note.here').boundingBox();
  await page.mouse.click(note!.x + 3, Math.min(...lines));
  await expect(page.locator('[data-testid=written] g.note.unsaid')).toHaveCount(1);
  await page.keyboard.press('g');
  await page.keyboard.press('Escape');
  await expect(written).toHaveAttribute('aria-label', /signs/);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('j');
  await page.keyboard.press('g');
  await page.keyboard.press('ArrowLeft');
  await page.getByRole('button', { name: 'staccato', exact: true }).click();
  const field = async (label: string, value: string) => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await field('Words', 'dolce');
  await field('Syllable', 'tide');
  await field('Grace notes before it', 'G5');
  await page.getByRole('button', { name: 'lower staff', exact: true }).click();
  for (const key of 'h') await page.keyboard.press(key);
  await page.keyboard.press('g');
  await saved(page);
  // A reload goes on where it was; undo takes steps back in this window, here the pitch.
  await page.reload();
  await expect(page.locator('[data-testid=written] g.note')).toHaveCount(4);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/survey$/);
  const score = await shelved(page);
  expect(score.notes.map((n) => `${n.staff} ${n.pitch && pitchName(n.pitch)}${n.grace ? ' grace' : ''}`)).toEqual([
    '1 G5 grace',
    '1 F#5',
    '1 G5',
    '2 G3'
  ]);
  expect(score.slurs).toHaveLength(1);
  expect(score.hairpins).toHaveLength(1);
  expect(score.notes[1].marks?.map((m) => m.name)).toEqual(['staccato']);
  expect(score.notes[1].lyrics?.[0].text).toBe('tide');
  expect(score.directions.some((d) => d.kind === 'words' && d.text === 'dolce')).toBe(true);
});

test('a typed piece is opened again: a wrong note is mended, every marking stays, and the bar that does not add up is named', async ({
  page
}) => {
  await ownPiece(page, 'corrente.abc', 'Mended dance');
  await openRoom(page, 'Mended dance', 'Reading');
  const form = page.getByTestId('add-marking');
  await page.locator('.music').focus();
  for (const [k, kind, value] of [
    [0, 'dynamic', 'pp'],
    [1, 'articulation', 'tenuto'],
    [2, 'accent', 'accent']
  ] as const) {
    for (let n = 0; n < k; n++) await page.keyboard.press('Control+ArrowRight');
    await form.getByLabel('Kind').selectOption(kind);
    await form.getByLabel('What').selectOption(value);
    await form.getByRole('button', { name: 'Add' }).click();
    await page.locator('.music').focus();
  }
  await expect(page.getByTestId('open-count')).toContainText('3 marked');
  await saved(page);
  await page.getByRole('link', { name: 'Survey', exact: true }).click();
  const before = await shelved(page);
  await page.getByRole('button', { name: 'Correct the score' }).click();
  await page.waitForURL(/\/write\/\d+$/);
  await expect(page.locator('[data-testid=written] .system[data-drawn=true]').first()).toBeVisible();
  await settled(page);
  const head = await page.locator('[data-testid=written] g.measure#m0 g.note').first().locator('g.notehead').boundingBox();
  await page.mouse.click(head!.x + head!.width / 2, head!.y + head!.height / 2);
  await page.keyboard.press('ArrowUp');
  await saved(page);
  await page.getByRole('button', { name: 'Correct the piece on the shelf' }).click();
  await page.waitForURL(/\/reading/);
  await drawn(page);
  await expect(page.getByTestId('open-count')).toContainText('3 marked');
  const after = await shelved(page);
  expect(after.notes.map((n) => n.id)).toEqual(before.notes.map((n) => n.id));
  expect(after.notes.filter((n, k) => JSON.stringify(n.pitch) !== JSON.stringify(before.notes[k].pitch))).toHaveLength(1);
  // Undo in the reading goes on as before.
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('open-count')).toContainText('2 marked');
});

test('what is written is kept while the server does not answer, and sent when it does', async ({ page, context }) => {
  await begin(page, { Title: 'Stormy evening', Instrument: 'Flute' });
  await saved(page);
  await context.route('**/api/writings/*', (route) =>
    route.fulfill({ status: 507, json: { message: 'The disk of the server is full, so nothing can be stored.' } })
  );
  for (const key of 'wc') await page.keyboard.press(key);
  await expect(page.getByTestId('saved')).toContainText('not saved yet; kept here');
  await context.unroute('**/api/writings/*');
  await page.reload();
  await expect(page.locator('[data-testid=written] g.note')).toHaveCount(1);
  await saved(page);
});

test('what another window has changed is asked about, and neither state is lost; what was left unsent is offered', async ({
  page,
  context
}) => {
  await begin(page, { Title: 'Two windows', Instrument: 'Flute', Meter: '2/4' });
  await saved(page);
  const other = await context.newPage();
  await visit(other, page.url());
  const notes = (p: Page) => p.locator('[data-testid=written] g.note');
  await other.getByTestId('written').focus();
  await other.keyboard.press('h');
  await other.keyboard.press('g');
  await saved(other);
  for (const key of 'qq') await page.keyboard.press(key);
  await expect(page.getByRole('alert')).toContainText('changed in another window');
  // The window is closed before anything is decided: the next one asks again, with what was written here.
  const address = page.url();
  await page.close();
  await visit(other, address);
  await expect(other.getByRole('alert')).toContainText('changed in another window');
  await expect(notes(other)).toHaveCount(2);
  await other.getByRole('button', { name: 'take what was written there' }).click();
  await saved(other);
  await expect(notes(other)).toHaveCount(1);
  await other.keyboard.press('Control+z');
  await other.reload();
  await expect(notes(other)).toHaveCount(1);
  expect(await other.evaluate(() => Object.keys(localStorage).filter((k) => k.startsWith('nuvelo-writing')))).toEqual([]);
});

test('a head without a title, a meter that is none, a bar with too much: one sentence each', async ({ page }) => {
  await visit(page, '/write');
  await page.getByRole('button', { name: 'Begin to write' }).click();
  await expect(page.getByRole('alert')).toHaveText('The piece needs a title.');
  await begin(page, { Title: 'Short bars', Meter: '2/4' });
  for (const key of 'qh') await page.keyboard.press(key);
  await expect(page.getByRole('alert')).toHaveText('There is no room for it in this bar.');
  const refused = await page.request.post('/api/writings', { data: { head: {} } });
  expect(refused.status()).toBe(400);
  expect((await refused.json()).message).toMatch(/^The score is not as it should be: .*\.$/);
});

test('a MIDI file is looked at before it is taken; one that is none says so; the shelf says where it goes', async ({ page }) => {
  await visit(page, '/write');
  const chooser = page.getByTestId('midi-chooser');
  await chooser.setInputFiles({ name: 'notes.mid', mimeType: 'audio/midi', buffer: Buffer.from('nothing') });
  await expect(page.getByRole('alert')).toHaveText('This is no MIDI file, or it is damaged.');
  const score = readMusicXml(readAbc('X:1\nT:Tide\nM:3/4\nL:1/4\nQ:1/4=90\nK:F\nF A c|B2 A|G3|]\n'));
  const file = Buffer.from(midiFile(score, perform(playableScore(studyOf(score), 0), EMPTY_READING, true)));
  await chooser.setInputFiles({ name: 'Tide.mid', mimeType: 'audio/midi', buffer: file });
  const look = page.getByTestId('midi-look');
  await expect(look).toContainText('3 bars in 3/4');
  await expect(look).toContainText('nearest sixteenth');
  await expect(look.locator('g.note')).toHaveCount(6);
  await look.getByRole('button', { name: 'Take it into the writing room' }).click();
  await expect(page.locator('[data-testid=written] g.note')).toHaveCount(6);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/survey$/);
  expect((await shelved(page)).notes.map((n) => n.pitch && pitchName(n.pitch))).toEqual(['F4', 'A4', 'C5', 'Bb4', 'A4', 'G4']);
  await visit(page, '/');
  await page.getByTestId('chooser').setInputFiles({ name: 'Tide.mid', mimeType: 'audio/midi', buffer: file });
  await expect(page.getByRole('alert')).toContainText('This is a MIDI file: bring it in under Write');
});

test('a MIDI instrument plays rhythms and pitches in', async ({ page }) => {
  // A simulated instrument in place of the browser's own: one input whose messages the test sends.
  await page.addInitScript(() => {
    const target = new EventTarget();
    const input = Object.assign(target, {
      id: 'in-1',
      name: 'Harbour keys',
      manufacturer: '',
      type: 'input',
      state: 'connected',
      connection: 'open',
      version: '1',
      onmidimessage: null as ((e: unknown) => void) | null,
      open: () => Promise.resolve(),
      close: () => Promise.resolve()
    });
    const access = Object.assign(new EventTarget(), {
      inputs: new Map([['in-1', input]]),
      outputs: new Map(),
      onstatechange: null,
      sysexEnabled: false
    });
    Object.defineProperty(navigator, 'requestMIDIAccess', { value: () => Promise.resolve(access) });
    Object.assign(window, {
      strike: (key: number, at: number) => input.onmidimessage?.({ data: Uint8Array.from([0x90, key, 80]), timeStamp: at, target: input })
    });
  });
  const strike = (key: number, at: number) =>
    page.evaluate(([k, t]) => (window as unknown as { strike: (k: number, t: number) => void }).strike(k, t), [key, at]);
  await begin(page, { Title: 'Played in', Key: 'D major', Meter: '3/4' });
  await page.getByRole('button', { name: 'play in with a MIDI instrument' }).click();
  await expect(page.getByTestId('midi-in')).toHaveText('hears Harbour keys');
  // At 60: a half and a quarter.
  await page.getByLabel('quarters a minute').fill('60');
  for (const at of [1000, 3020, 3990]) await strike(62, at);
  await page.getByRole('button', { name: 'take it', exact: true }).click();
  await expect(page.getByTestId('written')).toHaveAttribute('aria-label', /pitches/);
  await strike(61, 9000);
  await strike(66, 9800);
  await strike(69, 9820);
  await expect(page.getByTestId('written')).toHaveAttribute('aria-label', /^Bar 2/);
  await saved(page);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/survey$/);
  expect((await shelved(page)).notes.map((n) => `${n.pitch && pitchName(n.pitch)} ${toNumber(n.duration)}`)).toEqual([
    'C#4 2',
    'F#4 1',
    'A4 1'
  ]);
});

test('the page beside it: a photo and a PDF are cut into systems and bars, shown at the bar, and stay with the piece', async ({
  page,
  browser
}) => {
  // The paper: the engraved lines of a typed tune, as a photo and as a PDF.
  await ownPiece(page, 'corrente.abc', 'Dance on paper');
  await openRoom(page, 'Dance on paper', 'Press');
  await expect(page.getByTestId('sheet').first().locator('svg, img').first()).toBeVisible();
  await visit(page, page.url().replace('/press', '/structure'));
  await page.waitForSelector('.system[data-drawn=true]');
  await page.addStyleTag({
    content: '.analysis, .tint, .ribbon, .tools, .side-panel { display: none !important; } .music { background: #fff; }'
  });
  await settled(page);
  const photo = await page.locator('.music').screenshot();
  const plain = await browser.newPage();
  await plain.setContent(`<img style="width:100%" src="data:image/png;base64,${photo.toString('base64')}">`);
  const pdf = await plain.pdf({ format: 'A4', printBackground: true });
  await plain.close();

  await begin(page, { Title: 'From the photo', Meter: '3/4', Upbeat: 'an eighth' });
  const chooser = page.getByTestId('paper-chooser');
  await chooser.setInputFiles({ name: 'torn.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.7 torn') });
  await expect(page.getByRole('alert')).toHaveText('“torn.pdf” is a damaged PDF, or it is locked.');
  await chooser.setInputFiles([
    { name: 'photo.png', mimeType: 'image/png', buffer: photo },
    { name: 'page.pdf', mimeType: 'application/pdf', buffer: pdf }
  ]);
  await page.getByRole('button', { name: 'how the pages are cut' }).click();
  const counts = page.getByTestId('cut-count');
  await expect(counts).toHaveCount(2);
  await expect(counts.first()).toHaveText(/^[4-9] systems, [23]\d bars$/);
  await expect(counts.nth(1)).toHaveText(/^[4-9] systems, [23]\d bars$/);
  // A click puts a bar line, another takes it away; undo; a page is taken away.
  const before = (await counts.first().textContent())!;
  const sheet = (await page.getByTestId('paper').first().boundingBox())!;
  const system = (await page.getByTestId('paper').first().locator('rect').first().boundingBox())!;
  const at = [sheet.x + sheet.width * 0.47, system.y + system.height / 2] as const;
  await page.mouse.click(...at);
  await expect(counts.first()).not.toHaveText(before);
  await page.getByRole('button', { name: 'Undo the last cut' }).click();
  await expect(counts.first()).toHaveText(before);
  await page.getByRole('button', { name: 'take this page away' }).nth(1).click();
  await expect(counts).toHaveCount(1);
  await page.getByRole('button', { name: 'go on writing' }).click();
  await expect(page.getByTestId('printed-bar').locator('img')).toBeVisible();
  await page.getByTestId('written').focus();
  for (const key of 'ea') await page.keyboard.press(key);
  await expect(page.getByTestId('printed-bar').locator('img')).toHaveAttribute('alt', 'Bar 1 in print');
  await saved(page);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/survey$/);
  for (const room of ['Structure', 'Reading']) {
    await page.getByRole('link', { name: room, exact: true }).click();
    await expect(page.getByTestId('in-print').locator('img')).toBeVisible();
  }
  const address = (await page.getByTestId('in-print').locator('img').getAttribute('src'))!;
  expect((await page.request.get(address)).headers()['content-type']).toBe('image/jpeg');
  const refused = await page.request.post(address.replace(/\/\d+$/, ''), { data: Buffer.from('<svg/>') });
  expect([refused.status(), (await refused.json()).message]).toEqual([
    415,
    'This is no picture: PNG and JPEG are taken, and the pages of a PDF.'
  ]);
});

/** A picture of noise, as large as a photo of a phone: nothing in it can be made smaller. */
function noisePng(size: number): Buffer {
  const rows = Buffer.alloc(size * (3 * size + 1));
  let state = 1;
  // Xorshift (Marsaglia 2003), 32 bits.
  for (let k = 0; k < rows.length; k++)
    rows[k] = k % (3 * size + 1) ? (state ^= state << 13) ^ (state ^= state >>> 17) ^ (state ^= state << 5) : 0;
  const chunk = (kind: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(kind), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(size, 0);
  head.writeUInt32BE(size, 4);
  head.set([8, 2], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows, { level: 1 })),
    chunk('IEND', Buffer.alloc(0))
  ]);
}

test('a picture of 20 MB and a book of 40 pages come in page by page; cut with the keyboard at 1024; nothing serious for axe', async ({
  page,
  browser
}) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  const picture = noisePng(2600);
  expect(picture.length).toBeGreaterThan(20_000_000);
  const plain = await browser.newPage();
  await plain.setContent(Array.from({ length: 40 }, (_, k) => `<p style="break-after: page">Page ${k + 1}</p>`).join(''));
  const book = await plain.pdf({ format: 'A5' });
  await plain.close();
  await begin(page, { Title: 'From a book' });
  // All that is said while they come in.
  await page.evaluate(() => {
    const said: string[] = ((window as unknown as { said: string[] }).said = []);
    new MutationObserver(() => {
      const now = document.querySelector('[data-testid=paper-progress]')?.textContent?.trim();
      if (now && said.at(-1) !== now) said.push(now);
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  await page.getByTestId('paper-chooser').setInputFiles([
    { name: 'photo.png', mimeType: 'image/png', buffer: picture },
    { name: 'book.pdf', mimeType: 'application/pdf', buffer: book }
  ]);
  await page.getByRole('button', { name: 'how the pages are cut' }).click();
  await expect(page.getByTestId('cut-count')).toHaveCount(41, { timeout: 90_000 });
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said);
  for (const words of ['photo.png: page 1 of 1', 'book.pdf: page 1 of 40', 'book.pdf: page 40 of 40'])
    expect(
      said.some((s) => s.includes(words)),
      words
    ).toBe(true);
  expect(said.length).toBeGreaterThan(20);
  const second = page.getByRole('region', { name: 'Page 2', exact: true });
  await second.getByRole('button', { name: 'a system here' }).focus();
  await page.keyboard.press('Enter');
  await second.getByRole('button', { name: 'a line in its widest bar' }).focus();
  await page.keyboard.press('Enter');
  await expect(second.getByTestId('cut-count')).toHaveText('1 system, 2 bars');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual([]);
});
