import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ConfigError, readConfig } from '../../../src/lib/server/config/config.ts';

const of = (env: Record<string, string>) => readConfig(env, '/studio');
const refused = (env: Record<string, string>, why: RegExp) =>
  assert.throws(
    () => of(env),
    (e: Error) => e instanceof ConfigError && why.test(e.message)
  );

test('without an environment the server is for this machine alone, in its own folder', () => {
  const { host, port, folder, login, databaseUrl, origin } = of({});
  assert.deepEqual([host, port, folder, login, databaseUrl, origin], ['127.0.0.1', 4173, '/studio/data', false, null, null]);
  assert.equal(of({ DATA_DIR: '/elsewhere' }).folder, '/elsewhere');
  assert.equal(of({ HOST: '', PORT: '' }).port, 4173);
});

test('who is open to others asks for a passphrase; on this machine only when it is wanted', () => {
  for (const host of ['127.0.0.1', '::1', 'localhost', '127.8.8.8']) assert.equal(of({ HOST: host }).login, false, host);
  for (const host of ['0.0.0.0', '::', '192.168.1.4', 'school.example']) assert.equal(of({ HOST: host }).login, true, host);
  // Behind a proxy it listens on this machine and is open all the same.
  assert.equal(of({ ORIGIN: 'https://school.example' }).login, true);
  assert.equal(of({ ORIGIN: 'http://127.0.0.1:4310' }).login, false);
  assert.equal(of({ ALLOWED_HOSTS: 'localhost, school.example' }).login, true);
  assert.equal(of({ NUVELO_LOGIN: 'on' }).login, true);
  refused({ HOST: '0.0.0.0', NUVELO_LOGIN: 'off' }, /others could read and remove everything/);
});

test('what is wrong in the environment is said in a sentence that does not repeat it', () => {
  refused({ PORT: '99999' }, /^PORT .*port\.$/);
  refused({ HOST: 'a b' }, /^HOST is no name or address of a machine\.$/);
  refused({ ORIGIN: 'school' }, /^ORIGIN must be a valid uri/);
  refused({ DATABASE_URL: 'ftp://x' }, /^DATABASE_URL/);
  refused({ NUVELO_PASSPHRASE: 'short' }, /^NUVELO_PASSPHRASE length must be at least 10 characters long\.$/);
});
