import assert from 'node:assert/strict';
import { test } from 'node:test';
import { DESCRIBES, LOUDNESS_ACTS, TIME_ACTS } from '../../../src/core/style/terms/acts.ts';
import { allTerms, lookUp, phrasesOf, plain } from '../../../src/core/style/terms/lookup.ts';
import { effectWords } from '../../../src/core/style/terms/effect-words.ts';
import { readWords } from '../../../src/core/style/terms/read-words.ts';

const acts = (text: string) => {
  const { time, loudness } = readWords(text);
  return [time?.kind ?? null, loudness?.kind ?? null];
};

test('every word that the dictionary translates as acting on time or loudness is obeyed, or only describes', () => {
  const obeyed = new Set([...TIME_ACTS, ...LOUDNESS_ACTS].map(([term]) => plain(term)));
  const described = new Set(DESCRIBES.map(plain));
  const terms = [...allTerms()];
  for (const t of terms)
    if (t.effects.includes('tempo') || t.effects.includes('loudness')) assert.ok(obeyed.has(t.key) || described.has(t.key), t.term);
  const known = new Set(terms.map((t) => t.key));
  for (const key of [...obeyed, ...described]) assert.ok(known.has(key), `${key} is in the dictionary`);
});

// Common practice; calando and the dying words: handbook 7.5.
test('words act on time, on loudness or on both', () => {
  assert.deepEqual(acts('morendo'), ['slow', 'swell']);
  assert.deepEqual(acts('perdendosi'), ['slow', 'swell']);
  assert.deepEqual(acts('dim. e rall.'), ['slow', 'swell']);
  assert.deepEqual(acts('subito piano'), [null, 'level']);
  assert.deepEqual(acts('immer leiser'), [null, 'swell']);
  assert.deepEqual(acts('leiser'), [null, 'step']);
  assert.deepEqual(acts('immer langsamer'), ['slow', null]);
  assert.deepEqual(acts('langsamer'), ['new', null]);
  assert.deepEqual(readWords('calando', true).time, null);
  assert.equal(readWords('poco a poco cresc.').gradual, true);
});

test('what looks like an act and is none', () => {
  for (const text of ['ritmico', 'strings only', 'on the G string', 'senza rall.', 'non rit.', 'Tempo di Menuetto', 'Piano', 'tenuto'])
    assert.deepEqual(acts(text), [null, null], text);
  assert.deepEqual(acts('until the piano comes in'), [null, null], 'a sentence about the piano is no dynamic');
});

test('modifiers give a word its size', () => {
  assert.deepEqual(readWords('poco rit.').time, { kind: 'slow', size: 'little' });
  assert.deepEqual(readWords('molto cresc.').loudness, { kind: 'swell', way: 1, size: 'much' });
  assert.deepEqual(readWords('sehr leise').loudness, { kind: 'level', sign: 'pp' });
  assert.deepEqual(readWords('poco f').loudness, { kind: 'level', sign: 'mf' });
});

test('joined modifiers are read as one', () => {
  const said = (text: string) => phrasesOf(lookUp(text).terms).map((p) => p.translation);
  assert.deepEqual(said('subito piano'), ['at once soft']);
  assert.deepEqual(said('très vif'), ['very lively']);
  assert.deepEqual(said('Allegro assai'), ['very lively']);
  assert.deepEqual(said('molto rit.'), ['slowing gradually, much']);
  assert.deepEqual(said('immer leiser'), ['softer and softer']);
  assert.deepEqual(said('dim. e rall.'), ['getting softer', 'slowing gradually']);
});

test('what words do is said as a teacher says it', () => {
  const effect = (text: string) => effectWords(readWords(text));
  assert.equal(effect('morendo'), 'slower and slower, fading');
  assert.equal(effect('più mosso'), 'faster from here');
  assert.equal(effect('a tempo'), 'back to the tempo before');
  assert.equal(effect('sotto voce'), 'no louder than p');
  assert.equal(effect('immer leiser'), 'fading');
  assert.equal(effect('dolce'), '', 'what changes neither is translated only');
  // Each word that acts has an effect in words.
  for (const [term] of [...TIME_ACTS, ...LOUDNESS_ACTS]) assert.notEqual(effect(term), '', term);
});
