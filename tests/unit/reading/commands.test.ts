import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { advanced, AT_THE_BEGINNING, readingAt, replay } from '../../../src/core/reading/log.ts';
import { LIMITS } from '../../../src/core/style/limits.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';

const marking = (id: string, value = 'mf'): Marking => ({
  id,
  kind: 'dynamic',
  value,
  part: 0,
  staff: 1,
  start: { n: 0, d: 1 },
  because: []
});
const ids = fc.constantFrom('a', 'b', 'c');
const act: fc.Arbitrary<Command> = fc.oneof(
  ids.map((id): Command => ({ type: 'add-marking', marking: marking(id) })),
  ids.map((id): Command => ({ type: 'change-marking', id, change: { value: 'f' } })),
  ids.map((id): Command => ({ type: 'remove-marking', id })),
  ids.map((key): Command => ({ type: 'keep', key, marking: marking(`m-${key}`) })),
  ids.map((key): Command => ({ type: 'set-aside', key })),
  ids.map((key): Command => ({ type: 'reopen', key })),
  fc.constantFrom('baroque', 'romantic').map((period): Command => ({ type: 'set-period', period: period as 'baroque' })),
  ids.map((id): Command => ({ type: 'pin', pin: { id, kind: 'key', start: { n: 0, d: 1 }, end: { n: 4, d: 1 }, key: 'C major' } })),
  ids.map((id): Command => ({ type: 'unpin', id }))
);

test('undoing everything leads back to the empty reading, redoing everything to where it was', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 20 }), (acts) => {
      const undo = acts.map((): Command => ({ type: 'undo' }));
      const redo = acts.map((): Command => ({ type: 'redo' }));
      assert.deepEqual(replay([...acts, ...undo]), EMPTY_READING);
      assert.deepEqual(replay([...acts, ...undo, ...redo]), replay(acts));
    })
  );
});

test('a new act after an undo ends what could be redone', () => {
  const log: Command[] = [
    { type: 'add-marking', marking: marking('a') },
    { type: 'undo' },
    { type: 'add-marking', marking: marking('b') },
    { type: 'redo' }
  ];
  assert.deepEqual(
    replay(log).markings.map((m) => m.id),
    ['b']
  );
  assert.deepEqual(advanced(AT_THE_BEGINNING, log).undone, []);
});

test('keeping, setting aside and opening again a proposal', () => {
  const keep: Command = { type: 'keep', key: 'rule@0.1', marking: marking('x') };
  const kept = replay([keep]);
  assert.deepEqual(kept.decisions, { 'rule@0.1': { status: 'kept', marking: 'x' } });
  assert.equal(kept.markings[0].proposal, 'rule@0.1');
  const aside = replay([keep, { type: 'set-aside', key: 'rule@0.1' }]);
  assert.deepEqual([aside.markings.length, aside.decisions['rule@0.1'].status], [0, 'set aside']);
  assert.deepEqual(replay([keep, { type: 'reopen', key: 'rule@0.1' }]), EMPTY_READING);
  assert.deepEqual(replay([keep, { type: 'remove-marking', id: 'x' }]), EMPTY_READING);
  assert.equal(replay([keep, { ...keep, marking: marking('y') }]).markings.length, 1);
});

test('undo reaches five hundred acts back; what was before stays, and is the same wherever one begins to look', () => {
  const tempo = (k: number): Command => ({ type: 'request-tempo', range: { low: 60, high: 60 + k } });
  const log: Command[] = [
    { type: 'set-period', period: 'romantic' },
    ...Array.from({ length: LIMITS.undo + 100 }, (_, k) => tempo(k)),
    ...Array.from({ length: LIMITS.undo + 50 }, (): Command => ({ type: 'undo' }))
  ];
  const { period, requested } = replay(log);
  assert.equal(period, 'romantic');
  assert.deepEqual(requested, { low: 60, high: 159 });
  for (const cut of [1, 300, 600, 700]) {
    const at = advanced(AT_THE_BEGINNING, log.slice(0, cut));
    assert.deepEqual(readingAt(advanced(at, log.slice(cut))), replay(log), `cut after ${cut}`);
  }
});
