import assert from 'node:assert/strict';
import { afterEach, beforeEach, mock, test } from 'node:test';
import { setImmediate as turn } from 'node:timers/promises';
import { TODAY } from '../rehearsal/plans.ts';
import './runes.ts';

const { Outbox } = await import('../../../src/lib/practice/outbox.svelte.ts');

/** A browser's store, and a server that answers as it is told; what it was sent. */
const store = new Map<string, string>();
let answer: (method: string, address: string) => number = () => 204;
let sent: { method: string; address: string; body: unknown }[] = [];
const online: (() => void)[] = [];

beforeEach(() => {
  mock.timers.enable({ apis: ['setTimeout', 'setInterval', 'Date'], now: Date.parse(`${TODAY}T10:00:00Z`) });
  store.clear();
  sent = [];
  answer = () => 204;
  // A real store, for its keys are asked for as of an object.
  const storage = new Proxy(
    {
      getItem: (key: string) => store.get(key) ?? null,
      setItem: (key: string, value: string) => void store.set(key, value),
      removeItem: (key: string) => void store.delete(key)
    },
    { ownKeys: () => [...store.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) }
  );
  Object.assign(globalThis, {
    localStorage: storage,
    window: { addEventListener: (_: string, listen: () => void) => online.push(listen), removeEventListener: () => {} },
    fetch: async (address: string, request: RequestInit) => {
      const status = answer(request.method!, address);
      if (status === 0) throw new TypeError('no connection');
      sent.push({ method: request.method!, address, body: request.body ? JSON.parse(request.body as string) : null });
      return new Response(status === 204 ? null : JSON.stringify({ message: 'It does not fit.' }), { status });
    }
  });
});
afterEach(() => mock.timers.reset());

/** Until nothing more is under way. */
async function idle(): Promise<void> {
  for (let k = 0; k < 20; k++) await turn();
}

test('what is done without a connection is kept, in its order, and sent when that is back', async () => {
  answer = () => 0;
  const outbox = new Outbox();
  outbox.post('PUT', '/a', { n: 1 });
  outbox.post('PATCH', '/b', { n: 2 });
  await idle();
  assert.equal(outbox.waiting, 2);
  assert.equal(store.size, 2);
  answer = () => 204;
  for (const listen of online) listen();
  await idle();
  assert.deepEqual(
    sent.map((s) => `${s.method} ${s.address}`),
    ['PUT /a', 'PATCH /b']
  );
  assert.deepEqual([outbox.waiting, store.size], [0, 0]);
});

test('a page that was closed leaves its letters to the next one, in their order', async () => {
  answer = () => 0;
  const gone = new Outbox();
  for (const n of [1, 2, 3]) {
    gone.post('PUT', `/letter-${n}`, { n });
    mock.timers.tick(5);
  }
  await idle();
  answer = () => 204;
  const next = new Outbox();
  assert.equal(next.waitingFor('/letter-2').length, 1);
  await idle();
  assert.deepEqual(
    sent.slice(-3).map((s) => s.address),
    ['/letter-1', '/letter-2', '/letter-3']
  );
  assert.equal(store.size, 0);
});

test('what another window has sent is not sent once more: it would undo what came after it', async () => {
  answer = () => 0;
  const first = new Outbox();
  first.post('PATCH', '/plan', { minutes: 40 });
  await idle();
  answer = () => 204;
  const second = new Outbox();
  second.post('PATCH', '/plan', { minutes: 50 });
  await idle();
  for (const listen of online) listen();
  await idle();
  assert.deepEqual(
    sent.map((s) => s.body),
    [{ minutes: 40 }, { minutes: 50 }]
  );
  assert.equal(first.waiting, 0);
});

test('what is refused for good is told and holds nothing up; what passes is tried again', async () => {
  const outbox = new Outbox();
  answer = (_, address) => (address === '/wrong' ? 400 : 204);
  outbox.post('PUT', '/wrong', {});
  outbox.post('PUT', '/right', {});
  await idle();
  assert.equal(outbox.fault, 'It does not fit.');
  assert.equal(sent.at(-1)!.address, '/right');
  assert.equal(outbox.waiting, 0);
  for (const status of [401, 429, 503]) {
    answer = () => status;
    outbox.post('PUT', `/later-${status}`, {});
    await idle();
    assert.equal(outbox.waiting, 1, `${status}`);
    answer = () => 204;
    for (const listen of online) listen();
    await idle();
    assert.equal(outbox.waiting, 0, `${status}`);
  }
});
