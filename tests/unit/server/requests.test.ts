import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import fc from 'fast-check';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import type { Act } from '../../../src/core/reading/log.ts';
import { LIMITS } from '../../../src/core/style/limits.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { pieces, sources } from '../../../src/lib/server/db/schema.ts';
import { limitedBody } from '../../../src/lib/server/http.ts';
import {
  append,
  copyReading,
  firstReading,
  listReadings,
  logOf,
  removeReading,
  OtherHistory
} from '../../../src/lib/server/repositories/readings.ts';
import { appendSchema } from '../../../src/lib/server/schemas.ts';
import { readings } from '../../../src/lib/server/db/schema.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-requests-'));
const db = await openDatabase(undefined, folder);
await db.insert(sources).values({ hash: 'a', fileName: 'a.abc', format: 'abc', bytes: Buffer.from(''), document: '' });
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

/** A piece with a reading of its own. */
async function reading(): Promise<{ piece: number; id: number }> {
  const [piece] = await db.insert(pieces).values({ title: 'A', composer: '', instrument: '', bars: 1, sourceHash: 'a' }).returning();
  const [{ id }] = await db.insert(readings).values({ pieceId: piece.id, name: 'A reading' }).returning();
  return { piece: piece.id, id };
}
const peak = (measure: number): Command => ({ type: 'set-peak', measure });
const act = (measure: number, origin: string | null = null): Act => ({ origin, command: peak(measure) });

/** A request whose body comes in pieces, without saying how long it will be. */
const streamedRequest = (...sizes: number[]): Request => {
  const body = new ReadableStream({
    pull(controller) {
      const size = sizes.shift();
      if (size === undefined) controller.close();
      else controller.enqueue(new Uint8Array(size));
    }
  });
  return new Request('http://here/', { method: 'POST', body, duplex: 'half' } as RequestInit);
};

test('a body that is larger than allowed is refused with 413, also where it does not say how long it is', async () => {
  assert.equal((await limitedBody(streamedRequest(40, 40, 20), 100)).length, 100);
  await assert.rejects(limitedBody(streamedRequest(40, 40, 21), 100), { status: 413 });
  await assert.rejects(limitedBody(new Request('http://here/', { method: 'POST', body: 'x'.repeat(101) }), 100), { status: 413 });
  await assert.rejects(limitedBody(new Request('http://here/', { method: 'POST', body: 'x', headers: { 'content-length': '401' } }), 100), {
    status: 413
  });
});

test(`${LIMITS.acts} acts may be sent at once, one more may not`, () => {
  const send = (count: number) => appendSchema.validate({ base: 0, acts: Array.from({ length: count }, (_, k) => act(k)) }).error;
  assert.equal(LIMITS.acts, 500);
  assert.equal(send(500), undefined);
  assert.match(send(501)!.message, /less than or equal to 500/);
});

test('acts are appended only where the log ends: neither behind it nor ahead of it', async () => {
  const { id } = await reading();
  assert.deepEqual(await append(db, id, 0, [act(1), act(2)]), { revision: 2, already: [] });
  assert.deepEqual(await append(db, id, 1, [act(3)]), { conflict: true, revision: 2, missed: [act(2)] });
  await assert.rejects(append(db, id, 3, [act(3)]), OtherHistory);
  assert.deepEqual(await logOf(db, id), [peak(1), peak(2)]);
});

test('two writers who read the same revision: one of them is told of a conflict, whatever the error is called', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 2, max: 6 }), async (writers) => {
      const { id } = await reading();
      const answers = await Promise.all(Array.from({ length: writers }, (_, k) => append(db, id, 0, [act(k, `w${k}`)])));
      assert.equal(answers.filter((a) => !('conflict' in a)).length, 1);
      assert.equal((await logOf(db, id)).length, 1);
    }),
    { numRuns: 20 }
  );
});

test('two windows that take away the last two readings at once leave one', async () => {
  for (let k = 0; k < 20; k++) {
    const { piece, id } = await reading();
    const copy = await copyReading(db, id, 'Another');
    const said = await Promise.all([removeReading(db, id), removeReading(db, copy!.id)]);
    assert.deepEqual(said.sort(), ['last', 'removed']);
    assert.equal((await listReadings(db, piece)).length, 1);
    assert.ok(await firstReading(db, piece));
  }
});
