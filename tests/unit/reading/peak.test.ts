import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { draftCard } from '../../../src/core/edition/text/card.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { playableScore } from '../../../src/core/performance/playable-score.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import { dynamicPlan } from '../../../src/core/reading/dynamic-plan.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import type { Edition } from '../../../src/core/edition/text/edition.ts';
import { abc } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/4\nQ:1/4=84\nK:C\n';
/** Loud from bar 5 on; the highest and longest note stands in bar 7. */
const ARCH = abc(`${HEAD}!p!c d e f|g f e d|c e g e|d f a f|!f!g e g c'|b g a b|e'4|d' b g d|!p!c e d B|c4|]`);

const reading: Reading = { ...EMPTY_READING, period: 'romantic' };

test('the peak is one: plan, words and card name the same bar, that for which most speaks among the loudest', () => {
  const study = studyOf(ARCH);
  const { peak } = dynamicPlan(ARCH, study.facts, reading);
  assert.equal(ARCH.measures[peak.measure].number, '7');
  const words = propose(study, 'romantic').filter((p) => p.rule === 'one-peak');
  assert.deepEqual(
    words.map((p) => ARCH.notes.find((n) => n.id === p.marking.note)!.measure),
    [peak.measure]
  );
  const performance = perform(playableScore(study, 0, {}), reading);
  const card = draftCard({ score: ARCH, facts: study.facts, reading, performance } as Edition);
  assert.ok(card.some((line) => line.startsWith('Bar 7 is the peak')));
});

test('a highest note in a soft bar is not called the peak', () => {
  const soft = abc(`${HEAD}!f!c d e f|g f e d|c e g e|d f a f|g e g c'|b g a b|!p!e'4|d' b g d|c e d B|c4|]`);
  assert.deepEqual(
    propose(studyOf(soft), 'romantic').filter((p) => p.rule === 'one-peak'),
    []
  );
});

test('the proof finds a word for the peak where the plan has it elsewhere', () => {
  const study = studyOf(ARCH);
  const word = (measure: number): Marking => ({
    id: 'mark-1',
    kind: 'advice',
    value: 'peak',
    part: 0,
    staff: 1,
    start: ARCH.measures[measure].start,
    because: []
  });
  const found = (measure: number) =>
    proof(study, { ...reading, markings: [word(measure)] }, []).filter((f) => f.kind === 'peaks that disagree');
  assert.match(found(1)[0].what, /^bar 2 is called the peak, and the plan is loudest in bar 7/);
  assert.deepEqual(found(6), []);
  assert.deepEqual(
    proof(study, { ...reading, markings: [word(1)], plan: { ...reading.plan, peak: 1 } }, []).filter(
      (f) => f.kind === 'peaks that disagree'
    ),
    [],
    'the teacher has set it there'
  );
});
