/** Several processes on one libSQL server. */
import './named-engine.ts';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { createClient } from '@libsql/client';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { hasPassphrase, isOwnersPassphrase, keepPassphrase } from '../../../src/lib/server/people/owner.ts';
import { closeSession, openSession, personOf } from '../../../src/lib/server/people/sessions.ts';
import * as editions from '../../../src/lib/server/repositories/editions.ts';
import * as pieces from '../../../src/lib/server/repositories/pieces.ts';
import * as readings from '../../../src/lib/server/repositories/readings.ts';
import * as sources from '../../../src/lib/server/repositories/sources.ts';
import { demoPath } from '../helpers.ts';
import { serveLibsql } from './libsql-server.ts';
import { BYTES, cleanUp, JSON_TYPE, newFolder, running, stop } from './processes.ts';

const folder = newFolder();
const file = join(folder, 'served.db');
const served = await serveLibsql(file);
after(async () => {
  await served.close();
  cleanUp();
});

const bytes = readFileSync(demoPath('corrente.abc'));
const intake = TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {});

test('every interface of the repositories works on a libSQL server', async () => {
  const [db, twin] = await Promise.all([openDatabase(served.url, folder), openDatabase(served.url, folder)]);
  const before = served.answered();
  const piece = await pieces.addPiece(db, 'corrente.abc', bytes, intake);
  const reading = (await readings.firstReading(twin, piece.id))!;
  const act = (measure: number, origin: string) => ({ origin, command: { type: 'set-peak' as const, measure } });
  // Two writers at the same place, again and again: one is told what it missed.
  for (let k = 0; k < 10; k++) {
    const answers = await Promise.all([db, twin].map((d, w) => readings.append(d, reading.id, k, [act(k, `w${w}-${k}`)])));
    assert.deepEqual(answers.map((a) => 'conflict' in a).sort(), [false, true]);
  }
  assert.equal((await readings.logOf(db, reading.id)).length, 10);
  assert.equal(await readings.revisionOf(twin, reading.id), 10);
  const copy = (await readings.copyReading(db, reading.id, 'A copy'))!;
  assert.equal((await readings.logOf(twin, copy.id)).length, 10);
  assert.ok(await readings.renameReading(db, copy.id, 'Another name'));
  await readings.storeSnapshot(db, copy.id, { revision: 10, base: {} as never, done: [], undone: [] });
  assert.equal((await readings.findSnapshot(twin, copy.id)).revision, 10);
  const removed = await Promise.all([readings.removeReading(db, reading.id), readings.removeReading(twin, copy.id)]);
  assert.deepEqual(removed.sort(), ['last', 'removed']);
  const [left] = await readings.listReadings(db, piece.id);
  const second = readFileSync(demoPath('etude.abc'));
  const other = TASKS.intake({ bytes: second, fileName: 'etude.abc' }, () => {});
  assert.equal(await sources.addSource(db, piece.id, 'Copy', 'etude.abc', second, other), true);
  assert.equal((await sources.listSources(twin, piece.id)).length, 1);
  await sources.nameSource(twin, piece.id, 'The print');
  const frozen = await editions.addEdition(db, piece.id, {
    ...{ readingName: 'A', note: 'n', pdf: new Uint8Array([37, 80, 68, 70]) },
    content: {
      document: '',
      others: [],
      reading: {} as never,
      names: { title: 'T', composer: '', instrument: '', source: '' },
      facts: null
    }
  });
  assert.equal((await editions.findEdition(twin, frozen.id))!.title, 'T');
  assert.deepEqual([...(await editions.findPdf(twin, frozen.id))!], [37, 80, 68, 70]);
  assert.equal((await pieces.findStudy(twin, piece.sourceHash))!.survey.groups.length > 0, true);
  assert.equal((await readings.findEditionSource(twin, (await pieces.findPiece(twin, piece.id))!, left.id)) !== undefined, true);
  assert.equal(await pieces.claimStudy(db, 'a'), true);
  assert.equal(await pieces.claimStudy(twin, 'a'), false);
  await pieces.unclaimStudy(db, 'a');
  assert.equal(await pieces.claimStudy(twin, 'a'), true);
  await keepPassphrase(db, 'the tide at noon');
  assert.ok((await hasPassphrase(twin)) && (await isOwnersPassphrase(twin, 'the tide at noon')));
  const token = await openSession(db, OWNER);
  assert.equal(await personOf(twin, token), OWNER);
  await closeSession(twin, token);
  assert.equal(await personOf(db, token), null);
  assert.ok(await pieces.binPiece(db, piece.id));
  assert.equal((await pieces.listBin(twin)).length, 1);
  assert.ok(await pieces.removePiece(twin, piece.id));
  for (const table of ['sources', 'studies', 'readings', 'commands', 'editions', 'snapshots', 'compared_sources'])
    assert.equal(Number((await db.$client.execute(`select count(*) as n from ${table}`)).rows[0].n), 0, table);
  assert.ok(served.answered() - before > 50, 'it went over the wire');
  db.$client.close();
  twin.$client.close();
});

test('two processes of the application on one server: no act lost, none double, one study of a source', async () => {
  const env = { DATABASE_URL: served.url };
  const two = await Promise.all([running({ ...env, DATA_DIR: newFolder() }), running({ ...env, DATA_DIR: newFolder() })]);
  const taken = await fetch(`${two[0].address}/api/pieces?name=corrente.abc`, { method: 'POST', headers: BYTES, body: bytes });
  const [piece] = ((await taken.json()) as { pieces: number[] }).pieces;
  // As after an engine that has changed: nothing is known; ten ask each of them.
  const direct = createClient({ url: `file:${file}`, timeout: 2000 });
  await direct.execute('delete from studies');
  await direct.execute('create table made (source text)');
  await direct.execute('create trigger count_studies after insert on studies begin insert into made values (new.source_hash); end');
  const pages = await Promise.all(
    two.flatMap(({ address }) => Array.from({ length: 10 }, () => fetch(`${address}/pieces/${piece}/survey`)))
  );
  assert.deepEqual([...new Set(pages.map((p) => p.status))], [200]);
  assert.equal(Number((await direct.execute('select count(*) as n from made')).rows[0].n), 1);
  const [reading] = (await direct.execute({ sql: 'select id from readings where piece_id = ?', args: [piece] })).rows;
  const log = `/api/readings/${Number(reading.id)}/commands`;
  // Each of six windows sends its own acts through one of the two, taking in what it missed.
  const MADE = 8;
  await Promise.all(
    Array.from({ length: 6 }, async (_, window) => {
      const { address } = two[window % 2];
      let base = 0;
      for (let k = 0; k < MADE;) {
        const act = { origin: `w${window}-${k}`, command: { type: 'request-tempo', range: { low: 60, high: 61 + k } } };
        const answer = await fetch(address + log, { method: 'POST', headers: JSON_TYPE, body: JSON.stringify({ base, acts: [act] }) });
        const { revision } = (await answer.json()) as { revision: number };
        assert.ok([200, 409].includes(answer.status), String(answer.status));
        base = revision;
        if (answer.status === 200) k++;
      }
    })
  );
  const stored = (
    await direct.execute({ sql: 'select origin from commands where reading_id = ? order by seq', args: [reading.id] })
  ).rows.map((r) => String(r.origin));
  assert.equal(stored.length, 6 * MADE);
  assert.equal(new Set(stored).size, 6 * MADE);
  for (let window = 0; window < 6; window++)
    assert.deepEqual(
      stored.filter((o) => o.startsWith(`w${window}-`)),
      Array.from({ length: MADE }, (_, k) => `w${window}-${k}`)
    );
  await Promise.all(two.map((s) => stop(s)));
  direct.close();
});
