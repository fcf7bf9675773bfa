import './named-engine.ts';
import assert from 'node:assert/strict';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { createClient } from '@libsql/client';
import { BackupRefused, copyDatabase } from '../../../src/lib/server/backup/copy.ts';
import { backUp } from '../../../src/lib/server/backup/nightly.ts';
import { restore } from '../../../src/lib/server/backup/restore.ts';
import { dispensable, nameOf } from '../../../src/lib/server/backup/rotation.ts';
import { DatabaseRefused, openDatabase } from '../../../src/lib/server/db/open.ts';
import { identityOf, settingOf } from '../../../src/lib/server/db/settings.ts';
import { endWorkers } from '../../../src/lib/server/jobs/run.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { keepPassphrase } from '../../../src/lib/server/people/owner.ts';
import { openSession, personOf } from '../../../src/lib/server/people/sessions.ts';
import { addPiece, listPieces } from '../../../src/lib/server/repositories/pieces.ts';
import { append, firstReading, logOf } from '../../../src/lib/server/repositories/readings.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { demoPath } from '../helpers.ts';

const folders: string[] = [];
const newFolder = (): string => {
  folders.push(mkdtempSync(join(tmpdir(), 'nuvelo-backup-')));
  return folders.at(-1)!;
};
after(async () => {
  await endWorkers();
  folders.forEach((f) => rmSync(f, { recursive: true, force: true }));
});

const bytes = readFileSync(demoPath('corrente.abc'));
const intake = TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {});
const peak = (measure: number): Command => ({ type: 'set-peak', measure });
const acts = (...measures: number[]) => measures.map((m) => ({ origin: `w-${m}`, command: peak(m) }));

/** A studio with a piece and two acts, and its copy. */
async function studio() {
  const folder = newFolder();
  const db = await openDatabase(undefined, folder);
  const piece = await addPiece(db, 'corrente.abc', bytes, intake);
  const reading = (await firstReading(db, piece.id))!;
  await append(db, reading.id, 0, acts(1, 2));
  const file = join(folder, 'nuvelo.db');
  const copy = join(folder, 'copy.db');
  await copyDatabase(file, copy);
  return { folder, db, piece, reading, file, copy };
}

test('a restore drill: what was lost after the backup is set aside, what was in it is back, and windows stop instead of going on', async () => {
  const { db, reading, file, copy, piece } = await studio();
  await keepPassphrase(db, 'the tide at noon');
  const session = await openSession(db, OWNER);
  await append(db, reading.id, 2, acts(3, 4, 5));
  await addPiece(db, 'again.abc', bytes, intake);
  const window = await new Studio(db, OWNER).reading(reading.id);
  const history = await identityOf(db);
  // While the server has it open.
  const before = (await restore(copy, file))!;
  assert.deepEqual(await logOf(db, reading.id), [peak(1), peak(2)]);
  assert.deepEqual(
    (await listPieces(db)).map((p) => p.id),
    [piece.id]
  );
  const after = await identityOf(db);
  assert.notEqual(after, history);
  await restore(copy, file);
  assert.notEqual(await identityOf(db), after, 'each restore begins a history of its own');
  // A window that has seen five acts, and one that has seen as many as there are: neither goes on.
  for (const base of [5, 2]) await assert.rejects(window.append(base, acts(6), history), { status: 410 });
  await assert.rejects(window.actsAfter(2, history), { status: 410 });
  assert.deepEqual(await logOf(db, reading.id), [peak(1), peak(2)]);
  // Who may come in is no matter of the backup.
  assert.ok(await settingOf(db, 'passphrase'));
  assert.equal(await personOf(db, session), OWNER);
  db.$client.close();
  const aside = await openDatabase(`file:${before}`, '.');
  assert.equal((await logOf(aside, reading.id)).length, 5);
  aside.$client.close();
});

test('numbers of pieces that were given after the backup are not given again', async () => {
  const { db, file, copy } = await studio();
  const later = await addPiece(db, 'again.abc', bytes, intake);
  await restore(copy, file);
  const next = await addPiece(db, 'again.abc', bytes, intake);
  assert.ok(next.id > later.id, `${next.id} after ${later.id}`);
  db.$client.close();
});

test('a damaged database is put aside, and the backup takes its place', async () => {
  const { db, file, copy, reading } = await studio();
  db.$client.close();
  // What is still in the log of the database would heal it.
  await copyDatabase(file, `${file}.whole`);
  for (const ending of ['-wal', '-shm']) rmSync(file + ending, { force: true });
  copyFileSync(`${file}.whole`, file);
  writeFileSync(file, Buffer.concat([Buffer.alloc(4096, 7), readFileSync(file).subarray(4096)]));
  await assert.rejects(
    openDatabase(undefined, join(file, '..')),
    (e: Error) => e instanceof DatabaseRefused && /damaged or no database/.test(e.message)
  );
  const before = (await restore(copy, file))!;
  assert.ok(existsSync(before));
  const again = await openDatabase(undefined, join(file, '..'));
  assert.deepEqual(await logOf(again, reading.id), [peak(1), peak(2)]);
  again.$client.close();
});

test('a damaged or foreign backup is refused, and nothing is changed', async () => {
  const { db, file, copy, reading, folder } = await studio();
  const damaged = join(folder, 'damaged.db');
  const content = readFileSync(copy);
  content.fill(255, 4096, 20_000);
  writeFileSync(damaged, content);
  await assert.rejects(restore(damaged, file), (e: Error) => e instanceof BackupRefused && /damaged/.test(e.message));
  writeFileSync(damaged, 'a letter');
  await assert.rejects(restore(damaged, file), BackupRefused);
  await assert.rejects(restore(join(folder, 'nowhere.db'), file), /There is no file/);
  assert.deepEqual(await logOf(db, reading.id), [peak(1), peak(2)]);
  db.$client.close();
});

test('a copy of a damaged database is no backup: it is refused, and nothing stands under its name', async () => {
  const { db, file, folder } = await studio();
  // One page of an index is overwritten, as by a failing disk; the file opens all the same.
  await copyDatabase(file, join(folder, 'failing.db'));
  db.$client.close();
  const content = readFileSync(join(folder, 'failing.db'));
  const client = createClient({ url: `file:${join(folder, 'failing.db')}` });
  const [{ rootpage }] = (await client.execute("select rootpage from sqlite_master where name = 'commands_by_origin'")).rows;
  const [{ page_size: size }] = (await client.execute('pragma page_size')).rows;
  client.close();
  content.fill(0, (Number(rootpage) - 1) * Number(size) + 8, Number(rootpage) * Number(size));
  writeFileSync(join(folder, 'failing.db'), content);
  await assert.rejects(copyDatabase(join(folder, 'failing.db'), join(folder, 'backup.db')), BackupRefused);
  assert.deepEqual(
    readdirSync(folder).filter((f) => f.startsWith('backup.db')),
    []
  );
});

test('the nightly copy is proved, remembered, and the oldest ones go', async () => {
  const { db, file, folder, reading } = await studio();
  mkdirSync(join(folder, 'backups'));
  for (let k = 1; k <= 20; k++) writeFileSync(join(folder, 'backups', nameOf(new Date(Date.UTC(2026, 9, k)))), 'earlier');
  const made = await backUp(db, file, new Date(Date.UTC(2026, 10, 28)));
  assert.equal(made, join(folder, 'backups', 'nuvelo-2026-11-28.db'));
  assert.equal(await settingOf(db, 'last-backup'), String(Date.UTC(2026, 10, 28) / 1000));
  assert.ok(readdirSync(join(folder, 'backups')).length < 12);
  const copy = await openDatabase(`file:${made}`, folder);
  assert.deepEqual(await logOf(copy, reading.id), [peak(1), peak(2)]);
  copy.$client.close();
  db.$client.close();
});

test('copies of seven days and four weeks stay, other files are not touched', () => {
  const days = Array.from({ length: 100 }, (_, k) => nameOf(new Date(Date.UTC(2026, 10, 28 - k))));
  const gone = dispensable([...days, 'before-update-2026.db', 'notes.txt', 'nuvelo-x.db']);
  const kept = days.filter((d) => !gone.includes(d));
  // 28 November 2026 is a Saturday; of the weeks before the last seven days their Sundays stay, and the Saturday that opens them.
  assert.deepEqual(kept.slice(0, 7), days.slice(0, 7));
  assert.deepEqual(kept.slice(7), ['nuvelo-2026-11-21.db', 'nuvelo-2026-11-15.db', 'nuvelo-2026-11-08.db', 'nuvelo-2026-11-01.db']);
  assert.ok(gone.every((name) => days.includes(name)));
  // Night after night it comes to the same: never more than eleven.
  let folder: string[] = [];
  for (let k = 0; k < 200; k++) {
    folder.push(nameOf(new Date(Date.UTC(2026, 0, 1 + k))));
    const may = dispensable(folder);
    folder = folder.filter((f) => !may.includes(f));
    assert.ok(folder.length <= 11);
  }
  assert.equal(folder.length, 11);
});
