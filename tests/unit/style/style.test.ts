import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { rulesPage } from '../../../src/core/edition/rules-page.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { styleOf } from '../../../src/core/reading/reading.ts';
import { draft, wholeScore } from '../../../src/core/reading/draft/draft.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { kindOf } from '../../../src/core/markings/describe.ts';
import { MARKING_KINDS } from '../../../src/core/markings/marking-kind.ts';
import { instrumentByKey, UNKNOWN_INSTRUMENT } from '../../../src/core/style/instruments/index.ts';
import { isFor } from '../../../src/core/style/instruments/instrument.ts';
import { SOURCES } from '../../../src/core/style/bibliography.ts';
import { clarityCeiling, soundAndSilence } from '../../../src/core/style/clarity.ts';
import { APPOGGIATURA_SHARE } from '../../../src/core/style/ornaments.ts';
import { PERIODS, PROFILES, strengthIn } from '../../../src/core/style/profiles.ts';
import { isAnswer, SCHOOLS, type School } from '../../../src/core/style/schools.ts';
import { swingRatio } from '../../../src/core/style/swing.ts';
import { onScaleBelow } from '../../../src/core/style/tempo-words.ts';
import { demo } from '../helpers.ts';

test('every profile answers questions of school with answers that there are', () => {
  for (const period of PERIODS)
    for (const [key, value] of Object.entries(PROFILES[period].schools)) assert.ok(isAnswer(key, value), `${period}: ${key}=${value}`);
  assert.equal(isAnswer('text', 'loose'), false);
});

test('every answer has its reason in at least a sentence or two, and its sources', () => {
  for (const school of SCHOOLS as readonly School[]) {
    assert.ok(school.options.length >= 2, school.key);
    for (const o of school.options) {
      assert.ok(o.reason.length > 60, `${school.key} ${o.value}`);
      for (const s of o.sources) assert.ok(SOURCES[s]);
    }
  }
});

test('a profile without a rule of its own takes it from the one it stems from, weaker', () => {
  assert.equal(strengthIn({ romantic: 0.8 }, 'french-1900'), 0.68);
  assert.equal(strengthIn({ romantic: 0.8, 'french-1900': 0.3 }, 'french-1900'), 0.3);
  assert.equal(strengthIn({ romantic: 0.8 }, 'highland-pipes'), null);
});

test('the page of rules in docs is the one that the data make', () => {
  assert.equal(readFileSync(join(import.meta.dirname, '../../../docs/rules.md'), 'utf8'), rulesPage());
});

// Friberg & Sundström 2002, as commonly summarised (handbook 1.8).
test('swing ratios by tempo', () => {
  assert.ok(Math.abs(swingRatio(200) - 2) < 1e-9);
  assert.ok(Math.abs(swingRatio(240) - 1.5) < 1e-9);
  assert.ok(Math.abs(swingRatio(150) - 3) < 1e-9);
  assert.equal(swingRatio(60), 3.5);
});

// Arithmetic of the handbook, 6.3; the limit of 70 ms is from memory.
test('the clarity ceiling of a sixteenth at half its value', () => {
  const { sound, silence } = soundAndSilence(0.25, 0.5, 96);
  assert.equal((1000 * sound).toFixed(3), '78.125');
  assert.equal((1000 * silence).toFixed(3), '78.125');
  assert.equal(clarityCeiling(0.25, 0.5).toFixed(1), '107.1');
  assert.equal(onScaleBelow(clarityCeiling(0.25, 0.5)), 104);
});

// Quantz 1752, VIII; C. P. E. Bach 1753, II.2; L. Mozart 1756, IX.
test('the long appoggiatura takes a half or two thirds', () => {
  assert.deepEqual(APPOGGIATURA_SHARE, { plain: { n: 1, d: 2 }, dotted: { n: 2, d: 3 } });
});

test('a draft is one act: made, seen by rule, undone and done again', () => {
  const { score } = demo('corrente.abc');
  const study = studyOf(score);
  const style = { period: 'baroque' as const, schools: {}, ruleFactors: {} };
  const order = wholeScore(study);
  const kept = draft(study, style, order);
  assert.ok(kept.length > 5 && kept.length < propose(study, style).length);
  const reading = replay([{ type: 'draft', kept }]);
  assert.equal(reading.markings.length, kept.length);
  for (const m of reading.markings) assert.ok(m.because[0].rule && m.proposal);
  assert.equal(replay([{ type: 'draft', kept }, { type: 'undo' }]).markings.length, 0);
  assert.equal(replay([{ type: 'draft', kept }, { type: 'undo' }, { type: 'redo' }]).markings.length, kept.length);
  const decided = new Set(propose(study, style).map((p) => p.key));
  assert.deepEqual(draft(study, style, { ...order, decided }), [], 'what is decided is not drafted again');
});

test('answers and weights of rules belong to the reading and keep their day', () => {
  const reading = replay([
    { type: 'set-period', period: 'romantic' },
    { type: 'answer-school', key: 'return', option: 'proclaim', on: '2026-11-02' },
    { type: 'weigh-rule', rule: 'rise-grows', factor: 0 }
  ]);
  assert.deepEqual(reading.schools.return, { option: 'proclaim', on: '2026-11-02' });
  assert.deepEqual(styleOf(reading), {
    period: 'romantic',
    local: [],
    schools: { return: 'proclaim' },
    ruleFactors: { 'rise-grows': 0 },
    instruments: {}
  });
  const { score } = demo('etude.abc');
  const rules = new Set(propose(studyOf(score), styleOf(reading)).map((p) => p.rule));
  assert.ok(!rules.has('rise-grows') && !rules.has('steal-into-the-return'));
});

test('only what an instrument can do is offered: no bows for winds, no breath for keys, all of it where nothing is known', () => {
  const offered = (key: string): string[] =>
    MARKING_KINDS.filter((k) => isFor(kindOf(k).needs, key === 'unknown' ? UNKNOWN_INSTRUMENT : instrumentByKey(key)!));
  assert.ok(!offered('clarinet').includes('bowing') && offered('clarinet').includes('breath'));
  assert.ok(offered('violin').includes('bowing') && !offered('violin').includes('breath'));
  assert.ok(!offered('piano').includes('breath') && !offered('piano').includes('bowing'));
  assert.deepEqual(offered('unknown'), [...MARKING_KINDS]);
});
