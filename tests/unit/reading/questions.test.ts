import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { EMPTY_READING, styleOf } from '../../../src/core/reading/reading.ts';
import { replay } from '../../../src/core/reading/log.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { ruleContext } from '../../../src/core/reading/context.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { effectsOf, openQuestions, placesWithin, questionsOf } from '../../../src/core/reading/questions.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { abc, demo } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nV:1 name="Flute"\nK:C\n';
const score = abc(`${HEAD}!trill!c2 d2|e2 f2|!trill!g2 a2|c'4|]`);
const facts = analyse(score);
const questions = (commands: Command[] = []) => {
  const reading = replay([{ type: 'set-period', period: 'baroque' }, ...commands]);
  return questionsOf(ruleContext(studyOf(score, [], facts), styleOf(reading), 0), reading);
};
const trills = (commands: Command[]) => {
  const reading = replay([{ type: 'set-period', period: 'baroque' }, ...commands]);
  return propose(studyOf(score, [], facts), styleOf(reading))
    .filter((p) => p.rule === 'where-the-trill-begins')
    .map((p) => p.marking.value);
};

test('a question is put where its answer makes a difference, and only there', () => {
  const trill = questions().find((q) => q.key === 'trill-start')!;
  assert.deepEqual(trill.places, [frac(0), frac(8)]);
  assert.deepEqual(placesWithin(trill, frac(4), frac(12)), [frac(8)]);
  const keys = questions().map((q) => q.key);
  // No dots, no chords, no repeats, no slurs are printed; a flute has no bow.
  for (const key of ['staccato', 'chord-break', 'repeats', 'slur-pairs', 'bowing', 'sforzando'] as const)
    assert.ok(!keys.includes(key), key);
});

test('every question of the demo pieces stands in its period, with options that have reasons', () => {
  for (const [file, period] of [
    ['corrente.abc', 'baroque'],
    ['andantino.abc', 'classical'],
    ['etude.abc', 'romantic']
  ] as const) {
    const piece = demo(file).score;
    const reading = { ...EMPTY_READING, period };
    const found = questionsOf(ruleContext(studyOf(piece), styleOf(reading), 0), reading);
    assert.ok(found.length >= 5, file);
    for (const q of found) {
      assert.ok(q.option === null || q.school.options.some((o) => o.value === q.option));
      for (const o of q.school.options) assert.ok(o.reason.length > 30 && o.sources.length > 0, `${q.key} ${o.value}`);
    }
  }
});

test('an answer for some bars changes the proposals there and leaves the others', () => {
  const here: Command = {
    type: 'answer-here',
    answer: { key: 'trill-start', option: 'main', from: frac(8), to: frac(12), on: '2026-11-03' }
  };
  assert.deepEqual(trills([]), ['from above', 'from above']);
  assert.deepEqual(trills([here]), ['from above', 'from the main note']);
  assert.deepEqual(trills([here, { type: 'withdraw-answer', key: 'trill-start', from: frac(8) }]), ['from above', 'from above']);
  assert.deepEqual(trills([{ type: 'answer-school', key: 'trill-start', option: 'main', on: '2026-11-03' }, here, { type: 'undo' }]), [
    'from the main note',
    'from the main note'
  ]);
});

test('each option says what it would add and take away', () => {
  const style = styleOf({ ...EMPTY_READING, period: 'baroque' });
  const effects = effectsOf(studyOf(score, [], facts), style, 'trill-start');
  const upper = effects.find((e) => e.option === 'upper')!;
  const main = effects.find((e) => e.option === 'main')!;
  assert.deepEqual([upper.added.length, upper.gone.length], [0, 0]);
  assert.deepEqual(
    main.added.map((p) => p.marking.value),
    ['from the main note', 'from the main note']
  );
  assert.deepEqual(
    main.gone.map((p) => p.marking.value),
    ['from above', 'from above']
  );
  const here = effectsOf(studyOf(score, [], facts), style, 'trill-start', 0, { from: frac(8), to: frac(12) });
  assert.equal(here.find((e) => e.option === 'main')!.added.length, 1);
});

test('a question is open until it is answered; put off it says when', () => {
  const of = (commands: Command[]) => questions(commands).find((q) => q.key === 'trill-start')!;
  assert.ok(openQuestions([of([])]).length === 1);
  const later = of([{ type: 'postpone-question', key: 'trill-start', on: '2026-11-03' }]);
  assert.equal(later.postponedOn, '2026-11-03');
  const answered = of([
    { type: 'postpone-question', key: 'trill-start', on: '2026-11-03' },
    { type: 'answer-school', key: 'trill-start', option: 'upper', on: '2026-11-04' }
  ]);
  assert.deepEqual([answered.decidedOn, answered.postponedOn, openQuestions([answered]).length], ['2026-11-04', null, 0]);
});

test('the weaker of two rules at one place is named by the stronger', () => {
  const piece = demo('corrente.abc').score;
  const found = propose(studyOf(piece), 'romantic');
  const outweighing = found.filter((p) => p.outweighs?.length);
  assert.ok(outweighing.length > 0);
  for (const p of outweighing)
    for (const o of p.outweighs!) assert.ok(o.strength <= p.strength && o.value !== p.marking.value && o.rule !== p.rule);
});
