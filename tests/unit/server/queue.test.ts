import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { FairQueue, MOST_WAITING, type Waiting } from '../../../src/lib/server/jobs/queue.ts';

interface Work extends Waiting {
  name: string;
}
const work = (name: string, person = 'owner', kind = 'import', long = false): Work => ({ name, person, kind, long });

/** What begins, in order, when works end one after the other. */
function order(queue: FairQueue<Work>): string[] {
  const begun: Work[] = [];
  const running: Work[] = [];
  for (;;) {
    for (let next = queue.next(); next; next = queue.next()) {
      begun.push(next);
      running.push(next);
    }
    const ended = running.shift();
    if (!ended) return begun.map((w) => w.name);
    queue.remove(ended);
  }
}

test('a small import does not wait behind twelve files: it begins at once, and other kinds take turns', () => {
  const queue = new FairQueue<Work>(2);
  for (let k = 1; k <= 12; k++) queue.add(work(`file ${k}`, 'owner', 'file', true));
  assert.equal(queue.next()!.name, 'file 1');
  assert.equal(queue.next(), undefined, 'long works leave a place free');
  queue.add(work('import'));
  assert.equal(queue.next()!.name, 'import');
  assert.deepEqual(queue.length, { waiting: 11, running: 2 });
});

test('people take turns, however much one of them has asked for', () => {
  const queue = new FairQueue<Work>(1);
  for (let k = 1; k <= 4; k++) queue.add(work(`ann ${k}`, 'ann'));
  queue.add(work('ben 1', 'ben'));
  queue.add(work('ben 2', 'ben'));
  assert.deepEqual(order(queue), ['ann 1', 'ben 1', 'ann 2', 'ben 2', 'ann 3', 'ann 4']);
});

test('only so many of one kind wait; those of others are still taken', () => {
  const queue = new FairQueue<Work>(1);
  queue.add(work('running'));
  queue.next();
  for (let k = 0; k < MOST_WAITING; k++) assert.ok(queue.add(work(`w${k}`)));
  assert.equal(queue.add(work('too much')), false);
  assert.ok(queue.add(work('another kind', 'owner', 'pages')));
  assert.ok(queue.add(work('another person', 'ben')));
});

test('whatever comes: everything begins once, never more at once than there are places, each kind of a person in its order', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ person: fc.constantFrom('a', 'b', 'c'), kind: fc.constantFrom('import', 'file'), ends: fc.nat(2) }), {
        maxLength: 60
      }),
      fc.integer({ min: 1, max: 3 }),
      (steps, places) => {
        const queue = new FairQueue<Work>(places);
        const added: Work[] = [];
        const begun: Work[] = [];
        let running: Work[] = [];
        const begin = (): void => {
          for (let next = queue.next(); next; next = queue.next()) {
            begun.push(next);
            running.push(next);
            assert.ok(running.length <= places);
            assert.ok(running.filter((w) => w.long).length <= Math.max(1, places - 1));
          }
        };
        for (const { person, kind, ends } of steps) {
          const w = work(`${added.length}`, person, kind, kind === 'file');
          if (queue.add(w)) added.push(w);
          begin();
          for (const done of running.splice(0, ends)) queue.remove(done);
          begin();
        }
        while (running.length) {
          for (const done of running.splice(0)) queue.remove(done);
          running = [];
          begin();
        }
        assert.deepEqual(
          [...begun].sort((a, b) => Number(a.name) - Number(b.name)),
          added
        );
        for (const person of ['a', 'b', 'c'])
          for (const kind of ['import', 'file']) {
            const own = begun.filter((w) => w.person === person && w.kind === kind).map((w) => Number(w.name));
            assert.deepEqual(
              own,
              [...own].sort((x, y) => x - y)
            );
          }
      }
    )
  );
});
