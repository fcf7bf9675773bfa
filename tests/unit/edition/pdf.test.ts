import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import fc from 'fast-check';
import { PDFDocument } from 'pdf-lib';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { demoLog } from '../../../demo/studio.ts';
import { fillPages, USUAL_PAGES, type PageSettings } from '../../../src/core/edition/paper.ts';
import { replay } from '../../../src/core/reading/commands.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { demo } from '../helpers.ts';

async function pdfOf(file: string, settings: Partial<PageSettings> = {}): Promise<Uint8Array> {
  const { text, score } = demo(file);
  const bytes = readFileSync(join(import.meta.dirname, '../../../demo/scores', file));
  const reading = replay(
    demoLog(
      DEMO_READINGS.find((r) => r.file === file)!,
      bytes
    )
  );
  const instrument = score.parts.map((p) => p.name).join(', ');
  return TASKS.pdf(
    { document: text, reading, title: score.title, composer: score.composer, instrument, settings: { ...USUAL_PAGES, ...settings } },
    () => {}
  );
}

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
      ['Preface', 'Music', 'Commentary']
    );
    assert.ok(outline[1].inside.length >= 2, `${file}: sections are marked`);
    // Bar numbers stand at the beginnings of systems after the first.
    const numbers = [...pages[1].matchAll(/\b\d+\b/g)].map((m) => Number(m[0]));
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

test('blocks fill pages in order, none leaves its page, none overlaps another', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 20, max: 300, noNaN: true }), { minLength: 1, maxLength: 40 }), (heights) => {
      const placed = fillPages(heights, 500, 700, 12);
      assert.deepEqual(
        placed.map((p) => p.block),
        heights.map((_, k) => k)
      );
      placed.forEach((p, k) => {
        const before = placed[k - 1];
        assert.ok(p.y + heights[k] <= (p.page === 0 ? 500 : 700) + 1e-6);
        if (before) assert.ok(p.page > before.page || p.y >= before.y + heights[k - 1] + 12 - 1e-6);
      });
    })
  );
});
