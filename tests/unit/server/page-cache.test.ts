import assert from 'node:assert/strict';
import { test } from 'node:test';
import { gunzipSync } from 'node:zlib';
import { forgetPages, pageOnce } from '../../../src/lib/server/page-cache.ts';

let made = 0;
const page = (status = 200, type = 'text/html') =>
  Promise.resolve(new Response(`page ${++made}`, { status, headers: { 'content-type': type } }));
const ask = (key: string, make: () => Promise<Response> = page, headers: Record<string, string> = {}) =>
  pageOnce(key, new Request('http://here/', { headers }), make);

test('who opens the same page at once is given the same; after a change nobody is given what was before', async () => {
  const first = await (await ask('a')).text();
  assert.equal(await (await ask('a')).text(), first);
  assert.notEqual(await (await ask('b')).text(), first, 'another person or another page');
  forgetPages();
  assert.notEqual(await (await ask('a')).text(), first);
});

test('it comes packed to those who read that, and plain to others', async () => {
  forgetPages();
  const plain = await (await ask('a')).text();
  const packed = await ask('a', page, { 'accept-encoding': 'gzip, br' });
  assert.equal(packed.headers.get('content-encoding'), 'gzip');
  assert.equal(gunzipSync(Buffer.from(await packed.arrayBuffer())).toString(), plain);
});

test('faults, moves and files are not remembered', async () => {
  forgetPages();
  for (const make of [() => page(404), () => page(200, 'application/json'), () => page(303)]) {
    await ask('a', make);
    const before = made;
    await ask('a', make);
    assert.equal(made, before + 1);
  }
});
