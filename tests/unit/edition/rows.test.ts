import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { analysisRows } from '../../../src/core/edition/rows.ts';
import { positionAt } from '../../../src/core/score/position.ts';
import { demo } from '../helpers.ts';

const { score } = demo('andantino.abc');
const facts = analyse(score);
const rows = (show: Parameters<typeof analysisRows>[2]) => analysisRows(score, facts, show, (k) => k.name);
const NONE = { chords: false, keys: false };
const bar = (row: { start: { n: number; d: number } }): string => positionAt(score, row.start).number;

test('no row is asked for, none is there', () => {
  assert.deepEqual(rows(NONE), []);
});

test('chords and keys stand where they begin; what the instructor has set bears a dot', () => {
  const chords = rows({ ...NONE, chords: true });
  assert.equal(chords.length, facts.chords.length);
  assert.deepEqual(
    chords.slice(0, 3).map((r) => `${bar(r)} ${r.text}`),
    ['1 I', '2 V65', '3 I']
  );
  assert.deepEqual(
    rows({ ...NONE, keys: true }).map((r) => `${bar(r)} ${r.text}`),
    ['1 F major', '6 C major', '9 F major']
  );
  const [first] = facts.chords;
  const pinned = analyse(score, [{ id: 'p', kind: 'chord', start: first.start, end: first.end, roman: 'I' }]);
  assert.equal(analysisRows(score, pinned, { ...NONE, chords: true }, (k) => k.name)[0].text, 'I●');
});

test('phrases have a sign at both ends on a page in systems, and one bracket on a page drawn in one', () => {
  const signs = rows({ ...NONE, phrases: true });
  assert.equal(signs.length, 2 * facts.phrases.length);
  assert.deepEqual(
    signs.slice(0, 4).map((r) => `${bar(r)} ${r.text}`),
    ['1 ⌜1', '4 ⌝', '5 ⌜2', '8 ⌝']
  );
  const brackets = rows({ ...NONE, phrases: 'brackets' });
  assert.deepEqual(
    brackets.map((r) => r.text),
    facts.phrases.map((_, k) => `phrase ${k + 1}`)
  );
  assert.deepEqual(brackets[0].until, facts.phrases[0].last);
});

test('harmonic rhythm marks every change of chord; the count marks entries plainly and the rest in brackets', () => {
  assert.deepEqual(
    rows({ ...NONE, rhythm: true }).map((r) => r.start),
    facts.chords.map((c) => c.start)
  );
  const count = rows({ ...NONE, count: true });
  // Bar 1 over the broken chords: an entry on every eighth.
  assert.deepEqual(
    count.filter((r) => bar(r) === '1').map((r) => r.text),
    ['1', '&', '2', '&', '3', '&']
  );
  // Every bar begins with its one, and no two counts stand at one moment.
  assert.equal(count.filter((r) => /^\(?1\)?$/.test(r.text)).length, score.measures.length);
  assert.equal(new Set(count.map((r) => `${r.start.n}/${r.start.d}`)).size, count.length);
  assert.equal(new Set(count.map((r) => r.id)).size, count.length);
});
