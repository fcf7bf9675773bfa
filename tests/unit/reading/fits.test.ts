import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Proposal } from '../../../src/core/reading/proposal.ts';
import { fits } from '../../../src/core/reading/draft/fits.ts';
import { PartPage } from '../../../src/core/reading/draft/part-page.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { abc } from '../helpers.ts';

type Mark = Proposal['marking'];
const HEAD = 'M:4/4\nL:1/4\nQ:1/4=100\nK:C\n';

/** A mark over notes of the only part, counted without rests from 0. */
function mark(score: Score, kind: Mark['kind'], value: string, from: number, to?: number): Mark {
  const notes = score.notes.filter((n) => !n.rest);
  const m: Mark = { kind, value, part: 0, staff: 1, start: notes[from].start, note: notes[from].id, because: [] };
  if (to !== undefined) Object.assign(m, { end: notes[to].start, endNote: notes[to].id });
  return m;
}

/** Whether a mark fits a page, beside marks that were chosen before. */
function fit(music: string, make: (score: Score) => Mark, before: (score: Score) => Mark[] = () => []): boolean {
  const score = abc(HEAD + music);
  const page = PartPage.of(score, 0);
  for (const m of before(score)) page.take(m);
  return fits(make(score), page, score);
}

const PLAIN = 'c d e f|g a g f|e d c d|c4|]';
const hairpin =
  (from: number, to: number, value = 'crescendo') =>
  (s: Score) =>
    mark(s, 'hairpin', value, from, to);
const level =
  (value: string, note: number) =>
  (s: Score): Mark =>
    mark(s, 'dynamic', value, note);

test('a hairpin lasts long enough to be heard, lies over sounding notes and is not endless', () => {
  assert.ok(fit(PLAIN, hairpin(0, 4)));
  assert.ok(!fit(PLAIN, hairpin(0, 1)), 'a quarter is too short');
  assert.ok(!fit('[Q:1/4=40]c d e f|g a g f|c4|]', hairpin(0, 1)), 'also where it takes more than a second');
  assert.ok(!fit('[Q:1/4=160]c d e f|g a g f|c4|]', hairpin(0, 2)), 'three quarters of a second');
  assert.ok(!fit('c d z2|g a g f|c4|]', hairpin(0, 2)), 'a rest lies under it');
  assert.ok(!fit('c4|c4|c4|c4|c4|c4|', hairpin(0, 5)), 'five bars');
});

test('a hairpin meets no other, except one that goes the other way from its goal, and no level on its way', () => {
  const beside = (kept: (s: Score) => Mark, own: (s: Score) => Mark): boolean => fit(PLAIN, own, (s) => [kept(s)]);
  assert.ok(!beside(hairpin(0, 4), hairpin(2, 6)));
  assert.ok(beside(hairpin(0, 4), hairpin(4, 8, 'diminuendo')));
  assert.ok(!beside(hairpin(0, 4), hairpin(5, 8)), 'the same again needs room');
  assert.ok(!fit(PLAIN, hairpin(0, 4), (s) => [level('f', 2)(s)]));
  assert.ok(!fit('!p!c d e f|!p!g a g f|c4|]', hairpin(0, 4)), 'it would lead to the level that it comes from');
  assert.ok(fit('!p!c d e f|!f!g a g f|c4|]', hairpin(0, 4)));
  assert.ok(!fit('!p!c d e f|!f!g a g f|c4|]', hairpin(0, 4, 'diminuendo')));
});

test('a level changes what is in force, stands on a note, and leaves room around it', () => {
  assert.ok(fit(PLAIN, level('p', 0)));
  assert.ok(!fit('!p!c d e f|g a g f|c4|]', level('p', 4)), 'in force already');
  assert.ok(fit('!p!c d e f|g a g f|c4|]', level('f', 4)));
  assert.ok(!fit('!p!c d e f|g a g f|c4|]', level('f', 2)), 'two quarters after another');
  assert.ok(!fit('c d e f|g a !f!g f|c4|]', level('p', 4)), 'two quarters before another');
  assert.ok(!fit(PLAIN, level('f', 2), (s) => [hairpin(0, 4)(s)]), 'inside a hairpin');
});

test('a slur lies over no rest, no dots, no other slur and no breath', () => {
  const slur = (from: number, to: number) => (s: Score) => mark(s, 'slur', 'slur', from, to);
  assert.ok(fit(PLAIN, slur(0, 3)));
  assert.ok(!fit('c d z f|g4|]', slur(0, 2)));
  assert.ok(!fit('.c .d e f|g4|]', slur(0, 3)));
  assert.ok(!fit('(c d) e f|g4|]', slur(1, 3)));
  assert.ok(!fit(PLAIN, slur(0, 3), (s) => [mark(s, 'breath', 'breath', 1)]));
  assert.ok(!fit('c4|c4|c4|d4|', slur(0, 3)), 'longer than a breath or bow');
});

test('a breath parts no slur, tie or word, and stands where no rest follows', () => {
  const breath = (note: number) => (s: Score) => mark(s, 'breath', 'breath', note);
  assert.ok(fit(PLAIN, breath(3)));
  assert.ok(!fit('c d e z|g4|]', breath(2)));
  assert.ok(!fit('c d (e f|g) a g f|]', breath(3)));
  assert.ok(!fit('c d e f-|f4|]', breath(3)));
  assert.ok(!fit('c d e f|g4|]\nw:low wa-ter com-ing', breath(1)));
});

test('a note has one mark, a bar two, words a bar of their own', () => {
  const accent = (note: number) => (s: Score) => mark(s, 'accent', 'accent', note);
  const tenuto = (note: number) => (s: Score) => mark(s, 'articulation', 'tenuto', note);
  assert.ok(fit(PLAIN, accent(0)));
  assert.ok(!fit(PLAIN, tenuto(0), (s) => [accent(0)(s)]));
  assert.ok(!fit('!accent!c d e f|', tenuto(0)), 'a printed one counts');
  assert.ok(!fit('c (d e f)|g4|', (s) => mark(s, 'articulation', 'staccato', 2)), 'no dot under a slur');
  assert.ok(!fit(PLAIN, tenuto(3), (s) => [accent(0)(s), accent(2)(s)]));
  const words = (value: string, note: number) => (s: Score) => mark(s, 'text', value, note);
  assert.ok(!fit('"^dolce"c d e f|g4|', words('cantabile', 2)));
  assert.ok(!fit(PLAIN, words('cantabile', 4), (s) => [words('cantabile', 0)(s)]), 'said once');
});
