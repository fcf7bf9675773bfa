import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { sessions } from '../../../src/lib/server/db/schema.ts';
import { attempt, succeeded } from '../../../src/lib/server/people/attempts.ts';
import { hasPassphrase, isOwnersPassphrase, keepPassphrase } from '../../../src/lib/server/people/owner.ts';
import { fits, hashed } from '../../../src/lib/server/people/passphrase.ts';
import { closeSession, openSession, personOf } from '../../../src/lib/server/people/sessions.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-people-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

test('a passphrase is known again from what is kept, and cannot be read out of it', async () => {
  const kept = await hashed('the tide at noon');
  assert.ok(await fits('the tide at noon', kept));
  assert.ok(!(await fits('the tide at Noon', kept)));
  assert.ok(!kept.includes('tide'));
  assert.notEqual(await hashed('the tide at noon'), kept);
  // The same letters, put together in another way (Unicode NFKC).
  assert.ok(await fits('ete\u0301 au port', await hashed('et\u00e9 au port')));
});

test('one is signed in by a token of which only the sum is kept, until one signs out or the time is over', async () => {
  const token = await openSession(db, 'owner');
  assert.equal(await personOf(db, token), 'owner');
  assert.equal(await personOf(db, `${token}x`), null);
  const [row] = await db.select().from(sessions);
  assert.ok(!JSON.stringify(row).includes(token));
  await db.update(sessions).set({ expiresAt: Math.floor(Date.now() / 1000) - 1 });
  assert.equal(await personOf(db, token), null);
  const other = await openSession(db, 'owner');
  assert.equal((await db.select().from(sessions)).length, 1, 'what is over is not kept');
  await closeSession(db, other);
  assert.equal(await personOf(db, other), null);
});

test('another passphrase signs everybody out, the same one nobody', async () => {
  assert.equal(await hasPassphrase(db), false);
  assert.equal(await isOwnersPassphrase(db, ''), false);
  await keepPassphrase(db, 'the tide at noon');
  const token = await openSession(db, 'owner');
  await keepPassphrase(db, 'the tide at noon');
  assert.equal(await personOf(db, token), 'owner');
  await keepPassphrase(db, 'the tide at night');
  assert.equal(await personOf(db, token), null);
  assert.ok(await isOwnersPassphrase(db, 'the tide at night'));
  assert.ok(!(await isOwnersPassphrase(db, 'the tide at noon')));
});

test('after five attempts an address has to wait; a right one takes them back', async () => {
  for (let k = 0; k < 5; k++) assert.equal(await attempt('192.0.2.1'), 0);
  const seconds = await attempt('192.0.2.1');
  assert.ok(seconds > 800 && seconds <= 900, String(seconds));
  assert.equal(await attempt('192.0.2.2'), 0);
  await succeeded('192.0.2.1');
  assert.equal(await attempt('192.0.2.1'), 0);
});
