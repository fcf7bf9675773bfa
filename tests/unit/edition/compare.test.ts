import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compareReadings, type ReadingComparison } from '../../../src/core/edition/compare.ts';
import { openEdition } from '../../../src/core/edition/open-edition.ts';
import { apply } from '../../../src/core/reading/log.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import type { Reading } from '../../../src/core/reading/reading.ts';
import { eq } from '../../../src/core/score/fraction.ts';
import { demoInput } from './input.ts';

const input = demoInput('andantino.abc');

function compared(...commands: Command[]): ReadingComparison {
  const open = (reading: Reading) => openEdition({ ...input, reading }).edition;
  const [a, b] = [open(input.reading), open(commands.reduce(apply, input.reading))];
  return compareReadings(a.score, a, b);
}
const marked = (c: ReadingComparison) => c.bars.filter((b) => b.added.length + b.removed.length + b.changed.length);

test('a reading against itself: no bar differs, and both last as long', () => {
  const c = compared();
  assert.deepEqual(marked(c), []);
  assert.deepEqual(c.whole, []);
  assert.equal(c.length[0], c.length[1]);
  assert.equal(c.bars.length, 24);
  for (const b of c.bars) assert.ok(b.seconds[0] > 0 && b.seconds[0] === b.seconds[1] && b.db[0] === b.db[1]);
});

test('what was added, removed and changed stands in its bar, in words', () => {
  const [first] = input.reading.markings.filter((m) => m.kind === 'comma');
  const dynamic = input.reading.markings.find((m) => m.kind === 'dynamic' && m.value === 'p')!;
  const c = compared(
    { type: 'remove-marking', id: first.id },
    { type: 'change-marking', id: dynamic.id, change: { value: 'pp' } },
    {
      type: 'add-marking',
      marking: { id: 'new', kind: 'dynamic', value: 'ff', part: 0, staff: 1, start: { n: 33, d: 1 }, because: [{ text: 'the climax' }] }
    }
  );
  const bars = marked(c);
  assert.deepEqual(
    bars.map((b) => b.bar),
    ['bar 10', 'bar 12', 'bar 17']
  );
  assert.match(bars[0].removed[0], /^beat 2: comma/);
  assert.deepEqual(bars[1].added, ['beat 1: dynamic ff']);
  assert.deepEqual(bars[2].changed, [{ from: 'beat 1: dynamic p', to: 'beat 1: dynamic pp' }]);
  // It is heard, too: the bar with ff is louder, the one with pp softer.
  assert.ok(bars[1].db[1]! > bars[1].db[0]! + 3);
  assert.ok(bars[2].db[1]! < bars[2].db[0]! - 0.5);
});

test('a marking that was moved is one change with both places, and another reason is told', () => {
  const m = input.reading.markings.find((x) => x.kind === 'fingering')!;
  const start = { n: 39, d: 1 };
  const { id: note } = openEdition(input).edition.score.notes.find((n) => n.part === m.part && !n.rest && eq(n.start, start))!;
  const moved = marked(compared({ type: 'change-marking', id: m.id, change: { start, note } }));
  assert.deepEqual(
    moved.map((b) => [b.bar, b.changed]),
    [['bar 14', [{ from: 'bar 13, beat 1: fingering 3', to: 'bar 14, beat 1: fingering 3' }]]]
  );
  const reason = marked(compared({ type: 'change-marking', id: m.id, change: { because: [{ text: 'it is easier' }] } }));
  assert.match(reason[0].changed[0].from, /its reason/);
});

test('time, style and answers: what each would last, and what holds for the whole piece', () => {
  const c = compared(
    { type: 'set-period', period: 'romantic' },
    { type: 'answer-school', key: 'trill-start', option: 'main', on: '2026-11-01' },
    { type: 'pull-time', measure: 4, ratio: 2 }
  );
  assert.deepEqual(c.whole.slice(0, 1), [{ what: 'Style', from: 'Classical', to: 'Romantic' }]);
  assert.ok(c.whole.some((w) => w.what.includes('trill') && w.to.includes('main')));
  assert.ok(c.bars[4].seconds[1] > 1.7 * c.bars[4].seconds[0]);
  assert.ok(c.length[1] > c.length[0]);
});
