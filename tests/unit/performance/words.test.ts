import assert from 'node:assert/strict';
import { test } from 'node:test';
import { dynamicPlan, levelOf } from '../../../src/core/reading/dynamic-plan.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import { abc } from '../helpers.ts';
import { playableOf, readingOf } from './play.ts';

const BARS = 'CDEF|GABc|cBAG|FEDC|';
const piece = (music: string) => playableOf(abc(`M:4/4\nL:1/4\nQ:1/4=60\nK:C\n${music}|]`));

/** Level of the plan at a quarter, in steps; sound of the n-th note in decibels; how long a bar lasts. */
function heard(music: string, period: 'romantic' | 'classical' | 'modern' = 'modern', markings: Marking[] = []) {
  const playable = piece(music);
  // Arches of phrases would blur what the words do.
  const reading = readingOf(period, {}, { markings, amounts: { arch: 0, 'phrase-end': 0, cadence: 0 } });
  const { points } = dynamicPlan(playable.score, playable.facts, reading);
  const p = perform(playable, reading);
  return { level: (quarter: number) => levelOf(points, quarter + 0.01), bar: (k: number) => p.bars[k].planned, playable, reading };
}

test('morendo dies away in loudness and in time', () => {
  const { level, bar } = heard(`!mf!${BARS}"^morendo"${BARS}`);
  assert.ok(level(12) > 4.5);
  assert.ok(level(31) < 2, `${level(31)}`);
  assert.ok(bar(7) > 1.03 * bar(3), `${bar(7)} after ${bar(3)}`);
});

test('dim. e rall. acts on both; ritmico and strings only on neither', () => {
  const both = heard(`!f!${BARS}"^dim. e rall."${BARS}`);
  assert.ok(both.level(27) < both.level(12) - 0.5);
  assert.ok(both.bar(6) > 1.05 * both.bar(2));
  for (const words of ['ritmico', 'strings only']) {
    const none = heard(`!f!${BARS}"^${words}"${BARS}`);
    assert.ok(Math.abs(none.bar(6) - none.bar(2)) < 0.2, words);
  }
});

test('subito piano and immer leiser act on the plan; the next mark takes over', () => {
  const sudden = heard(`!f!${BARS}"_subito piano"${BARS}`);
  assert.ok(sudden.level(15) > 5.5 && sudden.level(16) < 3.5);
  const softer = heard(`!f!${BARS}"_immer leiser"CDEF|GABc|cBAG|FEDC|!ff!${BARS}`);
  assert.ok(softer.level(27) < softer.level(17) - 0.3);
  assert.ok(softer.level(33) > 6.5);
});

test('a crescendo in words goes to the mark after it', () => {
  const { level } = heard(`!p!CDEF|"_cresc."GABc|cBAG|!f!FEDC|${BARS}`);
  assert.ok(level(4) < 3.5 && level(8) > 4 && level(11.9) > 5.5 && level(12.5) > 5.5);
});

test('editorial words act as printed ones do', () => {
  const marking: Marking = { id: 'm', kind: 'text', value: 'morendo', part: 0, staff: 1, start: { n: 16, d: 1 }, because: [] };
  const { level } = heard(`!mf!${BARS}${BARS}`, 'modern', [marking]);
  assert.ok(level(31) < 2);
});

test('calando takes time except in the classical style', () => {
  const slowed = (period: 'romantic' | 'classical') => {
    const { bar } = heard(`${BARS}"^calando"${BARS}`, period);
    return bar(6) / bar(2);
  };
  assert.ok(slowed('romantic') > 1.03);
  assert.ok(slowed('classical') < 1.02);
});

test('an editorial metronome mark without an equals sign is played', () => {
  const mark: Marking = { id: 'm', kind: 'metronome', value: '120', part: 0, staff: 1, start: { n: 16, d: 1 }, because: [] };
  const { bar } = heard(`${BARS}${BARS}`, 'modern', [mark]);
  assert.ok(Math.abs(bar(0) - 4) < 0.1 && Math.abs(bar(5) - 2) < 0.1);
});

test('an editorial articulation outweighs the printed one', () => {
  const playable = piece('.C.D.E.F|');
  const note = playable.score.notes[1];
  const own: Marking = { id: 'm', kind: 'articulation', value: 'tenuto', part: 0, staff: 1, start: note.start, note: note.id, because: [] };
  const p = perform(playable, readingOf('classical', { staccato: 'half' }, { markings: [own] }));
  const sounds = (k: number): number => {
    const played = p.notes.find((n) => n.note === playable.score.notes[k].id)!;
    return played.end - played.onset;
  };
  assert.ok(sounds(1) > 0.95 && sounds(2) < 0.6, `${sounds(1)} ${sounds(2)}`);
});

test('proof reads words as they are meant', () => {
  const findings = (music: string): string[] => {
    const { playable, reading } = heard(music);
    return proof(playable.study, reading, []).map((f) => f.kind);
  };
  assert.ok(!findings(`"^ritmico"${BARS}${BARS}${BARS}`).includes('tempo not restored'));
  assert.ok(!findings(`"^strings only"${BARS}${BARS}${BARS}`).includes('accelerando without an end'));
  assert.ok(findings(`"^stringendo"${BARS}${BARS}${BARS}`).includes('accelerando without an end'));
});
