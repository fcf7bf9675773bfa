import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-client-'));
after(() => rmSync(folder, { recursive: true }));
process.env.DATA_DIR = join(folder, 'data');

test('an opening that failed is tried again by the next who asks; one that succeeded is shared', async () => {
  const { database } = await import('../../../src/lib/server/db/client.ts');
  // Where the folder should be stands a file.
  writeFileSync(process.env.DATA_DIR!, '');
  await assert.rejects(database(), /cannot be made/);
  rmSync(process.env.DATA_DIR!);
  const [one, two] = await Promise.all([database(), database()]);
  assert.equal(one, two);
  assert.equal(await database(), one);
  one.$client.close();
});
