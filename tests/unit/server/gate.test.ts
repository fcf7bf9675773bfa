import assert from 'node:assert/strict';
import { test } from 'node:test';
import { turnedAway } from '../../../src/lib/server/gate/gate.ts';

const HERE = { host: '127.0.0.1', origin: null, hosts: [] };
const OPEN = { host: '0.0.0.0', origin: null, hosts: ['studio.example'] };
const BEHIND = { host: '127.0.0.1', origin: 'https://school.example', hosts: [] };

const status = (config: typeof HERE | typeof OPEN | typeof BEHIND, headers: Record<string, string>, method = 'GET', path = '/api/pieces') =>
  turnedAway({ method, headers: new Headers({ host: 'localhost:4173', ...headers }) }, path, config)?.status ?? 200;

test('a name that is not ours is not answered, whatever machine it was made to point to', () => {
  for (const host of ['evil.example', 'evil.example:4173', 'localhost.evil.example', '', 'localhost@evil.example', '192.168.1.4:4173'])
    assert.equal(status(HERE, { host }), 421, host);
  for (const host of ['localhost', '127.0.0.1:4173', '[::1]:4173', 'LOCALHOST:1']) assert.equal(status(HERE, { host }), 200, host);
  // Open to others, a bare address is ours: no name could be made to point elsewhere.
  for (const host of ['192.168.1.4:4173', 'studio.example', '[fd00::2]']) assert.equal(status(OPEN, { host }), 200, host);
  assert.equal(status(OPEN, { host: 'evil.example' }), 421);
  assert.equal(status(BEHIND, { host: 'school.example' }), 200);
  assert.equal(status(BEHIND, { host: '192.168.1.4' }), 421);
});

test('writes of other sites are refused, our own and those of programs are not', () => {
  for (const method of ['POST', 'PATCH', 'DELETE', 'PUT']) {
    assert.equal(status(HERE, { origin: 'http://evil.example' }, method), 403, method);
    assert.equal(status(HERE, { origin: 'null' }, method), 403, method);
    assert.equal(status(HERE, { origin: 'http://localhost:9999' }, method), 403, method);
    assert.equal(status(HERE, { 'sec-fetch-site': 'cross-site' }, method), 403, method);
    assert.equal(status(HERE, { 'sec-fetch-site': 'same-site' }, method), 403, method);
    assert.equal(status(HERE, { origin: 'http://localhost:4173', 'sec-fetch-site': 'same-origin' }, method), 200, method);
    assert.equal(status(HERE, {}, method), 200, method);
  }
  assert.equal(status(BEHIND, { host: 'school.example', origin: 'https://school.example' }, 'POST'), 200);
  assert.equal(status(BEHIND, { host: 'school.example', origin: 'https://evil.example' }, 'POST'), 403);
});

test('of another site only a plain link to a page is followed', () => {
  const link = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
  assert.equal(status(HERE, link, 'GET', '/pieces/1/reading'), 200);
  assert.equal(status(HERE, link, 'GET', '/api/readings/1/edition'), 403);
  assert.equal(status(HERE, link, 'POST', '/pieces/1/reading'), 403);
  assert.equal(status(HERE, { ...link, 'sec-fetch-dest': 'iframe' }, 'GET', '/pieces/1/reading'), 403);
  assert.equal(status(HERE, { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' }), 403);
});
