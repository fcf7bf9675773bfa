import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { demoLog } from '../../../demo/studio.ts';
import type { EditionInput } from '../../../src/core/edition/open-edition.ts';
import { replay } from '../../../src/core/reading/log.ts';
import type { PageSettings } from '../../../src/core/reading/page-settings.ts';
import type { EditionSource } from '../../../src/lib/server/jobs/edition-source.ts';
import { demo } from '../helpers.ts';

/** The edition of a demo piece in its demo reading. */
export function demoInput(file: string, pages: Partial<PageSettings> = {}): EditionInput {
  const { text, score } = demo(file);
  const bytes = readFileSync(join(import.meta.dirname, '../../../demo/scores', file));
  const reading = replay(
    demoLog(
      DEMO_READINGS.find((r) => r.file === file)!,
      bytes
    )
  );
  return {
    document: text,
    others: [],
    reading: { ...reading, pages: { ...reading.pages, ...pages } },
    names: {
      title: score.title,
      composer: score.composer,
      instrument: score.parts.map((p) => p.name).join(', '),
      source: 'The print of the school'
    },
    facts: null
  };
}

/** The same as it is handed to a worker. */
export const frozen = (input: EditionInput): EditionSource => ({ frozen: JSON.stringify(input) });
