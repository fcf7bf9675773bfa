/** Imports as they run: in the workers of the built application. */
import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { takeIn } from '../../../src/lib/server/intake.ts';
import { endWorkers, runTask } from '../../../src/lib/server/jobs/run.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { findPiece, listPieces } from '../../../src/lib/server/repositories/pieces.ts';
import { download } from '../../../src/lib/server/send-file.ts';
import { longScore } from '../../../scripts/long-score.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { demo, demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-intake-'));
const db = await openDatabase(undefined, folder);
after(async () => {
  await endWorkers();
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const corrente = readFileSync(demoPath('corrente.abc'));
const tune = (number: number, title: string): string => `X:${number}\nT:${title}\nM:4/4\nL:1/4\nK:C\ncdef|g4|]\n`;
const take = (bytes: Uint8Array, answers = {}, progress: (stage: string) => void = () => {}, signal = new AbortController().signal) =>
  takeIn(db, OWNER, { name: 'harbour.abc', bytes }, answers, progress, signal);
const titles = async (): Promise<string[]> => (await listPieces(db)).map((p) => p.title).sort();

test('a file with two tunes is asked about; those that are chosen are pieces of their own', async () => {
  const two = Buffer.from(`${tune(1, 'The Buoy')}\n${tune(2, 'The Lamp')}`);
  assert.deepEqual(await take(two), { tunes: ['The Buoy', 'The Lamp'] });
  assert.deepEqual(await titles(), []);
  assert.equal(((await take(two, { tunes: [1] })) as { pieces: number[] }).pieces.length, 1);
  assert.deepEqual(await titles(), ['The Lamp']);
  await take(two, { tunes: [0, 1], again: true });
  assert.deepEqual(await titles(), ['The Buoy', 'The Lamp', 'The Lamp']);
  await assert.rejects(take(two, { tunes: [7] }), /None of the tunes/);
});

test('the same file a second time: it is said which piece it is, and nothing is stored until one insists', async () => {
  const [id] = ((await take(corrente)) as { pieces: number[] }).pieces;
  const before = await titles();
  assert.deepEqual(await take(corrente), { already: { piece: id, title: 'Corrente in D minor' } });
  assert.deepEqual(await titles(), before);
  assert.ok('pieces' in (await take(corrente, { again: true }))!);
  assert.equal((await titles()).length, before.length + 1);
});

test('an import that is stopped, also at the last moment, leaves nothing on the shelf', async () => {
  const before = await titles();
  const text = Buffer.from(tune(3, 'The Rope'));
  // Stopped at each thing that it says, and last of all when the piece is being stored.
  const stages: string[] = [];
  await take(text, { again: true }, (stage) => stages.push(stage)).then(async (taken) => {
    assert.ok(taken && 'pieces' in taken);
  });
  const withRope = await titles();
  assert.equal(withRope.length, before.length + 1);
  for (const stage of stages) {
    const stop = new AbortController();
    const taken = await take(text, { again: true }, (said) => said === stage && stop.abort(), stop.signal).catch(
      (error: Error) => error.message
    );
    assert.ok(taken === null || taken === 'The work was stopped.', String(taken));
    assert.deepEqual(await titles(), withRope);
  }
  // The signal comes while the database writes: whoever asks next sees it stopped.
  let asked = 0;
  const late = {
    get aborted() {
      return ++asked > 2;
    },
    addEventListener() {},
    removeEventListener() {}
  } as unknown as AbortSignal;
  assert.equal(await take(text, { again: true }, () => {}, late), null);
  assert.deepEqual(await titles(), withRope);
});

test(
  'a long task does not hold up a short one, and no more than two are worked on at once',
  { skip: availableParallelism() < 2 },
  async () => {
    const order: string[] = [];
    const run = (name: string, bytes: Uint8Array): Promise<void> => {
      const begins = (): void => void (order.includes(`${name} begins`) || order.push(`${name} begins`));
      return runTask('intake', { bytes, fileName: 'long.abc' }, begins).then(() => void order.push(`${name} ends`));
    };
    const long = Buffer.from(longScore(400));
    await Promise.all([run('first', long), run('second', long), run('third', corrente)]);
    const at = (what: string): number => order.indexOf(what);
    const firstEnd = Math.min(at('first ends'), at('second ends'));
    assert.ok(Math.max(at('first begins'), at('second begins')) < firstEnd, order.join(', '));
    assert.ok(at('third begins') > firstEnd, order.join(', '));
  }
);

test('everything that a task says is heard before it is done', async () => {
  const input = {
    document: demo('etude.abc').text,
    others: [],
    reading: EMPTY_READING,
    names: { title: 'Étude', composer: '', instrument: '', source: 'The source' },
    facts: null
  };
  for (let round = 0; round < 3; round++)
    await Promise.all(
      [1, 2].map(async () => {
        const pages: string[] = [];
        const { count } = await runTask('pages', { frozen: JSON.stringify(input) }, (_, page) => void (page && pages.push(page)));
        assert.equal(pages.length, count);
        assert.ok(count > 1);
      })
    );
});

test('a title as long as a page is one line on the shelf, in file names and in headers', async () => {
  const long = Buffer.from(tune(9, `The “Tide”; with \u202Ea turn and 潮 ${'and more '.repeat(800)}`));
  const [id] = ((await take(long)) as { pieces: number[] }).pieces;
  const { title } = (await findPiece(db, id))!;
  assert.equal(title.length, 200);
  assert.ok(title.startsWith('The “Tide”; with a turn and 潮 and more') && title.endsWith('…'), title);
  const header = download(new Uint8Array(), 'application/pdf', title, '.pdf').headers.get('content-disposition')!;
  assert.match(header, /^attachment; filename="the-tide-with-a-turn-and-and-more[a-z-]*\.pdf"; filename\*=UTF-8''[\w%.!~*'()-]+\.pdf$/);
  assert.ok(header.length < 600);
  // Nothing in a title ends the name or the header.
  assert.match(download('', 'text/plain', '"\r\nx: y/../', '.md').headers.get('content-disposition')!, /filename="x-y\.md"/);
});
