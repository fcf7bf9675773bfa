/** The server as it is started: the built entry in processes of their own. */
import assert from 'node:assert/strict';
import { once } from 'node:events';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { createClient } from '@libsql/client';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { demoPath } from '../helpers.ts';
import { BYTES, cleanUp, newFolder, running, start, stop, type Started } from './processes.ts';

after(cleanUp);

const refused = async (env: Record<string, string>, why: RegExp): Promise<void> => {
  const started = await start(env);
  assert.ok('status' in started, 'it started');
  assert.notEqual(started.status, 0);
  assert.match(started.said, why);
  assert.equal(started.said.trim().split('\n').length, 1, started.said);
};
test('a damaged, foreign or newer database, a port in use and a wrong setting are refused with one sentence', async () => {
  const damaged = newFolder();
  writeFileSync(join(damaged, 'nuvelo.db'), 'x'.repeat(8192));
  await refused({ DATA_DIR: damaged }, /damaged or no database; restore a backup\.$/m);
  const foreign = newFolder();
  const other = createClient({ url: `file:${join(foreign, 'nuvelo.db')}` });
  await other.execute('create table birds (name text)');
  other.close();
  await refused({ DATA_DIR: foreign }, /is no database of Nuvelo\.$/m);
  const newer = newFolder();
  const db = await openDatabase(undefined, newer);
  await db.$client.execute("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
  db.$client.close();
  await refused({ DATA_DIR: newer }, /was made by a newer Nuvelo than this one; update the program\.$/m);
  const first = await running({ DATA_DIR: newFolder() });
  await refused(
    { DATA_DIR: newFolder(), PORT: new URL(first.address).port },
    /^The port \d+ is in use already; choose another with PORT\.$/m
  );
  await refused({ DATA_DIR: newFolder(), PORT: 'many' }, /^PORT must be a number\.$/m);
  await refused({ DATA_DIR: join(damaged, 'nuvelo.db') }, /^The folder .* cannot be made/m);
  await stop(first);
});

test('on anything but this machine it does not start without a passphrase; with one it lets in only who knows it', async () => {
  const folder = newFolder();
  await refused({ DATA_DIR: folder, HOST: '0.0.0.0' }, /the owner needs a passphrase: set NUVELO_PASSPHRASE/);
  const server = await running({ DATA_DIR: folder, HOST: '0.0.0.0', NUVELO_PASSPHRASE: 'the tide at noon' });
  const ask = (path: string, init: RequestInit = {}) => fetch(server.address + path, { redirect: 'manual', ...init });
  assert.equal((await ask('/api/pieces')).status, 401);
  assert.match(((await (await ask('/api/pieces')).json()) as { message: string }).message, /signed out/);
  const page = await ask('/pieces/1/reading?bar=3');
  assert.equal(page.headers.get('location'), '/login?then=%2Fpieces%2F1%2Freading%3Fbar%3D3');
  assert.deepEqual(await (await ask('/health')).json(), { well: true });
  const signIn = (passphrase: string, then = '') =>
    ask(`/login${then}`, {
      method: 'POST',
      headers: { origin: server.address, accept: 'text/html' },
      body: new URLSearchParams({ passphrase })
    });
  assert.match(await (await signIn('a guess, no more')).text(), /This is not the passphrase/);
  const right = await signIn('the tide at noon', '?then=//evil.example/');
  assert.equal(right.headers.get('location'), '/', 'never to another site');
  const cookie = right.headers.get('set-cookie')!;
  assert.match(cookie, /^nuvelo-session=[\w-]{43};.*HttpOnly.*SameSite=Lax/i);
  const signed = { headers: { cookie: cookie.split(';')[0] } };
  assert.equal((await ask('/api/pieces', signed)).status, 200);
  assert.ok('freeSpace' in ((await (await ask('/health', signed)).json()) as object));
  await ask('/logout', { method: 'POST', headers: { ...signed.headers, origin: server.address } });
  assert.equal((await ask('/api/pieces', signed)).status, 401);
  // Guessing is slow: the sixth wrong one has to wait.
  for (let k = 0; k < 5; k++) await signIn(`guess number ${k}`);
  assert.match(await (await signIn('the tide at noon')).text(), /Too many attempts; try again in 15 minutes/);
  await stop(server);
  // Kept in the database: the next start needs it no more.
  await stop(await running({ DATA_DIR: folder, HOST: '0.0.0.0' }));
});

/** The status of the shelf when it is asked for under a name. */
const statusUnder = (host: string, { address }: Started): Promise<number> =>
  new Promise((done, fail) => {
    get(address, { headers: { host } }, (answer) => (answer.resume(), done(answer.statusCode!))).on('error', fail);
  });

test('wherever it is started from, folders and limits are the same; nobody is let in through a foreign name', async () => {
  const elsewhere = newFolder();
  const server = await running({ DATA_DIR: `test-results/${Date.now()}-start` }, elsewhere);
  try {
    assert.deepEqual(readdirSync(elsewhere), []);
    assert.equal(await statusUnder('evil.example', server), 421);
    // The handler's own limit of half a megabyte is not the one that counts; ours is.
    const large = await fetch(`${server.address}/api/pieces?name=a.xml`, {
      method: 'POST',
      headers: BYTES,
      body: Buffer.alloc(3_000_000, 'x')
    });
    assert.equal(large.status, 422);
    assert.match(((await large.json()) as { message: string }).message, /neither MusicXML nor ABC/);
    assert.equal(
      (await fetch(`${server.address}/api/pieces?name=a.xml`, { method: 'POST', headers: BYTES, body: Buffer.alloc(66 * 1024 * 1024) }))
        .status,
      413
    );
    const page = await fetch(server.address);
    assert.equal(page.headers.get('content-encoding'), 'gzip');
  } finally {
    await stop(server);
    const folder = readdirSync('test-results').find((f) => f.endsWith('-start'))!;
    rmSync(join('test-results', folder), { recursive: true });
  }
});

test('the log has a line for each request, and nothing of what it was about', async () => {
  const server = await running({ DATA_DIR: newFolder(), NUVELO_LOG: 'info' });
  const score = readFileSync(demoPath('corrente.abc'));
  await fetch(`${server.address}/api/pieces?name=a-secret-name.abc`, { method: 'POST', headers: BYTES, body: score });
  await (await fetch(`${server.address}/pieces/1/survey?secret=tide`)).text();
  await fetch(`${server.address}/api/pieces/99/archive`);
  await stop(server);
  const lines = server
    .said()
    .split('\n')
    .filter((l) => l.startsWith('{'))
    .map((l) => JSON.parse(l) as { method?: string; route?: string; status?: number; ms?: number });
  assert.deepEqual(
    lines.map(({ method, route, status }) => `${method} ${route} ${status}`),
    ['POST /api/pieces 200', 'GET /pieces/[id]/survey 200', 'GET /api/pieces/[id]/archive 404']
  );
  assert.ok(lines.every((l) => typeof l.ms === 'number'));
  assert.ok(!/secret|tide|Corrente|127\.0\.0\.1:\d+\//.test(server.said().replace(/^Listening.*$/m, '')));
});

test('two processes start together on an empty folder', async () => {
  for (let k = 0; k < 3; k++) {
    const folder = newFolder();
    const servers = await Promise.all([running({ DATA_DIR: folder }), running({ DATA_DIR: folder })]);
    for (const { address } of servers) assert.equal((await fetch(`${address}/api/pieces`)).status, 200);
    await Promise.all(servers.map((s) => stop(s)));
  }
});

test('before a database of an earlier form is changed it is copied', async () => {
  const folder = newFolder();
  const earlier = createClient({ url: `file:${join(folder, 'nuvelo.db')}` });
  const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')) as { entries: { tag: string; when: number }[] };
  const { tag, when } = journal.entries[0];
  await earlier.executeMultiple(readFileSync(`drizzle/${tag}.sql`, 'utf8'));
  await earlier.execute('create table __drizzle_migrations (id serial primary key, hash text not null, created_at numeric)');
  await earlier.execute({ sql: 'insert into __drizzle_migrations (hash, created_at) values (?, ?)', args: ['first', when] });
  earlier.close();
  await stop(await running({ DATA_DIR: folder }));
  const [copy] = readdirSync(join(folder, 'backups'));
  assert.match(copy, /^before-update-/);
  const kept = createClient({ url: `file:${join(folder, 'backups', copy)}` });
  assert.equal(Number((await kept.execute('select max(created_at) as form from __drizzle_migrations')).rows[0].form), when);
  kept.close();
});

test('killed in the middle of acts again and again: every act that was acknowledged is there once, in its order', async () => {
  const folder = newFolder();
  let server = await running({ DATA_DIR: folder });
  const score = readFileSync(demoPath('corrente.abc'));
  await fetch(`${server.address}/api/pieces?name=corrente.abc`, { method: 'POST', headers: BYTES, body: score });
  const acknowledged: number[] = [];
  let made = 0;
  for (let round = 0; round < 3; round++) {
    const { address, child } = server;
    const log = ((await (await fetch(`${address}/api/readings/1/commands?after=0`)).json()) as { acts: object[] }).acts;
    let base = log.length;
    const killAt = 15 + 7 * round;
    for (let k = 0; ; k++) {
      const origin = `w-${++made}`;
      const command = { type: 'request-tempo', range: { low: 60, high: 60 + made } };
      if (k === killAt) child.kill('SIGKILL');
      const answer = await fetch(`${address}/api/readings/1/commands`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ base, acts: [{ origin, command }] })
      }).catch(() => null);
      if (!answer) break;
      assert.equal(answer.status, 200);
      base++;
      acknowledged.push(made);
    }
    if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
    server = await running({ DATA_DIR: folder });
  }
  const { acts } = (await (await fetch(`${server.address}/api/readings/1/commands?after=0`)).json()) as {
    acts: { origin: string }[];
  };
  const stored = acts.map((a) => Number(a.origin.slice(2)));
  assert.ok(acknowledged.length > 50);
  assert.deepEqual(
    stored.filter((n) => acknowledged.includes(n)),
    acknowledged
  );
  assert.equal(new Set(stored).size, stored.length);
  await stop(server);
});
