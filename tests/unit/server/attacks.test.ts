/** Requests that were made to hold the server up. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { HttpError } from '@sveltejs/kit';
import { countedActs, valid } from '../../../src/lib/server/http.ts';
import { appendSchema } from '../../../src/lib/server/schemas.ts';
import { LIMITS } from '../../../src/core/style/limits.ts';

/** Status and sentence with which a body of acts ends, and the milliseconds that it took; status 200 when it is taken. */
function looked(body: unknown, bounds = {}): { status: number; why: string; ms: number } {
  const start = performance.now();
  const end = (status: number, why: string) => ({ status, why, ms: performance.now() - start });
  try {
    valid(appendSchema, countedActs(body), 'The change', bounds);
    return end(200, '');
  } catch (fault) {
    const { status, body } = fault as HttpError;
    return end(status, body.message);
  }
}
const acts = (...commands: object[]) => ({ base: 0, acts: commands.map((command) => ({ command })) });
const peak = { type: 'set-peak', measure: 1 };
const together = (commands: object[]) => ({ type: 'together', what: 'x', commands });

/** The same work as a plain body of as many acts as are allowed: what is refused must not take longer. */
const honest = looked(acts(...Array.from({ length: LIMITS.acts }, () => peak))).ms;

test('acts in acts in acts, 3.8 MB of them, are refused before they are looked at', () => {
  let nested: object = peak;
  for (let k = 0; k < 20_000; k++) nested = together([nested]);
  const deep = looked(acts(nested));
  assert.deepEqual([deep.status, deep.why], [400, 'The change is not as it should be: it is deeper than 60 records in each other.']);
  const wide = looked(acts(...Array.from({ length: LIMITS.acts }, () => together(Array.from({ length: 300 }, () => peak)))));
  assert.deepEqual([wide.status, wide.why], [413, `These are more than the ${LIMITS.actsInAll} acts that are taken at once.`]);
  // Two levels fit the limits but are no acts.
  assert.equal(looked(acts(together([together([peak])]))).status, 400);
  for (const { ms } of [deep, wide]) assert.ok(ms < 20 * honest + 50, `${ms} ms beside ${honest} ms`);
});

test('a preface nested 500 deep is refused at once', () => {
  let block: object = { type: 'paragraph', content: [{ type: 'text', text: 'x' }] };
  for (let k = 0; k < 500; k++) block = { type: 'blockquote', content: [block] };
  const { status, ms } = looked(acts({ type: 'write-preface', text: { type: 'doc', content: [block] } }));
  assert.equal(status, 400);
  assert.ok(ms < 20 * honest + 50, `${ms} ms beside ${honest} ms`);
  // Just deep enough for the first look, too deep for a text.
  block = { type: 'paragraph' };
  for (let k = 0; k < 20; k++) block = { type: 'blockquote', content: [block] };
  assert.equal(looked(acts({ type: 'write-preface', text: { type: 'doc', content: [block] } })).status, 400);
});

test('many records are refused as too much, a draft of a thousand bars is not', () => {
  const marking = (k: number) => ({
    id: `m${k}`,
    kind: 'dynamic',
    value: 'p',
    part: 0,
    staff: 1,
    start: { n: k, d: 1 },
    because: [{ text: 'Quiet here.', sources: ['common'] }]
  });
  const draft = (count: number) => ({
    type: 'draft',
    kept: Array.from({ length: count }, (_, k) => ({ key: `k${k}`, marking: marking(k) }))
  });
  assert.equal(looked(acts(draft(LIMITS.together))).status, 200);
  const much = looked(acts(...Array.from({ length: 20 }, () => draft(1000))));
  assert.deepEqual([much.status, much.why], [413, 'This is more than is taken at once.']);
});

test('acts on what the piece does not have are refused, and it is said where', () => {
  const bounds = { measures: 24, parts: 1, sources: ['a'.repeat(64)] };
  const why = (command: object) => looked(acts(command), bounds).why;
  assert.match(why({ type: 'set-part', part: 1 }), /acts\[0\]\.command\.part is a part that the piece does not have\.$/);
  assert.equal(why({ type: 'set-part', part: 0 }), '');
  assert.match(why({ type: 'set-peak', measure: 24 }), /measure is a bar that the piece does not have/);
  assert.match(why({ type: 'write-brief', from: 3, to: 99, text: 'x' }), /to is a bar that the piece does not have/);
  const choice = (source: string) => ({
    type: 'choose-source',
    source,
    difference: 'd',
    choice: { source, difference: 'd', take: 'ours', because: '', on: '2026-11-20' }
  });
  assert.match(why(choice('b'.repeat(64))), /source is a source that the piece does not have/);
  assert.equal(why(choice('a'.repeat(64))), '');
  const pin = (n: number, d: number) => ({
    type: 'pin',
    pin: { id: 'x', kind: 'key', start: { n, d }, end: { n: 4, d: 1 }, key: 'C major' }
  });
  assert.match(why(pin(1e15, 1)), /start\.n must be less than or equal to 1000000000/);
  assert.match(why(pin(1, 1e12)), /start\.d must be less than or equal to 1000000/);
});
