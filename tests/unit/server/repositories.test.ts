import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { DEMO_READINGS } from '../../../demo/readings.ts';
import { demoLog } from '../../../demo/studio.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { addPiece, findDocument, findPiece, findStudy, listPieces, removePiece } from '../../../src/lib/server/repositories/pieces.ts';
import {
  append,
  copyReading,
  firstReading,
  listReadings,
  logOf,
  removeReading,
  renameReading
} from '../../../src/lib/server/repositories/readings.ts';
import { appendSchema } from '../../../src/lib/server/schemas.ts';
import type { Act } from '../../../src/core/reading/log.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';

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
const act = (value: string): Act => ({ origin: null, command: command(value) });

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
  assert.deepEqual(await append(db, reading.id, 0, [act('baroque')]), { revision: 1, already: [] });
  const late = await append(db, reading.id, 0, [act('romantic')]);
  assert.deepEqual(late, { conflict: true, revision: 1, missed: [act('baroque')] });
  assert.deepEqual(await append(db, reading.id, 1, [act('romantic')]), { revision: 2, already: [] });
  const race = await Promise.all([append(db, reading.id, 2, [act('classical')]), append(db, reading.id, 2, [act('baroque')])]);
  assert.deepEqual(race.map((r) => 'conflict' in r).sort(), [false, true]);
  assert.equal((await logOf(db, reading.id)).length, 3);
});

test('a piece leaves the shelf with its readings', async () => {
  const piece = await add();
  const reading = (await firstReading(db, piece.id))!;
  await append(db, reading.id, 0, [act('baroque')]);
  assert.equal(await removePiece(db, piece.id), true);
  assert.equal(await findPiece(db, piece.id), undefined);
  assert.deepEqual(await logOf(db, reading.id), []);
  assert.equal(await removePiece(db, piece.id), false);
});

test('commands from outside are checked field by field', () => {
  const check = (c: unknown) => appendSchema.validate({ base: 0, acts: [{ command: c }] }).error?.message ?? null;
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
    const acts = commands.map((c, k): Act => ({ origin: `window-${k}`, command: c }));
    const { error, value } = appendSchema.validate({ base: 0, acts });
    assert.equal(error, undefined);
    assert.deepEqual((value as { acts: Act[] }).acts, acts);
  }
});

test('a reading is copied with its acts; the copy goes its own way; the last one stays', async () => {
  const piece = await add();
  const first = (await firstReading(db, piece.id))!;
  await append(db, first.id, 0, [act('baroque')]);
  const copy = (await copyReading(db, first.id, 'For the jury'))!;
  assert.deepEqual(await logOf(db, copy.id), await logOf(db, first.id));
  await append(db, copy.id, 1, [act('romantic')]);
  assert.equal((await logOf(db, first.id)).length, 1);
  assert.equal((await logOf(db, copy.id)).length, 2);
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
  const together = (...commands: unknown[]) => ({ type: 'together', what: 'two', commands });
  const check = (c: unknown) => appendSchema.validate({ base: 0, acts: [{ command: c }] }).error;
  assert.equal(check(together(command('baroque'), { type: 'set-peak', measure: 3 })), undefined);
  assert.ok(check(together({ type: 'set-peak', measure: -1 })));
  assert.ok(check(together(together(command('baroque')))));
});

test('an act that is sent twice stands once, wherever it stands in the log', async () => {
  const reading = (await firstReading(db, (await add()).id))!;
  const [a, b, c] = ['baroque', 'romantic', 'classical'].map((p, k): Act => ({ origin: `window-${k}`, command: command(p) }));
  assert.deepEqual(await append(db, reading.id, 0, [a, b]), { revision: 2, already: [] });
  // The answer was lost, and the window does not know that they have arrived.
  assert.deepEqual(await append(db, reading.id, 0, [a, b, c]), { conflict: true, revision: 2, missed: [a, b] });
  assert.deepEqual(await append(db, reading.id, 2, [a, b, c]), { revision: 3, already: ['window-0', 'window-1'] });
  assert.deepEqual(await append(db, reading.id, 3, [b]), { revision: 3, already: ['window-1'] });
  assert.deepEqual(await logOf(db, reading.id), [a.command, b.command, c.command]);
  // What no window has made may come as often as one likes.
  await append(db, reading.id, 3, [act('swing'), act('swing')]);
  assert.equal((await logOf(db, reading.id)).length, 5);
  // The same name in another reading is another act.
  const other = (await firstReading(db, (await add()).id))!;
  assert.deepEqual(await append(db, other.id, 0, [a]), { revision: 1, already: [] });
});
