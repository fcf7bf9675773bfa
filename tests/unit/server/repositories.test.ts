import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { demoLog } from '../../../demo/studio.ts';
import { openDatabase } from '../../../src/lib/server/db/client.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { addPiece, findDocument, findPiece, findStudy, listPieces, removePiece } from '../../../src/lib/server/repositories/pieces.ts';
import {
  append,
  copyReading,
  firstReading,
  listReadings,
  logAfter,
  removeReading,
  renameReading
} from '../../../src/lib/server/repositories/readings.ts';
import { appendSchema } from '../../../src/lib/server/schemas.ts';
import type { Command } from '../../../src/core/reading/commands.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const path = join(import.meta.dirname, '../../../demo/scores/corrente.abc');
const bytes = readFileSync(path);
const add = () =>
  addPiece(
    db,
    'corrente.abc',
    bytes,
    TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {})
  );
const command = (value: string): Command => ({ type: 'set-period', period: value as 'baroque' });

test('the database is in write-ahead mode with foreign keys on', async () => {
  assert.equal((await db.$client.execute('PRAGMA journal_mode')).rows[0].journal_mode, 'wal');
  assert.equal(Number((await db.$client.execute('PRAGMA foreign_keys')).rows[0].foreign_keys), 1);
  await assert.rejects(db.$client.execute("INSERT INTO readings (piece_id, name) VALUES (9999, 'x')"));
});

test('a piece is stored with its source, study and reading; the source once', async () => {
  const piece = await add();
  assert.equal(piece.title, 'Corrente in D minor');
  await add();
  assert.equal((await listPieces(db)).length, 2);
  assert.equal(Number((await db.$client.execute('SELECT count(*) AS n FROM sources')).rows[0].n), 1);
  assert.match((await findDocument(db, piece.sourceHash))!, /<score-partwise/);
  assert.ok((JSON.parse((await findStudy(db, piece.sourceHash))!.facts) as Facts).chords.length > 10);
});

test('two writers: the later one learns what it missed and nothing is lost', async () => {
  const reading = (await firstReading(db, (await add()).id))!;
  assert.deepEqual(await append(db, reading.id, 0, [command('baroque')]), { revision: 1 });
  const late = await append(db, reading.id, 0, [command('romantic')]);
  assert.deepEqual(late, { conflict: true, revision: 1, missed: [command('baroque')] });
  assert.deepEqual(await append(db, reading.id, 1, [command('romantic')]), { revision: 2 });
  const race = await Promise.all([append(db, reading.id, 2, [command('classical')]), append(db, reading.id, 2, [command('baroque')])]);
  assert.deepEqual(race.map((r) => 'conflict' in r).sort(), [false, true]);
  assert.equal((await logAfter(db, reading.id, 0)).length, 3);
});

test('a piece leaves the shelf with its readings', async () => {
  const piece = await add();
  const reading = (await firstReading(db, piece.id))!;
  await append(db, reading.id, 0, [command('baroque')]);
  assert.equal(await removePiece(db, piece.id), true);
  assert.equal(await findPiece(db, piece.id), undefined);
  assert.deepEqual(await logAfter(db, reading.id, 0), []);
  assert.equal(await removePiece(db, piece.id), false);
});

test('commands from outside are checked field by field', () => {
  const check = (c: unknown) => appendSchema.validate({ base: 0, commands: [c] }).error?.message ?? null;
  assert.equal(check({ type: 'undo' }), null);
  assert.ok(check({ type: 'drop-table' }));
  assert.ok(check({ type: 'set-period', period: 'jurassic' }));
  assert.ok(check({ type: 'add-marking', marking: { id: 'x', kind: 'dynamic' } }));
  assert.ok(
    check({
      type: 'add-marking',
      marking: { id: '<script>', kind: 'dynamic', value: 'p', part: 0, staff: 1, start: { n: 0, d: 1 }, because: [] }
    })
  );
  assert.ok(check({ type: 'pin', pin: { id: 'p', kind: 'key', start: { n: 0, d: 0 }, end: { n: 1, d: 1 }, key: 'C major' } }));
});

test('acts are stored as they were sent: checking changes nothing in them', () => {
  for (const demo of DEMO_READINGS) {
    const commands = demoLog(demo, readFileSync(join(import.meta.dirname, '../../../demo/scores', demo.file)));
    assert.ok(commands.some((c) => c.type === 'answer-school' && /^\d{4}-\d\d-\d\d$/.test(c.on)));
    const { error, value } = appendSchema.validate({ base: 0, commands });
    assert.equal(error, undefined);
    assert.deepEqual((value as { commands: Command[] }).commands, commands);
  }
});

test('a reading is copied with its acts; the copy goes its own way; the last one stays', async () => {
  const piece = await add();
  const first = (await firstReading(db, piece.id))!;
  await append(db, first.id, 0, [command('baroque')]);
  const copy = (await copyReading(db, first.id, 'For the jury'))!;
  assert.deepEqual(await logAfter(db, copy.id, 0), await logAfter(db, first.id, 0));
  await append(db, copy.id, 1, [command('romantic')]);
  assert.equal((await logAfter(db, first.id, 0)).length, 1);
  assert.equal((await logAfter(db, copy.id, 0)).length, 2);
  assert.ok(await renameReading(db, copy.id, 'For the recital'));
  assert.deepEqual(
    (await listReadings(db, piece.id)).map((r) => r.name),
    ['First reading', 'For the recital']
  );
  assert.equal(await removeReading(db, first.id), 'removed');
  assert.equal(await removeReading(db, copy.id), 'last');
  assert.equal(await removeReading(db, first.id), 'missing');
  assert.equal(await copyReading(db, 99_999, 'x'), undefined);
});

test('several acts together are checked like single ones', () => {
  const good = { base: 0, commands: [{ type: 'together', what: 'two', commands: [command('baroque'), { type: 'set-peak', measure: 3 }] }] };
  assert.equal(appendSchema.validate(good).error, undefined);
  const bad = { base: 0, commands: [{ type: 'together', what: 'two', commands: [{ type: 'set-peak', measure: -1 }] }] };
  assert.ok(appendSchema.validate(bad).error);
  const nested = { base: 0, commands: [{ type: 'together', what: 'two', commands: [good.commands[0]] }] };
  assert.ok(appendSchema.validate(nested).error);
});
