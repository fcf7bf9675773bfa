import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, afterEach, test } from 'node:test';
import fc from 'fast-check';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { pieces, readings, sources } from '../../../src/lib/server/db/schema.ts';
import { append, logOf } from '../../../src/lib/server/repositories/readings.ts';
import './runes.ts';
import { Windows, type Outcome } from './windows.ts';

const { Saving } = await import('../../../src/lib/workspace/saving.svelte.ts');

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-saving-'));
const db = await openDatabase(undefined, folder);
await db.insert(sources).values({ hash: 'a', fileName: 'a.abc', format: 'abc', bytes: Buffer.from(''), document: '' });
const [piece] = await db.insert(pieces).values({ title: 'A', composer: '', instrument: '', bars: 1, sourceHash: 'a' }).returning();
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

let windows: Windows | null = null;
afterEach(() => windows?.close());
let readingId = 0;
/** Windows on a new reading. */
async function studio(): Promise<Windows> {
  windows?.close();
  const [reading] = await db.insert(readings).values({ pieceId: piece.id, name: 'A reading' }).returning();
  readingId = reading.id;
  windows = new Windows(
    db,
    reading.id,
    (standing, w) =>
      new Saving(
        reading.id,
        w.history,
        standing,
        (n) => w.changed(n),
        (sentence) => w.notices.push(sentence)
      )
  );
  return windows;
}
const peak = (measure: number): Command => ({ type: 'set-peak', measure }) as Command;
const stored = (): Promise<Command[]> => logOf(db, readingId);

test('an act whose answer was lost stands once, also when the window crashes before it is sent again', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.outcome = 'answer lost';
  w.act(first, peak(1));
  await w.idle();
  assert.equal(first.saving.state, 'waiting');
  w.act(first, peak(2));
  w.crash(first);
  assert.equal(w.left, 2);
  w.outcome = 'answered';
  const second = await w.openOne();
  await w.wait();
  assert.deepEqual(await stored(), [peak(1), peak(2)]);
  assert.deepEqual(second.saving.standing.done, [peak(1), peak(2)]);
  assert.equal(w.left, 0);
});

test('a page that was put together before the last act was stored learns of it', async () => {
  const w = await studio();
  const first = await w.openOne();
  const late = await w.openOne();
  w.act(first, peak(1));
  await w.wait();
  assert.deepEqual(late.saving.standing.done, [peak(1)]);
  // It is told that it came from elsewhere; what the page itself lacked when it was opened is not.
  assert.equal(late.fromElsewhere, 1);
  assert.equal((await w.openOne()).fromElsewhere, 0);
});

test('a window that is still open keeps its acts; they are taken over when it has gone', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.outcome = 'lost';
  w.act(first, peak(1));
  await w.idle();
  w.outcome = 'answered';
  const second = await w.openOne();
  await w.idle();
  assert.deepEqual(second.saving.standing.done, []);
  w.crash(first);
  await w.wait();
  assert.deepEqual(await stored(), [peak(1)]);
});

test('where the browser keeps nothing, an act is sent all the same, and it is said once', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.full = true;
  w.outcome = 'lost';
  w.act(first, peak(1));
  w.act(first, peak(2));
  await w.idle();
  assert.deepEqual(first.saving.standing.done, [peak(1), peak(2)]);
  assert.deepEqual(first.notices, ['This browser keeps nothing more for Nuvelo: until all is saved, do not close this window.']);
  w.outcome = 'answered';
  await w.wait();
  assert.deepEqual(await stored(), [peak(1), peak(2)]);
  assert.equal(first.saving.state, 'saved');
  assert.equal(first.notices.length, 1);
});

test('where the browser’s store is forbidden altogether, an act is sent all the same', async () => {
  const w = await studio();
  w.forbidden = true;
  const first = await w.openOne();
  w.act(first, peak(1));
  await w.wait();
  assert.deepEqual(await stored(), [peak(1)]);
  assert.equal(first.saving.state, 'saved');
});

test('while the server cannot store, the window says why, does not say that all is saved, and asks ever more seldom', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.breaks = { status: 507, message: 'The disk of the server is full, so nothing can be stored.' };
  w.act(first, peak(1));
  await w.idle();
  assert.equal(first.saving.state, 'waiting');
  assert.equal(first.saving.why, w.breaks.message);
  const before = w.sent;
  // Two minutes, in steps of a second: every two seconds would be sixty times.
  for (let k = 0; k < 120; k++) await w.wait(1000);
  assert.ok(w.sent - before >= 4 && w.sent - before <= 10, `asked ${w.sent - before} times`);
  w.breaks = null;
  await w.wait();
  assert.deepEqual(await stored(), [peak(1)]);
  assert.equal(first.saving.state, 'saved');
});

test('a window that meets another history sends nothing more, says so, and offers what it has not sent', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.otherHistory = true;
  w.act(first, peak(1));
  await w.idle();
  assert.equal(first.saving.state, 'stopped');
  assert.equal(first.saving.why, 'Another history.');
  assert.deepEqual(first.saving.unsent, [peak(1)]);
  w.act(first, peak(2));
  const sent = w.sent;
  for (let k = 0; k < 5; k++) await w.wait();
  assert.equal(w.sent, sent);
  assert.deepEqual(first.saving.unsent, [peak(1), peak(2)]);
  assert.deepEqual(await stored(), []);
  // Opened anew in the other history the acts are offered, not put in by themselves.
  w.otherHistory = false;
  w.crash(first);
  w.history = 'history-2';
  const second = await w.openOne();
  await w.wait();
  assert.deepEqual(await stored(), []);
  assert.deepEqual(second.saving.unsent, [peak(1), peak(2)]);
  w.inside.run(second, () => second.saving.settleUnsent());
  assert.equal(w.left, 0);
});

test('an idle window learns of another history when it looks', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.otherHistory = true;
  await w.inside.run(first, () => first.saving.catchUp());
  assert.equal(first.saving.state, 'stopped');
  assert.deepEqual(first.saving.unsent, []);
});

test('two equal acts are two acts', async () => {
  const w = await studio();
  const [first, second] = [await w.openOne(), await w.openOne()];
  await w.idle();
  w.outcome = 'answer lost';
  w.act(first, { type: 'undo' });
  w.act(second, { type: 'undo' });
  await w.idle();
  w.outcome = 'answered';
  await w.wait();
  assert.equal((await stored()).length, 2);
});

test('an act that the server will not have is taken back and told; those around it are stored', async () => {
  const w = await studio();
  const first = await w.openOne();
  await w.idle();
  w.refuses = { 'set-period': 'It is too loud.' };
  w.outcome = 'lost';
  w.act(first, peak(1));
  w.act(first, { type: 'set-period', period: 'baroque' });
  w.act(first, peak(2));
  await w.idle();
  w.outcome = 'answered';
  await w.wait();
  assert.deepEqual(await stored(), [peak(1), peak(2)]);
  assert.equal(first.notices.length, 1);
  assert.match(first.notices[0], /was refused and has been taken back\. It is too loud\./);
  assert.equal(first.saving.state, 'saved');
});

/** In turns of the event loop: requests overtake each other. */
const DELAYS = fc.array(fc.nat(12), { minLength: 1, maxLength: 7 });

test('windows that act at once end with the same log, without being looked at again', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ window: fc.nat(2), wait: fc.boolean() }), { minLength: 2, maxLength: 20 }),
      DELAYS,
      async (steps, delays) => {
        const w = await studio();
        w.delays = delays;
        for (let k = 0; k < 3; k++) await w.openOne();
        for (const [k, { window, wait }] of steps.entries()) {
          w.act(w.open[window], peak(k));
          if (wait) await w.idle();
        }
        await w.idle();
        assert.equal((await stored()).length, steps.length);
        for (const window of w.open) assert.deepEqual(window.saving.standing.done, await stored());
      }
    ),
    { numRuns: 60, seed: 7 }
  );
});

type Step = { what: 'act' | 'crash' | 'elsewhere' | 'wait' | 'deliver'; window: number } | { what: 'net'; outcome: Outcome };
const STEP: fc.Arbitrary<Step> = fc.oneof(
  { weight: 6, arbitrary: fc.record({ what: fc.constant('act' as const), window: fc.nat(2) }) },
  {
    weight: 4,
    arbitrary: fc.record({
      what: fc.constant('net' as const),
      outcome: fc.constantFrom<Outcome>('answered', 'answer lost', 'lost', 'late')
    })
  },
  {
    weight: 3,
    arbitrary: fc.record({
      what: fc.constantFrom('wait' as const, 'deliver' as const, 'crash' as const, 'elsewhere' as const),
      window: fc.nat(2)
    })
  }
);

test('whatever gets lost on the way and whichever window crashes: every act is stored once, each window’s in its order', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(STEP, { minLength: 4, maxLength: 40 }), fc.nat(2), DELAYS, async (steps, windowsAtFirst, delays) => {
      const w = await studio();
      w.delays = delays;
      let count = 0;
      for (let k = 0; k <= windowsAtFirst; k++) await w.openOne();
      for (const step of steps) {
        if (step.what === 'net') w.outcome = step.outcome;
        else {
          const window = w.open[step.window % w.open.length];
          if (step.what === 'act') w.act(window, peak(++count));
          else if (step.what === 'wait') await w.wait();
          else if (step.what === 'deliver') await w.deliverLate();
          else if (step.what === 'crash') {
            w.crash(window);
            await w.openOne();
          } else {
            const act = { origin: null, command: peak(++count) };
            while ('conflict' in (await append(db, readingId, (await stored()).length, [act])));
          }
        }
      }
      w.outcome = 'answered';
      while (w.lateOnes) await w.deliverLate();
      for (let k = 0; k < 6; k++) await w.wait();
      // What the windows see is looked at again, as when one comes back to them.
      for (const window of w.open) await w.inside.run(window, () => window.saving.catchUp());
      await w.idle();
      const log = (await stored()).map((c) => (c as { measure: number }).measure);
      assert.deepEqual(
        [...log].sort((a, b) => a - b),
        Array.from({ length: count }, (_, k) => k + 1)
      );
      for (const window of w.all) {
        const places = window.made.map((c) => log.indexOf((c as { measure: number }).measure));
        assert.deepEqual(
          places,
          [...places].sort((a, b) => a - b)
        );
      }
      for (const window of w.open) {
        assert.deepEqual(window.saving.standing.done, await stored());
        assert.equal(window.saving.state, 'saved');
      }
      assert.equal(w.left, 0);
    }),
    { numRuns: 60, seed: 7 }
  );
});
