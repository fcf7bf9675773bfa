import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { fitted } from '../../../src/core/reading/fitted.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { altered, rhythmOf, withRhythm } from '../../../src/core/writing/edits.ts';
import { writtenFromAbc } from '../../../src/core/writing/from-abc.ts';
import { documentOf } from '../../../src/core/writing/to-tune.ts';
import { frac, toNumber } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { abc, demoPath } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nK:C\n';
/** A score whose notes are named by what is given, so that a corrected one can keep some of them. */
function named(music: string, ids: readonly string[]): Score {
  const score = abc(HEAD + music);
  return { ...score, notes: score.notes.map((n, k) => ({ ...n, id: ids[k] ?? n.id })) };
}
const on = (score: Score, at: number, kind: Marking['kind'], value: string, until?: number): Marking => {
  const [note, last] = [score.notes[at], until === undefined ? undefined : score.notes[until]];
  return {
    id: `mark-${at}`,
    kind,
    value,
    part: 0,
    staff: 1,
    start: note.start,
    note: note.id,
    because: [],
    ...(last && { end: last.start, endNote: last.id })
  };
};
const reading = (markings: Marking[]) => ({ ...EMPTY_READING, markings });

test('markings go with their notes when a rhythm is mended', () => {
  const before = named('C D E F|', ['a', 'b', 'c', 'd']);
  const after = named('C3/2 D/ E F|', ['a', 'b', 'c', 'd']);
  const { reading: now, remarks } = fitted(reading([on(before, 1, 'accent', 'accent'), on(before, 1, 'slur', 'slur', 2)]), after);
  assert.deepEqual(
    now.markings.map((m) => [toNumber(m.start), m.end && toNumber(m.end)]),
    [
      [1.5, undefined],
      [1.5, 2]
    ]
  );
  assert.deepEqual(remarks, []);
});

test('where a note is gone its marking goes to what begins then, or is named as lost', () => {
  const before = named('C D E F|', ['a', 'b', 'c', 'd']);
  const kept = fitted(reading([on(before, 1, 'accent', 'accent')]), named('C G E F|', ['a', 'new', 'c', 'd']));
  assert.deepEqual([kept.reading.markings[0].note, kept.remarks], ['new', []]);
  const lost = fitted(
    reading([on(before, 1, 'accent', 'accent'), on(before, 2, 'articulation', 'tenuto')]),
    named('C2 E F|', ['a', 'c', 'd'])
  );
  assert.deepEqual(
    lost.reading.markings.map((m) => m.note),
    ['c']
  );
  assert.deepEqual(lost.remarks, ['The note is gone on which one marking hung: accent in bar 1.']);
});

test('where nothing was changed the reading is the same', () => {
  const score = named('C D E F|G A B c|', []);
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(7), { maxLength: 8 }), (places) => {
      const given = reading(places.map((k) => on(score, k, 'accent', 'accent')));
      assert.equal(fitted(given, score).reading, given);
    })
  );
});

test('two notes of a typed piece are mended: ten markings, pins and answers stay where they are', () => {
  const text = readFileSync(demoPath('corrente.abc'), 'utf8');
  const document = readAbc(text);
  const before = readMusicXml(document);
  const written = writtenFromAbc(new TextEncoder().encode(text), document)!;
  const notes = before.notes.map((n, k) => ({ n, k })).filter(({ n }) => !n.rest && !n.grace);
  const marked = Array.from({ length: 10 }, (_, k) => on(before, notes[7 * k].k, 'accent', 'accent'));
  const start = {
    ...EMPTY_READING,
    pins: [{ kind: 'key', start: frac(12), tonic: 0, mode: 'minor' } as never],
    decisions: { a: { status: 'kept' } as never }
  };
  const full = { ...start, markings: marked };
  // A pitch, and the rhythm of a bar in which two markings hang.
  let mended = altered(written, { bar: 3, lane: 0, at: 0 }, -1);
  const rhythm = rhythmOf(mended.bars[5].lanes[0]);
  mended = withRhythm(mended, 5, 0, [rhythm[1], rhythm[0], ...rhythm.slice(2)]);
  const after = readMusicXml(documentOf(mended));
  assert.notDeepEqual(
    after.notes.map((n) => [n.pitch, n.start]),
    before.notes.map((n) => [n.pitch, n.start])
  );
  const { reading: now, remarks } = fitted(full, after);
  assert.deepEqual(remarks, []);
  assert.deepEqual([now.markings.length, now.pins, now.decisions], [10, start.pins, start.decisions]);
  const byId = new Map(after.notes.map((n) => [n.id, n]));
  for (const m of now.markings) assert.deepEqual(byId.get(m.note!)!.start, m.start);
  assert.deepEqual(
    now.markings.map((m) => m.note),
    marked.map((m) => m.note),
    'each at its own note'
  );
});
