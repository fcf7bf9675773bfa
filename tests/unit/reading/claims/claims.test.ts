import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf, type Study } from '../../../../src/core/analysis/study.ts';
import type { Claim } from '../../../../src/core/markings/claim.ts';
import { toldAnew } from '../../../../src/core/reading/claims/anew.ts';
import { CLAIM_NAMES, groundOf, holds, told, type ClaimName } from '../../../../src/core/reading/claims/claims.ts';
import { dynamicLevels } from '../../../../src/core/reading/in-force.ts';
import { propose } from '../../../../src/core/reading/propose.ts';
import { RULES } from '../../../../src/core/reading/rules/index.ts';
import { frac, type Fraction } from '../../../../src/core/score/fraction.ts';
import { strengthIn } from '../../../../src/core/style/profiles.ts';
import { ruleContext } from '../../../../src/core/reading/context.ts';
import type { Marking } from '../../../../src/core/markings/marking.ts';
import { abc } from '../../helpers.ts';
import { claimsOf } from '../critic/claims.ts';
import { SCORES } from '../critic/scores.ts';

const study = (body: string, head = 'M:4/4\nL:1/4\nK:C'): Study => studyOf(abc(`${head}\n${body}`));

/** A claim about the notes at some places of a score's list, rests and small notes counted. */
function claimOn({ score }: Study, what: ClaimName, notes: readonly number[], rest: Partial<Claim> = {}): Claim {
  const own = notes.map((k) => score.notes[k]);
  return { what, part: 0, at: own[0]?.start ?? frac(0), notes: own.map((n) => n.id), ...rest };
}
const marking = (kind: Marking['kind'], value: string, at: number): Marking => ({
  id: `mark-${kind}-${at}`,
  kind,
  value,
  part: 0,
  staff: 1,
  start: frac(at),
  because: []
});
const ground = (s: Study, markings: Parameters<typeof dynamicLevels>[1] = []) =>
  groundOf(s.score, s.facts, dynamicLevels(s.score, markings));

/** Kind, notes of which it is true, its words, notes of which it is false. */
type Row = [what: ClaimName, body: string, of: number[], words: string, not: number[], rest?: Partial<Claim>];
const ROWS: Row[] = [
  ['dots', '.C D E F|', [0], 'bar 1: dots are printed', [1]],
  ['slurred pair', '(CD) E F|', [0, 1], 'bar 1: a slurred pair', [1, 2]],
  ['long before detached', 'C2 .D .E|F2 G A|', [0, 1], 'bar 1: a long note before detached ones', [3, 4]],
  ['tied over', 'C D E F-|F G- G A|', [3], 'bar 1: tied over a stronger beat; it must not be cut', [1]],
  ['leap', "C c' C D|", [0, 1], 'bar 1: a leap of two octaves up'.replace('two octaves', '2 octaves'), [2, 3]],
  ['equal marks', '.C .D .E .F|.G A .B .c|', [0, 1, 2, 3], 'bar 1: four equal notes, each staccato', [4, 5, 6, 7], { text: 'staccato' }],
  ['held accent', '!>!C2 !>!D E|', [0], 'bar 1: an accent on a held note', [1]],
  ['lone accent', 'C !>!D E !>!F|!>!G A B c|', [0, 1, 2], 'bar 1, beat 1: an accent between plain notes', [2, 3, 4]],
  ['wide under a slur', '(C c) D d|', [0, 1], 'bar 1: a leap of an octave or more under a slur', [2, 3]],
  ['ends off the beat', 'C D/ E/ z F|', [2], 'bar 1, beat 2½: the line ends off the beat before a rest', [1]],
  [
    'repeated notes',
    'C C C C|D E F G|',
    [0, 1, 2, 3, 4],
    'bar 1, beat 1: 4 times the same note, then another',
    [1, 2, 3, 4, 5],
    { count: 4 }
  ],
  ['stepwise line', 'C D E F|G E G A|', [0, 1, 2, 3, 4], 'bar 1, beat 1: 5 notes in one stepwise line', [3, 4, 5]],
  ['dotted figure', 'C> D E3/2 F|', [0, 1], 'bar 1: a dotted figure', [2, 3]],
  ['equal steps', 'C/D/E/F/ G2|C/E/G/c/ G2|', [0, 1, 2, 3], 'bar 1: equal notes in steps', [5, 6, 7, 8]],
  [
    'quick run',
    'C/4D/4E/4F/4G/4A/4B/4c/4 C D|C/D/4E/4F/4G/4A/4B/4c C|',
    [0, 1, 2, 3, 4, 5, 6, 7],
    'bar 1: a run of equal quick notes',
    [10, 11, 12, 13, 14, 15, 16, 17]
  ],
  ['syncopation', 'C/ D E/ F2|', [1], 'bar 1, beat 1½: the note enters off the beat and holds across a stronger one', [0]],
  ['entry off the beat', 'C z z/ D/ E|', [3], 'bar 1, beat 3½: an entry off the beat after a rest', [4]],
  ['highest note', 'C D c F|B A G F|', [2], 'bar 1: the highest note of the line, and it comes once', [4]],
  ['chromatic line', 'C ^C D ^D|E G A B|', [0, 1, 2, 3], 'bar 1: a chromatic line goes up', [4, 5, 6, 7]],
  ['trill', 'TC D E F|', [0], 'bar 1: a trill', [1]],
  ['trill leads up', 'TC D TE G|', [0, 1], 'bar 1: the trill leads a step up', [2, 3]],
  ['fermata', '!fermata!C2 D E|', [0], 'bar 1: a fermata on a note of 2 quarters', [1]],
  ['third between', 'C E F G|', [0, 1], 'bar 1: a third between two notes, in a repeated strain', [1, 2]],
  [
    'circling',
    'C/4D/4C/4B,/4 C/4 D3/4 E F|C/4E/4C/4B,/4 C/4 D3/4 E F|',
    [0, 1, 2, 3, 4],
    'bar 1, beat 1: quick notes circle around one',
    [8, 9, 10, 11, 12]
  ],
  ['phrase begins on the downbeat', 'C D E F|', [0], 'bar 1, beat 1: the phrase begins on the downbeat', [1]],
  ['longer than before', 'C D2 E|', [0, 1], 'bar 1: the phrase comes to rest on a longer note', [1, 2]],
  ['long before a rest', 'C3 z|D z E F|', [0], 'bar 1: a note of 3 quarters before a rest', [2]]
];

test('each kind of claim is told, holds where it is true and not where it is not', () => {
  for (const [what, body, of, words, not, rest] of ROWS) {
    const s = study(body);
    const claim = claimOn(s, what, of, rest);
    assert.ok(holds(claim, ground(s)), `${what}: ${body}`);
    assert.equal(told(claim, ground(s)), words);
    assert.ok(!holds(claimOn(s, what, not, rest), ground(s)), `${what} is said of what it is not true of: ${body}`);
  }
});

test('claims of stretches: ways up, repetitions, hairpins, values that grow', () => {
  const of = (body: string, what: ClaimName, at: Fraction, rest: Partial<Claim> = {}): boolean => {
    const s = study(body);
    return holds({ what, part: 0, at, ...rest }, ground(s));
  };
  assert.ok(of('C D E C|C D E C|', 'repeats at once', frac(4), { count: 1 }));
  assert.ok(!of('C D E C|C D F C|', 'repeats at once', frac(4), { count: 1 }));
  assert.ok(of('!p!C !<(!D E !<)!F|G A B c|', 'hairpin without a goal', frac(1), { text: 'crescendo' }));
  assert.ok(!of('!p!C !<(!D E !<)!F|!f!G A B c|', 'hairpin without a goal', frac(1), { text: 'crescendo' }));
  assert.ok(of('C/C/ D D E2|', 'values grow', frac(0), { to: frac(5), text: 'slower' }));
  assert.ok(!of('C2 D D E/E/|', 'values grow', frac(0), { to: frac(5), text: 'slower' }));
  const s = study('C E G c|B2 A2|');
  assert.ok(holds(claimOn(s, 'climbs', [0, 3], { to: frac(3) }), ground(s)));
  assert.ok(!holds(claimOn(s, 'climbs', [0, 5], { to: frac(6) }), ground(s)), 'a higher note stands on the way');
});

test('what is told of levels follows the marks of the reading', () => {
  const s = study('!p!C D E F|!sf!G A B c|');
  const claim: Claim = { what: 'sforzando within', part: 0, at: frac(4), text: 'sf' };
  assert.equal(told(claim, ground(s)), 'bar 2: sf while p is in force');
  const because = [{ text: 'as it was', claim, rule: 'sforzando-in-context' }];
  const mark = { ...marking('advice', 'within p', 4), because };
  const anew = (value: string) => toldAnew([mark, marking('dynamic', value, 0)], s.score, () => s.facts)[0].because[0].text;
  assert.match(anew('pp'), /^bar 2: sf while pp is in force\. /);
  // What does not hold any more is not said.
  assert.equal(anew('f'), `${RULES.find((r) => r.id === 'sforzando-in-context')!.title}.`);
});

test('a claim that is not whole, or of a kind that is not known, does not hold and does no harm', () => {
  const s = study('C D E F|G A B c|');
  for (const what of [...CLAIM_NAMES, 'some later kind']) {
    for (const claim of [
      { what, part: 0, at: frac(0) },
      { what, part: 7, at: frac(9000), notes: ['none'], fact: 'none' }
    ] satisfies Claim[])
      assert.doesNotThrow(() => holds(claim, ground(s)), what);
    assert.ok(!holds({ what: 'some later kind', part: 0, at: frac(0) }, ground(s)));
  }
});

test('over all scores and styles nothing is proposed whose claim cannot be read back, and most of what rules find can', () => {
  let proposed = 0;
  for (const { name, period, study } of SCORES) {
    const s = study();
    const page = groundOf(s.score, s.facts, dynamicLevels(s.score));
    for (const p of propose(s, period)) {
      const [{ claim, text }] = p.marking.because;
      assert.ok(claim && holds(claim, page), `${name}: ${p.key}`);
      assert.doesNotMatch(text, /undefined|null|NaN|\.\.|(\b\w+\b) \1 /, `${name}: ${p.key}`);
      proposed++;
    }
  }
  assert.ok(proposed > 500);
  const { made, refused } = claimsOf(SCORES);
  assert.ok(refused / made < 0.04, `${refused} of ${made} claims of the rules are refused`);
});

test('every rule that a period knows claims something of a known kind', () => {
  const kinds = new Set<string>();
  for (const { study } of SCORES.slice(0, 12)) {
    const c = ruleContext(study(), { period: 'classical', schools: {}, ruleFactors: {} });
    for (const rule of RULES) if (strengthIn(rule.periods, 'classical')) for (const d of rule.find(c)) kinds.add(d.fact.what);
  }
  assert.ok(kinds.size > 20);
  for (const kind of kinds) assert.ok((CLAIM_NAMES as readonly string[]).includes(kind), kind);
});
