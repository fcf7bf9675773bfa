import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { HarmonySpan } from '../../../src/core/analysis/harmony-search.ts';
import { fromPhraseStarts, withColoursOfTheNextKey, withoutTonicisations } from '../../../src/core/analysis/key-boundaries.ts';
import type { Key } from '../../../src/core/analysis/keys.ts';
import { VOCABULARY } from '../../../src/core/analysis/vocabulary.ts';

const C: Key = { tonic: 0, minor: false };
const A_MINOR: Key = { tonic: 3, minor: true };

/** A plain chord of a key, one slot long. */
function span(key: Key, numeral: string, from: number): HarmonySpan {
  const type = VOCABULARY[key.minor ? 'minor' : 'major'].find((t) => t.numeral === numeral)!;
  return { from, to: from + 1, key, type, margin: 1, rival: null };
}
const spans = (inC: string[], inA: string[]): HarmonySpan[] => [
  ...inC.map((numeral, k) => span(C, numeral, k)),
  ...inA.map((numeral, k) => span(A_MINOR, numeral, inC.length + k))
];
const keysOf = (list: readonly HarmonySpan[]): number => list.filter((s) => s.key.minor).length;

test('the first three chords of a phrase may be read in the key that follows, a fourth keeps them where they are', () => {
  const settle = (list: HarmonySpan[], start = 0) => fromPhraseStarts(list, [start], () => false);
  assert.equal(keysOf(settle(spans(['vi', 'ii', 'vi'], ['V', 'i']))), 5);
  assert.equal(settle(spans(['vi'], ['V', 'i']))[0].type.role, 'tonic');
  assert.equal(keysOf(settle(spans(['vi', 'ii', 'vi', 'ii'], ['V', 'i']))), 2);
  // Not where the phrase begins on another chord of that key, nor where its own dominant is heard first.
  assert.equal(keysOf(settle(spans(['ii', 'vi'], ['V', 'i']))), 2);
  assert.equal(keysOf(settle(spans(['vi', 'V'], ['V', 'i']))), 2);
  // What stands before the phrase stays, and so does what the teacher has settled.
  assert.equal(keysOf(settle(spans(['I', 'IV', 'vi', 'ii'], ['V', 'i']), 2)), 4);
  assert.equal(keysOf(fromPhraseStarts(spans(['vi'], ['V', 'i']), [0], (s) => s.from === 0)), 2);
});

// Common practice (handbook 2.2): bars of applied dominants are no modulation.
test('a key that only passes between two stretches of one key is a tonicisation there', () => {
  const G: Key = { tonic: 1, minor: false };
  const row = (middle: HarmonySpan[]): HarmonySpan[] => [
    span(C, 'I', 0),
    span(C, 'IV', 1),
    ...middle,
    span(C, 'V', 2 + middle.length),
    span(C, 'I', 3 + middle.length)
  ];
  const inG = (...numerals: string[]) => numerals.map((numeral, k) => span(G, numeral, 2 + k));
  const numerals = (list: readonly HarmonySpan[]) =>
    list.filter((s) => s.key.tonic === 0).map((s) => s.type.numeral + (s.type.goalNumeral ?? ''));
  // Half a bar to a slot: what is dominant and tonic to and fro may last two bars, another key hardly one.
  const settle = (list: HarmonySpan[], ends: number[] = [], bound = false) =>
    withoutTonicisations(
      list,
      (slot) => slot / 2,
      ends,
      () => bound
    );
  assert.deepEqual(numerals(settle(row(inG('V', 'I', 'V', 'I')))), ['I', 'IV', 'VV', 'V', 'VV', 'V', 'V', 'I']);
  assert.equal(settle(row(inG('V', 'I', 'V', 'I', 'V', 'I'))).filter((s) => s.key.tonic === 1).length, 6, 'three bars are a key');
  assert.equal(settle(row(inG('ii', 'V', 'I'))).filter((s) => s.key.tonic === 1).length, 3, 'so is what is prepared and lasts');
  assert.equal(settle(row(inG('V', 'I')), [4]).filter((s) => s.key.tonic === 1).length, 2, 'and what closes a section');
  assert.equal(settle(row(inG('V', 'I')), [], true).filter((s) => s.key.tonic === 1).length, 2, 'and what the teacher has settled');
});

// Common practice: B flat major, borrowed in C major, is the Neapolitan of A minor.
test('a colour chord just before the dominant of a new key is that of the new key; a plain one stays', () => {
  const neapolitan = { ...span(A_MINOR, 'N', 2), key: C, type: { ...span(C, 'bVII', 2).type } };
  const row = [span(C, 'I', 0), span(C, 'IV', 1), neapolitan, span(A_MINOR, 'V', 3), span(A_MINOR, 'i', 4)];
  assert.equal(C.tonic + neapolitan.type.root, A_MINOR.tonic - 5, 'the same root in both keys');
  const settled = withColoursOfTheNextKey(row, () => false);
  assert.deepEqual([settled[2].type.special, settled[2].key], ['neapolitan', A_MINOR]);
  assert.equal(settled[1].key, C, 'the subdominant before it stays where it is plain');
  assert.equal(withColoursOfTheNextKey(row, () => true)[2].type.special, null, 'what the teacher has settled stays');
  const elsewhere = [...row.slice(0, 3), span(A_MINOR, 'iv', 3), span(A_MINOR, 'V', 4)];
  assert.equal(withColoursOfTheNextKey(elsewhere, () => false)[2].key, C, 'only before a dominant');
});
