import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
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
import { abc, markingAt } from '../../helpers.ts';
import { claimsOf } from '../critic/claims.ts';
import { SCORES } from '../critic/scores.ts';

const study = (body: string, head = 'M:4/4\nL:1/4\nK:C'): Study => studyOf(abc(`${head}\n${body}`));

/** A claim about the notes at some places of a score's list, rests and small notes counted. */
function claimOn({ score }: Study, what: ClaimName, notes: readonly number[], rest: Partial<Claim> = {}): Claim {
  const own = notes.map((k) => score.notes[k]);
  return { what, part: 0, at: own[0]?.start ?? frac(0), notes: own.map((n) => n.id), ...rest };
}
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
  ['stepwise line', 'C D E F|G ^A B c|', [0, 1, 2, 3], 'bar 1, beat 1: 4 notes in one stepwise line', [4, 5, 6]],
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

test('notes and numerals are told in signs, and what is printed stays as it is', () => {
  const s = study('"^Ab hier langsamer"C D E F|G A B c|');
  assert.equal(told({ what: 'words stand', part: 0, at: frac(0), text: 'Ab hier langsamer' }, ground(s)), 'bar 1: “Ab hier langsamer”');
  const because = { what: 'suspect note', part: 0, at: frac(0), text: 'bar 1: Bb where F# stands elsewhere', notes: [s.score.notes[0].id] };
  assert.equal(told(because, ground(s)), 'bar 1: B♭ where F♯ stands elsewhere');
});

test('a level is the one of before only where that is in force again', () => {
  const s = study('!f!C D E F|G A B c|c B A G|');
  const claim: Claim = { what: 'level of before', part: 0, at: frac(8), beside: frac(4) };
  const soft = markingAt('dynamic', 'p', 4);
  assert.ok(holds(claim, ground(s, [soft, markingAt('dynamic', 'f', 8)])));
  assert.ok(!holds(claim, ground(s, [soft, markingAt('dynamic', 'mp', 8)])));
  assert.ok(!holds(claim, ground(s, [soft])));
});

test('a note that a scale passes through leans on nothing', () => {
  const piano = (line: string) =>
    studyOf(abc(`M:4/4\nL:1/8\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n${line}\nV:B\n[C,E,G,]8|[C,E,G,]8|`));
  const leans = (line: string): boolean => propose(piano(line), 'classical').some((p) => p.rule === 'slur-the-appoggiatura');
  assert.ok(leans('c2e2 f2e2|c8|'));
  assert.ok(!leans('c2g2 f2e2|c8|'), 'g f e is a scale');
});

test('what is told of levels follows the marks of the reading', () => {
  const s = study('!p!C D E F|!sf!G A B c|');
  const claim: Claim = { what: 'sforzando within', part: 0, at: frac(4), text: 'sf' };
  assert.equal(told(claim, ground(s)), 'bar 2: sf while p is in force');
  const because = [{ text: 'as it was', claim, rule: 'sforzando-in-context' }];
  const mark = { ...markingAt('advice', 'within p', 4), because };
  const anew = (value: string) => toldAnew([mark, markingAt('dynamic', value, 0)], s.score, () => s.facts)[0].because[0].text;
  assert.match(anew('pp'), /^bar 2: sf while pp is in force\. /);
  // What does not hold any more is not said.
  assert.equal(anew('f'), `${RULES.find((r) => r.id === 'sforzando-in-context')!.title}.`);
});

test('a claim that is not whole, or of a kind that is not known, does not hold and does no harm', () => {
  const s = study('C D E F|G A B c|');
  for (const what of [...CLAIM_NAMES, 'some later kind', 'constructor', '__proto__', 'toString']) {
    for (const claim of [
      { what, part: 0, at: frac(0) },
      { what, part: 0, at: frac(0), beside: frac(4), to: frac(-1), count: 0, text: '', notes: [s.score.notes[0].id], fact: 'none' },
      {
        what,
        part: 0,
        at: frac(0),
        count: 1e9,
        beside: frac(4),
        to: frac(1e6),
        text: 'x',
        notes: Array<string>(5000).fill(s.score.notes[0].id)
      },
      { what, part: 7, at: frac(9000), notes: ['none'], fact: 'none' }
    ] satisfies Claim[])
      assert.doesNotThrow(() => holds(claim, ground(s)), what);
    for (const none of ['some later kind', 'constructor', '__proto__']) assert.ok(!holds({ what: none, part: 0, at: frac(0) }, ground(s)));
    // No bars are the same as none.
    for (const count of [0, -1, 1e9]) assert.ok(!holds({ what: 'repeats at once', part: 0, at: frac(4), count }, ground(s)));
  }
});

test('whatever a stored claim says, it is read back and told without harm', () => {
  const s = study('!p!"^dolce"C !fermata!D .E F-|[M:none]F/ G A z|[M:3/4]!sf!TG {a}^A2|!turn!B3|]');
  const ids = [...s.score.notes.map((n) => n.id), 'none'];
  const fact = [s.facts.phrases, s.facts.chords, s.facts.cadences, s.facts.sections, s.facts.parallels].flatMap((l) => l.map((f) => f.id));
  const moment = fc.record({ n: fc.integer({ min: -4, max: 40 }), d: fc.constantFrom(1, 2, 3) });
  const claims = fc.record(
    {
      what: fc.constantFrom(...CLAIM_NAMES),
      part: fc.integer({ min: 0, max: 1 }),
      at: moment,
      to: moment,
      beside: moment,
      notes: fc.array(fc.constantFrom(...ids), { maxLength: 9 }),
      count: fc.oneof(fc.integer({ min: -2, max: 9 }), fc.double({ noNaN: true })),
      text: fc.constantFrom('', 'dolce', 'staccato', 'crescendo', 'sf', 'Andante', '0.5', 'C major, a soft level in force'),
      fact: fc.constantFrom('none', ...fact)
    },
    { requiredKeys: ['what', 'part', 'at'] }
  );
  // Every kind as bare as it may be stored, at every eighth.
  for (const what of CLAIM_NAMES)
    for (let k = 0; k < 40; k++)
      for (const notes of [undefined, [ids[k % ids.length]]]) {
        const claim: Claim = { what, part: 0, at: frac(k, 2), ...(notes ? { notes } : {}) };
        if (holds(claim, ground(s))) assert.doesNotMatch(told(claim, ground(s)), /undefined|NaN/, what);
      }
  fc.assert(
    fc.property(claims, (claim: Claim) => {
      if (holds(claim, ground(s))) assert.doesNotMatch(told(claim, ground(s)), /undefined|NaN/);
    }),
    { numRuns: 4000 }
  );
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
