import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { survey } from '../../../src/core/survey/survey.ts';
import { lookUp, TERM_COUNT } from '../../../src/core/style/terms/lookup.ts';
import { abc, demo } from '../helpers.ts';

const lines = (score: ReturnType<typeof abc>, group: string) =>
  survey(score, analyse(score)).groups.find((g) => g.title.startsWith(group))?.lines ?? [];

test('the first look at the étude', () => {
  const { score } = demo('etude.abc');
  assert.deepEqual(
    lines(score, 'Range').map((l) => l.value),
    ['D#4 to C6 written', 'C#4 to Bb5']
  );
  assert.ok(lines(score, 'Dynamics')[0].value === 'pp to ff');
  assert.ok(lines(score, 'Tempo').some((l) => l.label === 'morendo' && l.value.includes('dying away') && l.bars[0] === 25));
  assert.deepEqual(lines(score, 'Ornaments'), [{ label: 'turn', value: '3×', bars: [7, 21, 23] }]);
  assert.ok(lines(score, 'Plan').some((l) => l.label === 'Meter' && l.value === 'free meter' && l.bars[0] === 17));
});

test('what is not printed is said to be missing, and what is carried is named', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n^F F G A|');
  assert.equal(lines(score, 'Dynamics')[0].value, 'no dynamic is printed');
  assert.ok(lines(score, 'Accidentals').some((l) => l.label === 'Carried through the bar' && l.value === 'F#4'));
});

test('the dictionary knows at least 400 terms in four languages, abbreviations and phrases', () => {
  assert.ok(TERM_COUNT >= 400, String(TERM_COUNT));
  const of = (text: string) => lookUp(text).terms.map((t) => t.term);
  assert.deepEqual(of('Allegro ma non troppo'), ['allegro', 'ma', 'non troppo']);
  assert.deepEqual(of('poco rit.'), ['poco', 'ritardando']);
  assert.deepEqual(of('Sehr langsam und zart'), ['sehr', 'langsam', 'zart']);
  assert.deepEqual(of('très lent, en dehors'), ['très', 'lent', 'en dehors']);
  assert.deepEqual(lookUp('wibbly dolce'), { terms: lookUp('dolce').terms, unknown: ['wibbly'] });
});
