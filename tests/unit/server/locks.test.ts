/** What another program does to the database's file. */
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { after, test } from 'node:test';
import { createClient, LibsqlError } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import type { Database } from '../../../src/lib/server/db/open.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { databaseFault } from '../../../src/lib/server/db/faults.ts';
import { patient } from '../../../src/lib/server/db/patient.ts';
import * as schema from '../../../src/lib/server/db/schema.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { inSentences } from '../../../src/lib/server/refusals.ts';
import { addPiece, listPieces } from '../../../src/lib/server/repositories/pieces.ts';
import { append, firstReading, logOf } from '../../../src/lib/server/repositories/readings.ts';
import { Studio, StudioReading } from '../../../src/lib/server/studio.ts';
import { demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-locks-'));
const db = await openDatabase(undefined, folder);
const url = `file:${join(folder, 'nuvelo.db')}`;
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const bytes = readFileSync(demoPath('corrente.abc'));
const piece = await addPiece(
  db,
  'corrente.abc',
  bytes,
  TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {})
);
const reading = (await firstReading(db, piece.id))!;
const act = (measure: number) => [{ origin: `w-${measure}`, command: { type: 'set-peak' as const, measure } }];

/** Another program that holds the database for writing. */
async function held<T>(work: (letGo: () => Promise<void>) => Promise<T>): Promise<T> {
  const other = patient(createClient({ url }));
  const lock = await other.transaction('write');
  try {
    return await work(() => lock.commit());
  } finally {
    lock.close();
    other.close();
  }
}

test('while another program holds the database, reading goes on, nothing stands still, and the act is stored when it lets go', async () => {
  const base = (await logOf(db, reading.id)).length;
  await held(async (letGo) => {
    const delay = monitorEventLoopDelay({ resolution: 5 });
    delay.enable();
    let stored = false;
    const waiting = append(db, reading.id, base, act(1)).then((r) => ((stored = true), r));
    const studio = new Studio(db, OWNER);
    for (let k = 0; k < 40; k++) {
      assert.equal((await listPieces(db)).length, 1);
      // All that a page is made of, and what a window asks for.
      const { history } = await (await studio.piece(piece.id)).standing(reading.id);
      await (await studio.reading(reading.id)).actsAfter(0, history);
      await new Promise((done) => setTimeout(done, 10));
    }
    delay.disable();
    assert.equal(stored, false);
    // It was 5 s: the driver's own wait, in which the whole process stood still.
    assert.ok(delay.max / 1e6 < 2500, `stood still for ${Math.round(delay.max / 1e6)} ms`);
    await letGo();
    assert.deepEqual(await waiting, { revision: base + 1, already: [] });
  });
});

test('when it does not let go, the request ends with 503 and a sentence, and nothing is half done', async () => {
  const impatient = drizzle(patient(createClient({ url, timeout: 5 }), 100), { schema }) as Database;
  const studio = inSentences(new Studio(impatient, OWNER), [StudioReading]);
  const window = await studio.reading(reading.id);
  const before = await logOf(db, reading.id);
  await held(() =>
    assert.rejects(window.append(before.length, act(2), null), {
      status: 503,
      body: { message: 'Another program holds the database just now; it is tried again.' }
    })
  );
  assert.deepEqual(await logOf(db, reading.id), before);
  assert.ok(await window.append(before.length, act(2), null));
  impatient.$client.close();
});

test('what was acknowledged after a lock is stored at once: others see it, and are not locked out', async () => {
  const other = createClient({ url, timeout: 5 });
  for (const first of ['insert', 'transaction'] as const) {
    const base = (await logOf(db, reading.id)).length;
    const mine = drizzle(patient(createClient({ url, timeout: 5, concurrency: 1 }), 0), { schema }) as Database;
    await held(() =>
      assert.rejects(
        first === 'insert' ? append(mine, reading.id, base, act(100 + base)) : mine.transaction(async () => {}),
        /locked|Failed query/
      )
    );
    await append(mine, reading.id, base, act(200 + base));
    // By another connection, while the first one is still open.
    assert.equal((await logOf(db, reading.id)).length, base + 1, first);
    await other.execute("insert into settings (key, value) values ('x', 'y') on conflict (key) do nothing");
    mine.$client.close();
  }
  other.close();
});

test('on a full disk an act is refused with a sentence, nothing is half stored, and it goes on when there is room', async () => {
  const client = createClient({ url, timeout: 5, concurrency: 1 });
  const limit = async (pages: number) => void (await client.execute(`pragma max_page_count = ${pages}`));
  const studio = inSentences(new Studio(drizzle(patient(client), { schema }) as Database, OWNER), [StudioReading]);
  const window = await studio.reading(reading.id);
  const before = await logOf(db, reading.id);
  const long = [{ origin: 'long', command: { type: 'write-brief' as const, from: 0, to: 0, text: 'x'.repeat(8000) } }];
  await limit(1);
  for (let k = 0; k < 3; k++)
    await assert.rejects(window.append(before.length, long, null), {
      status: 507,
      body: { message: 'The disk of the server is full, so nothing can be stored.' }
    });
  assert.deepEqual(await logOf(db, reading.id), before);
  await limit(1_000_000);
  assert.ok('revision' in (await window.append(before.length, long, null)));
  assert.equal((await logOf(db, reading.id)).length, before.length + 1);
  client.close();
});

test('every connection waits a little and minds what hangs on what', async () => {
  // As many transactions at once as there are, so that each has a connection of its own.
  const found = await Promise.all(
    Array.from({ length: 4 }, async () => {
      const tx = await db.$client.transaction('read');
      const [wait, keys] = [await tx.execute('pragma busy_timeout'), await tx.execute('pragma foreign_keys')];
      await tx.rollback();
      return [Number(Object.values(wait.rows[0])[0]), Number(Object.values(keys.rows[0])[0])];
    })
  );
  for (const [wait, keys] of found) assert.deepEqual([wait, keys], [20, 1]);
});

test('what the database says is told in words: full, locked, damaged', () => {
  const of = (code: string) => databaseFault(new Error('query failed', { cause: new LibsqlError('x', code) }));
  assert.deepEqual(of('SQLITE_FULL'), { status: 507, sentence: 'The disk of the server is full, so nothing can be stored.' });
  assert.equal(of('SQLITE_BUSY_SNAPSHOT')!.status, 503);
  assert.match(of('SQLITE_CORRUPT')!.sentence, /damaged.*backup/);
  assert.equal(of('SQLITE_READONLY')!.status, 503);
  assert.equal(of('SQLITE_ERROR'), null);
  assert.equal(databaseFault(new Error('something else')), null);
  assert.equal(
    databaseFault(new TypeError('fetch failed', { cause: Object.assign(new Error('x'), { code: 'ECONNREFUSED' }) }))!.status,
    503
  );
});
