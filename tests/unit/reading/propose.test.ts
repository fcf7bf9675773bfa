import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Proposal } from '../../../src/core/reading/proposal.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { AREAS } from '../../../src/core/reading/rules/rule.ts';
import { RULES } from '../../../src/core/reading/rules/index.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { SOURCES } from '../../../src/core/style/bibliography.ts';
import { PERIODS, type Period } from '../../../src/core/style/profiles.ts';
import { abc, demo } from '../helpers.ts';

const all = (score: Score, period: Period): Proposal[] => propose(studyOf(score), period);
const of = (score: Score, period: Period, rule: string): Proposal[] => all(score, period).filter((p) => p.rule === rule);
const tune = (music: string, header = 'M:4/4\nL:1/8\nV:1 name="Flute"\nK:C') => abc(`${header}\n${music}`);

test('there are at least a dozen rules in the four areas, each with period, words and source', () => {
  assert.ok(RULES.length >= 12);
  assert.deepEqual([...new Set(RULES.map((r) => r.area))].sort(), [...AREAS].sort());
  for (const rule of RULES) {
    assert.ok(Object.keys(rule.periods).length > 0 && rule.sources.length > 0, rule.id);
    assert.ok(rule.looksAt.endsWith('.') && rule.proposes.endsWith('.'), rule.id);
    for (const source of rule.sources) assert.ok(SOURCES[source], source);
  }
  assert.equal(new Set(RULES.map((r) => r.id)).size, RULES.length);
});

test('one page in three periods: what is proposed differs as the sources say', () => {
  const { score } = demo('corrente.abc');
  const rules = (period: Period) => new Set(all(score, period).map((p) => p.rule));
  assert.ok(rules('romantic').has('rise-grows') && !rules('baroque').has('rise-grows'));
  assert.ok(rules('baroque').has('weight-where-harmony-changes') && !rules('classical').has('weight-where-harmony-changes'));
  assert.ok(rules('romantic').has('broaden-into-the-close') && !rules('classical').has('broaden-into-the-close'));
  const begin = (['baroque', 'classical', 'romantic'] as const).map((p) => of(score, p, 'say-how-it-begins')[0].marking.value);
  assert.deepEqual(begin, ['f', 'mf', 'mp']);
  assert.deepEqual(of(score, 'highland-pipes', 'say-how-it-begins'), []);
});

test('a missing dynamic is proposed only where none is in force', () => {
  assert.equal(of(tune('CDEF GABc|c8|'), 'classical', 'say-how-it-begins').length, 1);
  assert.equal(of(tune('!p!CDEF GABc|c8|'), 'classical', 'say-how-it-begins').length, 0);
});

test('a breath only where the phrase ends without a rest, and only for those who breathe', () => {
  const music = (gap: string) => `c2e2 g2e2|f2d2 e2c2|d2e2 d2B2|c4 ${gap}|c2e2 g2e2|f2d2 e2c2|d2e2 d2B2|c8|`;
  assert.equal(of(tune(music('c4')), 'classical', 'breathe-at-phrase-end').length, 1);
  assert.equal(of(tune(music('c2z2')), 'classical', 'breathe-at-phrase-end').length, 0);
  assert.equal(of(abc(`M:4/4\nL:1/8\nV:1 name="Piano"\nK:C\n${music('c4')}`), 'classical', 'breathe-at-phrase-end').length, 0);
});

test('hairpins lead to their goal, quote no level, and leave printed ones alone', () => {
  const rising = (mark = '', end = '') => tune(`!p!${mark}C2E2 G2B2|d2f2 ${end}a4|g2f2 d2B2|c8|`);
  const [proposal] = of(rising(), 'romantic', 'rise-grows');
  // Which level is in force is known only when all marks are chosen.
  assert.doesNotMatch(proposal.marking.because[0].text, /\b(from|toward) (p|mf)\b/);
  assert.equal(proposal.marking.kind, 'hairpin');
  assert.equal(toNumber(proposal.marking.end!), 6, 'it has grown when the highest note begins');
  assert.equal(of(rising('!<(!', '!<)!'), 'romantic', 'rise-grows').length, 0);
});

test('the Neapolitan is brought out, a plain chord is not', () => {
  const found = of(demo('corrente.abc').score, 'baroque', 'bring-out-the-colour');
  assert.equal(found.length, 1);
  assert.match(found[0].marking.because[0].text, /bar 26: neapolitan/);
  assert.equal(of(tune('CEGc GECE|C8|'), 'baroque', 'bring-out-the-colour').length, 0);
});

test('a ritardando that nobody takes back is asked about; one followed by “a tempo” is not', () => {
  const music = (word: string) => `cdef g4|"^rit."fedc B2z2|${word}cdef g4|fedB c4|`;
  assert.equal(of(tune(music('')), 'romantic', 'restore-the-tempo').length, 1);
  assert.equal(of(tune(music('"^a tempo"')), 'romantic', 'restore-the-tempo').length, 0);
});

test('keys are stable: the same place and rule have the same key', () => {
  const { score } = demo('andantino.abc');
  assert.deepEqual(
    all(score, 'classical').map((p) => p.key),
    all(score, 'classical').map((p) => p.key)
  );
  assert.equal(new Set(all(score, 'classical').map((p) => p.key)).size, all(score, 'classical').length);
});

test('a corrected chord changes what hung on it', () => {
  const { score } = demo('corrente.abc');
  const bar = score.measures.find((m) => m.number === '26')!;
  const end = score.measures[bar.index + 1].start;
  const facts = analyse(score, [{ id: 'x', kind: 'chord', start: bar.start, end, roman: 'iio' }]);
  assert.ok(!propose(studyOf(score, [], facts), 'baroque').some((p) => p.rule === 'bring-out-the-colour'));
});

test('at one place the stronger of two rules on one matter is heard', () => {
  for (const period of PERIODS) {
    const found = all(demo('andantino.abc').score, period).filter((p) => p.marking.kind === 'dynamic');
    assert.equal(new Set(found.map((p) => `${p.marking.start.n}/${p.marking.start.d}`)).size, found.length);
  }
});
