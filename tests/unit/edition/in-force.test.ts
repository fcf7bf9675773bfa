import assert from 'node:assert/strict';
import { test } from 'node:test';
import { inForceAt } from '../../../src/core/edition/excerpt.ts';
import { abc } from '../helpers.ts';

const NOTES = 'CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|GABc|';
const held = (music: string, measure: number): string[] =>
  inForceAt(abc(`M:4/4\nL:1/4\nK:C\n${music}`), measure).map((x) => `${x.kind} ${x.text}`);

// Handbook 5.3: an excerpt states what is in force where it begins; common practice for what each word leaves behind.
test('an excerpt knows what words on loudness have left in force', () => {
  assert.deepEqual(held(`"_subito piano"${NOTES}`, 2), ['dynamic p']);
  assert.deepEqual(held(`"_immer leiser"${NOTES}`, 2), ['loudness immer leiser']);
  assert.deepEqual(held(`!mf!C"_più forte"DEF|${NOTES}`, 2), ['dynamic f']);
  assert.deepEqual(held(`!pp!C"_sotto voce"DEF|${NOTES}`, 2), ['dynamic pp'], 'what is softer already stays');
  assert.deepEqual(held(`"_cresc."CDEF|!f!GABc|${NOTES}`, 3), ['dynamic f'], 'the goal has been reached');
  assert.deepEqual(held(`"_cresc."${NOTES}`, 12), [], 'no crescendo lasts so long');
});

test('an excerpt knows what words on time have left in force', () => {
  assert.deepEqual(held(`"^Andante"CDEF|"^poco meno mosso"GABc|${NOTES}`, 4), ['tempo Andante', 'tempo poco meno mosso']);
  assert.deepEqual(held(`"^Andante"CDEF|"^rit."GABc|"^a tempo"CDEF|${NOTES}`, 4), ['tempo Andante']);
  assert.deepEqual(held(`"^Andante"CDEF|"^dim. e rall."GABc|${NOTES}`, 3), [
    'loudness dim. e rall.',
    'tempo Andante',
    'tempo dim. e rall.'
  ]);
  // Who hurries goes on where the page says its end later, who slows does not; as they are played.
  const long = 'CDEF|'.repeat(10);
  assert.deepEqual(held(`"^Andante"CDEF|"^stringendo"${long}"^a tempo"${NOTES}`, 10), ['tempo Andante', 'tempo stringendo']);
  assert.deepEqual(held(`"^Andante"CDEF|"^rit."${long}"^a tempo"${NOTES}`, 10), ['tempo Andante']);
  assert.deepEqual(held(`"^Largo"CDEF|"^Allegro"GABc|"^Tempo I"CDEF|${NOTES}`, 5), ['tempo Largo']);
  assert.deepEqual(held(`"^Andante"CDEF|"^ritmico"GABc|"^strings only"CDEF|${NOTES}`, 4), ['tempo Andante']);
});
