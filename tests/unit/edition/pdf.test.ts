import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PDFDocument } from 'pdf-lib';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { fillPages } from '../../../src/core/edition/pages/fill.ts';
import { turnsAfter } from '../../../src/core/edition/turns.ts';
import type { PageSettings } from '../../../src/core/reading/page-settings.ts';
import { editionFile } from '../../../src/lib/server/jobs/edition-file.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { abc, demo } from '../helpers.ts';
import { demoInput, frozen } from './input.ts';

const pdfOf = async (file: string, pages: Partial<PageSettings> = {}): Promise<Uint8Array> =>
  (await editionFile(demoInput(file, pages), 'pdf', () => {})) as Uint8Array;

// Reference readers: pdf.js and pdf-lib, of other hands.
async function read(bytes: Uint8Array) {
  const warnings: string[] = [];
  const { warn } = console;
  console.warn = (...words: unknown[]) => void warnings.push(words.join(' '));
  try {
    const task = getDocument({ data: Uint8Array.from(bytes), verbosity: VerbosityLevel.WARNINGS, useSystemFonts: false });
    const pdf = await task.promise;
    const pages: string[] = [];
    for (let k = 1; k <= pdf.numPages; k++) {
      const { items } = await (await pdf.getPage(k)).getTextContent();
      pages.push(items.map((i) => ('str' in i ? i.str : '')).join(' '));
    }
    const outline = ((await pdf.getOutline()) ?? []).map((o) => ({
      title: o.title,
      inside: o.items.map((i: { title: string }) => i.title)
    }));
    await task.destroy();
    return { pages, outline, warnings };
  } finally {
    console.warn = warn;
  }
}

test('every demo piece as a PDF: title, bar numbers and commentary can be read, bookmarks lead, two readers open it without a warning', async () => {
  for (const { file } of DEMO_READINGS) {
    const { score } = demo(file);
    const bytes = await pdfOf(file);
    const { pages, outline, warnings } = await read(bytes);
    assert.deepEqual(warnings, [], file);
    const text = pages.join('\n');
    assert.ok(pages[0].includes(score.title) && pages[0].includes(score.composer), file);
    assert.match(pages[0], /Preface/);
    assert.match(text, /Commentary/);
    assert.deepEqual(
      outline.map((o) => o.title),
      ['Preface', 'Signs', 'Music', 'Commentary', 'Questions and answers']
    );
    assert.ok(outline[2].inside.length >= 2, `${file}: sections are marked`);
    // Bar numbers stand at the beginnings of systems after the first.
    const numbers = [...text.slice(pages[0].length).matchAll(/\b\d+\b/g)].map((m) => Number(m[0]));
    assert.ok(
      numbers.some((n) => n > 1 && n <= score.measures.length),
      file
    );
    const other = await PDFDocument.load(bytes);
    assert.equal(other.getPageCount(), pages.length);
    assert.equal(other.getTitle(), score.title);
    assert.deepEqual([Math.round(other.getPage(0).getWidth()), Math.round(other.getPage(0).getHeight())], [595, 842]);
  }
});

test('paper, direction, size of the staff and what is shown follow the settings', async () => {
  const letter = await PDFDocument.load(await pdfOf('etude.abc', { paper: 'Letter', landscape: true, variant: 'performance' }));
  assert.deepEqual([letter.getPage(0).getWidth(), letter.getPage(0).getHeight()], [792, 612]);
  const [usual, large] = await Promise.all([
    pdfOf('andantino.abc', { variant: 'performance' }),
    pdfOf('andantino.abc', { variant: 'performance', staff: 'large' })
  ]);
  assert.ok((await PDFDocument.load(large)).getPageCount() > (await PDFDocument.load(usual)).getPageCount());
  const played = await read(usual);
  assert.ok(!/Preface|Commentary/.test(played.pages.join(' ')));
  assert.match(played.pages.join(' '), /\[left hand lighter\]/);
  const bare = (await read(await pdfOf('andantino.abc', { variant: 'blank' }))).pages.join(' ');
  assert.ok(!bare.includes('['), 'nothing editorial in the bare source');
});

test('systems fill pages in order, none leaves its page, none overlaps another, and the last two pages share what is left', () => {
  const system = fc.record({
    height: fc.double({ min: 20, max: 300, noNaN: true }),
    turn: fc.constantFrom(0, 0, 0.5, 1),
    foot: fc.constant(null)
  });
  // Under a long text little may be left.
  const room = { first: 150, other: 700, gap: 12, width: 400 };
  fc.assert(
    fc.property(fc.array(system, { minLength: 1, maxLength: 40 }), (systems) => {
      const pages = [...fillPages(systems, systems.length, room)];
      assert.deepEqual(
        pages.flatMap((p) => p.y.map((_, k) => p.from + k)),
        systems.map((_, k) => k)
      );
      pages.forEach((p, page) => {
        p.y.forEach((y, k) => {
          const { height } = systems[p.from + k];
          assert.ok(y + height <= (page === 0 ? room.first : room.other) + 1e-6);
          if (k) assert.ok(y >= p.y[k - 1] + systems[p.from + k - 1].height + 12 - 1e-6);
        });
      });
    })
  );
});

test('a page ends where there is a rest to turn in, unless it would stay too empty', () => {
  const room = { first: 500, other: 500, gap: 0, width: 400 };
  const at = (turns: number[]) =>
    [
      ...fillPages(
        turns.map((turn) => ({ height: 100, turn, foot: null })),
        turns.length,
        room
      )
    ].map((p) => p.to);
  assert.equal(at([0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0])[0], 4);
  assert.equal(at([0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0])[0], 5);
  // A page with two systems of five is too empty, however long the rest.
  assert.equal(at([0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0])[0], 5);
  // Six systems on two pages: four and two, for three would leave a page less than two thirds full.
  assert.deepEqual(at([0, 0, 0, 0, 0, 0]), [4, 6]);
  assert.deepEqual(at([0, 0, 0, 0, 0, 0, 0, 0]), [4, 8]);
});

test('rests before and after a bar line are what a page is turned in', () => {
  const score = abc('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCDEF|GABc|C2 z2|z2 G2|c4|');
  const turns = turnsAfter(score, { part: 0, markings: [] });
  assert.deepEqual(turns.slice(0, 2), [0, 0]);
  assert.equal(turns[2], 1);
  assert.ok(turns[3] < 0.1);
});

test('print and PDF agree: the SVG pages that the browser prints hold the same words at the same places as the PDF', async () => {
  for (const { file } of DEMO_READINGS) {
    const input = demoInput(file);
    const svgs: string[] = [];
    await TASKS.pages(frozen(input), (_stage, page) => void (page && svgs.push(page)));
    const { pages } = await read((await editionFile(input, 'pdf', () => {})) as Uint8Array);
    assert.equal(svgs.length, pages.length, file);
    const words = (text: string): string[] =>
      text
        .replace(/[\uE000-\uF8FF]/g, '')
        // The letters of the PDF have no flat sign.
        .replace(/♭/g, 'b')
        .split(/\s+/)
        .filter(Boolean)
        .sort();
    svgs.forEach((svg, k) => {
      const drawn = [...svg.matchAll(/<text\b[^>]*>([\s\S]*?)<\/text>/g)]
        .map((m) => m[1].replace(/<\/tspan>/g, ' ').replace(/<[^>]*>/g, ''))
        .join(' ')
        .replace(/&lt;/g, '<')
        .replace(/&gt;/g, '>')
        .replace(/&quot;/g, '"')
        .replace(/&apos;|&#39;/g, "'")
        .replace(/&amp;/g, '&');
      assert.deepEqual(words(drawn).join(' '), words(pages[k]).join(' '), `${file}, page ${k + 1}`);
    });
  }
});

test('what is shown can be chosen: rows, skeleton, ornaments, kinds of markings, and the card', async () => {
  const text = async (pages: Partial<PageSettings>): Promise<string> => (await read(await pdfOf('andantino.abc', pages))).pages.join(' ');
  const music = (show: PageSettings['show'], hidden: PageSettings['hidden'] = []) => text({ variant: 'study', show, hidden });
  assert.match(await music(['chords']), /V\s*7|V65|V7/);
  assert.match(await music(['keys']), /F major/);
  assert.match(await music(['phrases']), /phrase 1.*phrase 2/s);
  assert.match(await music(['ornaments']), /bar 7, beat 3/);
  assert.match(await music(['questions']), /Questions and answers/);
  const bare = await music([], ['text', 'dynamic']);
  assert.ok(!/phrase 1\b/.test(bare) && !bare.includes('[left hand lighter]') && !bare.includes('Questions and answers'));
  const pictures = async (pages: Partial<PageSettings>): Promise<number> => {
    let staves = 0;
    await TASKS.pages(
      frozen(demoInput('andantino.abc', pages)),
      (_s, page) => void (staves += page?.match(/transform="matrix/g)?.length ?? 0)
    );
    return staves;
  };
  assert.ok(
    (await pictures({ variant: 'performance', show: ['skeleton'] })) > 1.1 * (await pictures({ variant: 'performance', show: [] }))
  );
  const card = await read(await pdfOf('andantino.abc', { variant: 'card' }));
  assert.equal(card.pages.length, 1);
  assert.match(card.pages[0], /Form.*Tempo.*88.*Peak:.*bar 16.*To remember.*1\./s);
});
