/** What was stored earlier and fits no more, and what is long. */
import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { readingAt, replay } from '../../../src/core/reading/log.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { commands, editions, firstPictures, snapshots, studies } from '../../../src/lib/server/db/schema.ts';
import { endWorkers } from '../../../src/lib/server/jobs/run.ts';
import { FORMATS, type Format } from '../../../src/lib/server/formats.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { addPiece, emptyBin, findStudy, listPieces, removePiece } from '../../../src/lib/server/repositories/pieces.ts';
import { append, findSnapshot, firstReading } from '../../../src/lib/server/repositories/readings.ts';
import { standingOf } from '../../../src/lib/server/standing.ts';
import { studyOfSource } from '../../../src/lib/server/studies.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-stored-'));
const db = await openDatabase(undefined, folder);
after(async () => {
  await endWorkers();
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const studio = new Studio(db, OWNER);
const bytes = readFileSync(demoPath('corrente.abc'));
const intake = TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {});
const add = () => addPiece(db, 'corrente.abc', bytes, intake);
const reading = async (piece: number) => (await firstReading(db, piece))!.id;
const store = async (readingId: number, log: readonly Command[], from = 0): Promise<void> => {
  for (let k = 0; k < log.length; k += 400)
    await db.insert(commands).values(log.slice(k, k + 400).map((command, i) => ({ readingId, seq: from + k + i + 1, command })));
};
const never = new AbortController().signal;

test('acts that an earlier version stored and that no part or bar can hold break nothing: files come, with a remark', async () => {
  const wrong: Command[] = [
    { type: 'set-part', part: 7 },
    { type: 'set-peak', measure: 5000 },
    { type: 'add-marking', marking: { id: 'a', kind: 'dynamic', value: 'p', part: 9, staff: 1, start: { n: 0, d: 1 }, because: [] } },
    { type: 'add-marking', marking: { id: 'b', kind: 'dynamic', value: 'p', part: 0, staff: 1, start: { n: 1e14, d: 1 }, because: [] } },
    {
      type: 'add-marking',
      marking: {
        ...{ id: 'c', kind: 'dynamic', value: 'p', part: 0, staff: 1, start: { n: 0, d: 1 } },
        because: [{ text: 'So.', sources: ['nobody' as 'common'] }]
      }
    },
    {
      type: 'choose-source',
      source: 'f'.repeat(64),
      difference: 'd',
      choice: { source: 'f'.repeat(64), difference: 'd', take: 'theirs', because: '', on: '2026-11-20' }
    }
  ];
  const id = await reading((await add()).id);
  await store(id, wrong);
  const own = await studio.reading(id);
  for (const format of Object.keys(FORMATS) as Format[]) assert.ok((await own.file(format, () => {}, never)).length > 100, format);
  const text = new TextDecoder().decode(await own.file('md', () => {}, never));
  assert.match(text, /Left out/);
  assert.match(text, /for part 8, which the piece does not have; the first one is taken\./);
  assert.match(text, /2 markings hang where the piece has no notes and are left out\./);
  assert.ok((await own.pages(() => {}, never)) > 0);
  // Whatever a worker has read before: another piece in between changes nothing.
  const again = new TextDecoder().decode(await own.file('musicxml', () => {}, never));
  await (await studio.reading(await reading((await add()).id))).file('musicxml', () => {}, never);
  assert.equal(await TASKS.file({ source: await own.source(), format: 'musicxml' }, () => {}), again);
});

test('of forty thousand acts the last ones are sent, and where they stand is the same', async () => {
  const id = await reading((await add()).id);
  const log = Array.from({ length: 40_000 }, (_, k): Command =>
    k % 10 === 9 ? { type: 'undo' } : { type: 'request-tempo', range: { low: 60 + (k % 40), high: 120 + (k % 100) } }
  );
  await store(id, log);
  const whole = await standingOf(db, id, OWNER);
  assert.deepEqual(readingAt(whole), replay(log));
  assert.equal(whole.revision, 40_000);
  assert.ok(JSON.stringify(whole).length < 100_000, `${JSON.stringify(whole).length} letters`);
  assert.equal((await findSnapshot(db, id)).revision, 40_000);
  // From there on: only what came after is looked at, and it comes to the same.
  await store(id, [{ type: 'undo' }, { type: 'set-period', period: 'modern' }], 40_000);
  assert.deepEqual(
    readingAt(await standingOf(db, id, OWNER)),
    replay([...log, { type: 'undo' }, { type: 'set-period', period: 'modern' }])
  );
  assert.equal((await db.select().from(snapshots)).find((s) => s.readingId === id)!.seq, 40_000);
  // In portions they come all.
  const own = await studio.reading(id);
  let at = 0;
  for (let more = true; more;) {
    const portion = await own.actsAfter(at, null);
    assert.ok(portion.acts.length <= 2000);
    at += portion.acts.length;
    more = portion.more;
  }
  assert.equal(at, 40_002);
});

test('a study that a new engine asks for is worked out once, for however many ask', async () => {
  const piece = await add();
  await db.delete(studies);
  const counted = await Promise.all(Array.from({ length: 20 }, () => studyOfSource(db, piece.sourceHash, OWNER)));
  assert.equal(new Set(counted.map((s) => s.facts)).size, 1);
  // All were given the very same thing: had it been worked out twice, there would be two.
  assert.equal(new Set(counted).size, 1);
  assert.ok(await findStudy(db, piece.sourceHash));
});

test('a file of the same state is made once; of another state anew', async () => {
  const id = await reading((await add()).id);
  const first = await (await studio.reading(id)).file('pdf', () => {}, never);
  assert.equal(await (await studio.reading(id)).file('pdf', () => {}, never), first);
  await store(id, [{ type: 'set-period', period: 'modern' }]);
  assert.notEqual(await (await studio.reading(id)).file('pdf', () => {}, never), first);
});

test('what is taken off the shelf lies in the bin; after thirty days it goes, but nothing that was frozen', async () => {
  const [one, two] = [await add(), await add()];
  await db.insert(editions).values({ pieceId: two.id, number: 1, readingName: 'A', note: '', content: {}, pdf: Buffer.from('%PDF-') });
  for (const { id } of [one, two]) await (await studio.piece(id)).remove();
  await assert.rejects(studio.piece(one.id), {
    status: 404,
    body: { message: 'This piece lies in the bin; take it back to go on with it.' }
  });
  await assert.rejects(studio.reading(await reading(one.id)), { status: 404 });
  assert.deepEqual(
    (await studio.bin()).map((p) => [p.id, p.editions]),
    [
      [two.id, 1],
      [one.id, 0]
    ]
  );
  await studio.takeBack(one.id);
  assert.equal((await studio.piece(one.id)).row.id, one.id);
  await (await studio.piece(one.id)).remove();
  assert.equal(await emptyBin(db), 0);
  await db.$client.execute('update pieces set removed_at = removed_at - 31 * 86400 where removed_at is not null');
  assert.equal(await emptyBin(db), 1);
  assert.deepEqual(
    (await studio.bin()).map((p) => p.id),
    [two.id]
  );
  await assert.rejects(studio.removeForGood(two.id, false), { status: 409 });
  await studio.removeForGood(two.id, true);
  assert.deepEqual(await studio.bin(), []);
  await assert.rejects(studio.removeForGood((await add()).id, true), { status: 404 });
});

test('the shelf says how far each piece has come, in which group it stands, and which period was chosen last', async () => {
  const piece = await add();
  const mine = async () => (await studio.shelf()).pieces.find((p) => p.id === piece.id)!;
  assert.deepEqual([(await mine()).acts, (await mine()).editions, (await mine()).group, (await mine()).openedAt], [0, 0, null, null]);
  const one = await studio.piece(piece.id);
  await one.moveTo('For the jury');
  await one.opened();
  const [{ id }] = await one.readings();
  const chosen: Command = { type: 'set-period', period: 'romantic' };
  await append(db, id, 0, [{ command: { type: 'together', what: 'a draft', commands: [chosen] }, origin: null }]);
  await append(db, id, 1, [{ command: { type: 'set-peak', measure: 3 }, origin: null }]);
  const now = await mine();
  assert.deepEqual([now.acts, now.group, now.period], [2, 'For the jury', 'romantic']);
  assert.ok(Math.abs(now.openedAt! - Date.now() / 1000) < 5);
  await one.moveTo(null);
  assert.equal((await mine()).group, null);
  assert.equal((await studio.shelf()).pieces.length, (await listPieces(db)).length);
});

test('the first systems of a source are engraved once, kept with it, and go with it', async () => {
  const piece = await add();
  const wide = await studio.picture(piece.sourceHash, 'wide');
  assert.ok((wide.match(/class="system/g) ?? []).length >= 3 && wide.includes('<svg'));
  const narrow = await studio.picture(piece.sourceHash, 'narrow');
  const bars = (svg: string): number => (svg.match(/class="measure/g) ?? []).length;
  assert.ok(bars(narrow) < bars(wide), 'a phone shows fewer bars in as many lines');
  await db.update(firstPictures).set({ svg: 'kept' });
  assert.equal(await studio.picture(piece.sourceHash, 'wide'), 'kept');
  // Of an earlier engine it is made anew.
  await db.update(firstPictures).set({ engine: 'earlier' });
  assert.match(await studio.picture(piece.sourceHash, 'wide'), /class="system/);
  await assert.rejects(studio.picture('0'.repeat(64), 'wide'), { status: 404 });
  for (const { id } of (await studio.shelf()).pieces) await removePiece(db, id);
  for (const { id } of await studio.bin()) await removePiece(db, id);
  assert.deepEqual(await db.select().from(firstPictures), []);
});
