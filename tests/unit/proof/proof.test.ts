import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { styleOf } from '../../../src/core/reading/reading.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import type { MarkingKind } from '../../../src/core/markings/marking-kind.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { abc, demo } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/8\nQ:1/4=80\nV:1 name="Clarinet"\nK:C\n';

/** A marking at the k-th sounding note. */
function mark(score: Score, k: number, kind: MarkingKind, value: string, extra: Partial<Marking> = {}): Command {
  const note = score.notes.filter((n) => n.pitch)[k];
  return {
    type: 'add-marking',
    marking: { id: `m${k}${kind}`, kind, value, part: 0, staff: 1, start: note.start, note: note.id, because: [], ...extra }
  };
}

/** Where a slur ends that is to hold the k-th sounding note. */
function slurTo(score: Score, k: number): Partial<Marking> {
  const note = score.notes.filter((n) => n.pitch)[k];
  return { end: note.start, endNote: note.id };
}

function findings(text: string, commands: (score: Score) => Command[] = () => []) {
  const score = abc(/(^|\n)K:/.test(text) ? text : HEAD + text);
  const reading = replay(commands(score));
  const study = studyOf(score, reading.pins);
  return proof(study, reading, propose(study, styleOf(reading)));
}

interface Case {
  kind: string;
  yes: string;
  no: string;
  with?: (score: Score) => Command[];
  without?: (score: Score) => Command[];
}

const THEME = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
const OTHER = "E2 z2 c'2 z2|b2 z2 F2 z2|";
const A = '!p!c2e2 g2e2|f2a2 g4|e2c2 d2B2|c6 z2|';
const B = "g3a b2g2|a3b c'2a2|d'2b2 a2^f2|g6 z2|";

const CASES: Case[] = [
  { kind: 'hairpin without goal', yes: '!p!c2!<(!d2 e2!<)!f2|g8|a8|', no: '!p!c2!<(!d2 e2!<)!f2|!f!g8|a8|' },
  { kind: 'no room for a crescendo', yes: '!ff!c2!<(!d2 e2!<)!f2|!ff!g8|', no: '!p!c2!<(!d2 e2!<)!f2|!ff!g8|' },
  {
    kind: 'successive hairpins alike',
    yes: '!p!c2!<(!d2 e2!<)!f2|!f!g8|!p!c2!<(!d2 e2!<)!f2|!f!g8|',
    no: '!p!c2!<(!d2 e2!<)!f2|!mf!g8|!p!c2!<(!d2 e2!<)!f2|!f!g8|'
  },
  { kind: 'two peaks', yes: '!p!c8|!ff!d8|!p!e8|!ff!f8|', no: '!p!c8|!f!d8|!p!e8|!ff!f8|' },
  { kind: 'peak spent early', yes: '!ff!c8|!p!d8|!mf!e8|f8|g8|a8|b8|', no: '!p!c8|!mf!d8|e8|f8|!ff!g8|a8|b8|' },
  {
    kind: 'editorial against printed',
    yes: '!p!c8|d8|',
    no: '!p!c8|d8|',
    with: (s) => [mark(s, 0, 'dynamic', 'f')],
    without: (s) => [mark(s, 0, 'dynamic', 'f', { because: [{ text: 'The manuscript has f.' }] })]
  },
  { kind: 'accented and unaccented alike', yes: '!accent!c2!accent!d2!accent!e2!accent!f2|g8|', no: '!accent!c2d2!accent!e2f2|g8|' },
  {
    kind: 'sforzando out of scale',
    yes: '!p!c4!sf!d4|e8|',
    no: '!p!c4!sf!d4|e8|',
    with: () => [{ type: 'answer-school', key: 'sforzando', option: 'absolute', on: '2026-11-03' }],
    without: () => [{ type: 'answer-school', key: 'sforzando', option: 'in-context', on: '2026-11-03' }]
  },
  {
    kind: 'background louder than foreground',
    yes: 'M:4/4\nL:1/8\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n!p!c2d2 e2g2|c8|\nV:B\n!f!C,G,E,G, C,G,E,G,|C,8|',
    no: 'M:4/4\nL:1/8\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n!f!c2d2 e2g2|c8|\nV:B\n!p!C,G,E,G, C,G,E,G,|C,8|'
  },
  {
    kind: 'ritardando too early',
    yes: '(c4d4|"^rit."e4f4|g4a4|b4a4|g4f4|e8)|',
    no: '(c4d4|e4f4|g4a4|b4a4|"^rit."g4f4|e8)|'
  },
  {
    kind: 'tempo outside the requested range',
    yes: 'c8|d8|',
    no: 'c8|d8|',
    with: () => [{ type: 'request-tempo', range: { low: 90, high: 100 } }],
    without: () => [{ type: 'request-tempo', range: { low: 76, high: 84 } }]
  },
  {
    kind: 'decoration too dense',
    yes: '|:c2e2 g4:|',
    no: '|:c2e2 g4:|',
    with: (s) => [mark(s, 0, 'text', '2nd time: fill the third'), mark(s, 1, 'text', '2nd time: turn')],
    without: (s) => [mark(s, 0, 'text', '2nd time: fill the third')]
  },
  { kind: 'no dynamic in force', yes: 'c8|d8|', no: '!p!c8|d8|' },
  { kind: 'repetitions all alike', yes: 'c2ed c2G2|c2ed c2G2|c2ed c2G2|A8|', no: 'c2ed c2G2|c2ed c2G2|!f!c2ed c2G2|A8|' },
  { kind: 'tempo not restored', yes: 'c4d4|"^rit."e4 z4|c2d2 e4|f4g4|g4 z4|', no: 'c4d4|"^rit."e4 z4|"^a tempo"c2d2 e4|f4g4|g4 z4|' },
  { kind: 'accelerando without an end', yes: 'c8|"^accel."d8|e8|f8|', no: 'c8|"^accel."d8|"^a tempo"e8|f8|' },
  {
    kind: 'ritardando on top of written-out slowing',
    yes: 'c/c/c/c/ c/c/c/c/ cccc|"^rit."c2c2 c2c2|c8|c8|',
    no: 'c2c2 c2c2|"^rit."c2c2 c2c2|c2c2 c2c2|'
  },
  {
    kind: 'articulation above the clarity ceiling',
    yes: 'M:4/4\nL:1/16\nQ:1/4=132\nK:C\n.c.d.e.f g4 c8|',
    no: 'M:4/4\nL:1/16\nQ:1/4=80\nK:C\n.c.d.e.f g4 c8|'
  },
  { kind: 'ornament does not fit its time', yes: 'M:4/4\nL:1/16\nQ:1/4=120\nK:C\n!trill!cdef g4 c8|', no: '!trill!c4 d4|' },
  { kind: 'breath too late', yes: 'cdef gfed|'.repeat(8) + 'c8|', no: 'cdef gfed|c6 z2|'.repeat(4) },
  {
    kind: 'breath inside a slur',
    yes: '(c2d2 e2f2)|g8|',
    no: '(c2d2) e2f2|g8|',
    with: (s) => [mark(s, 1, 'breath', 'breath')],
    without: (s) => [mark(s, 1, 'breath', 'breath')]
  },
  {
    kind: 'tie cut',
    yes: 'c4 d4-|d8|',
    no: 'c4 d4|d8|',
    with: (s) => [mark(s, 1, 'articulation', 'staccato')],
    without: (s) => [mark(s, 1, 'articulation', 'staccato')]
  },
  {
    kind: 'parallel places treated differently',
    yes: THEME + OTHER + THEME,
    no: THEME + OTHER + THEME,
    with: (s) => [mark(s, 0, 'accent', 'accent')],
    without: (s) => [mark(s, 0, 'accent', 'accent'), mark(s, 19, 'accent', 'accent')]
  },
  {
    kind: 'marks that crowd',
    yes: 'c2d2 e2f2|g8|',
    no: 'c2d2 e2f2|g8|',
    with: (s) => [0, 1, 2, 3].map((k) => mark(s, k, 'articulation', 'tenuto')),
    without: (s) => [0, 1, 2].map((k) => mark(s, k, 'articulation', 'tenuto'))
  },
  {
    kind: 'weight asked for twice',
    yes: 'c2!accent!d2 e2f2|g8|',
    no: 'c2!accent!d2 e2f2|g8|',
    with: (s) => [mark(s, 1, 'articulation', 'tenuto')],
    without: (s) => [mark(s, 2, 'articulation', 'tenuto'), mark(s, 1, 'articulation', 'staccato')]
  },
  {
    kind: 'level in force already',
    yes: '!p!c2d2 e2f2|g8|',
    no: '!p!c2d2 e2f2|g8|',
    with: (s) => [mark(s, 4, 'dynamic', 'p')],
    without: (s) => [mark(s, 4, 'dynamic', 'mf')]
  },
  {
    kind: 'breath inside a slur',
    yes: 'c2d2 e2f2|g8|',
    no: 'c2d2 e2f2|g8|',
    with: (s) => [mark(s, 0, 'slur', 'slur', slurTo(s, 3)), mark(s, 1, 'breath', 'breath')],
    without: (s) => [mark(s, 0, 'slur', 'slur', slurTo(s, 1)), mark(s, 1, 'breath', 'breath')]
  },
  { kind: 'suspect note unanswered', yes: `${A}${B}${A.replace('d2B2', 'd2_B2')}`, no: A + B + A },
  { kind: 'carried accidental likely to be missed', yes: '^FGAB cdeF|G8|', no: '^FF AB cdef|G8|' },
  { kind: 'displaced theme not marked', yes: `${THEME}${OTHER}z4 c2ed|c2G2 A2cB|A4 G2FE|D2EF z4|`, no: THEME + OTHER + THEME },
  { kind: 'term without effect', yes: '"^wibbly"c8|d8|', no: '"^dolce"c8|d8|' },
  {
    kind: 'proposals left open',
    yes: 'c2d2 e2f2|g8|',
    no: 'K:C\nc8|',
    without: (s) => propose(studyOf(s), 'classical').map((p) => ({ type: 'set-aside', key: p.key }))
  }
];

for (const c of CASES)
  test(`${c.kind}: found where it is, and not where it is not`, () => {
    const kinds = (text: string, commands?: (s: Score) => Command[]) => findings(text, commands).map((f) => f.kind);
    assert.ok(kinds(c.yes, c.with).includes(c.kind), kinds(c.yes, c.with).join(', '));
    assert.ok(!kinds(c.no, c.without).includes(c.kind));
  });

test('what was set aside as a proposal is not found again by the proof', () => {
  const text = `${THEME}${OTHER}z4 c2ed|c2G2 A2cB|A4 G2FE|D2EF z4|`;
  const score = abc(HEAD + text);
  const [proposal] = propose(studyOf(score), 'classical').filter((p) => p.rule === 'mark-the-displaced-theme');
  const kinds = (commands: Command[]) => findings(text, () => commands).map((f) => f.kind);
  assert.ok(kinds([]).includes('displaced theme not marked'));
  assert.ok(!kinds([{ type: 'set-aside', key: proposal.key }]).includes('displaced theme not marked'));
});

test('a swell returns to where it began and needs no goal', () => {
  const of = (text: string) => findings(text).filter((f) => f.kind === 'hairpin without goal').length;
  assert.equal(of('!p!c2!<(!d2 e2!<)!f2|!>(!g4 e4!>)!|d8|c8|'), 0);
  assert.equal(of('!p!c2!<(!d2 e2!<)!f2|g4 e4|d8|c8|'), 1);
});

test('breath between dissonance and resolution, and stress on a resolution', () => {
  const head = 'M:4/4\nL:1/8\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\n';
  const music = `${head}V:S\ne2 c2 f2 e2|c8|\nV:B\n[C,E,G,]8|[C,E,G,]8|`;
  const at = (k: number, kind: MarkingKind, value: string) => findings(music, (s) => [mark(s, k, kind, value)]).map((f) => f.kind);
  assert.ok(at(2, 'comma', 'comma').includes('breath before the resolution'));
  assert.ok(!at(3, 'comma', 'comma').includes('breath before the resolution'));
  assert.ok(at(3, 'accent', 'accent').includes('resolution louder than its dissonance'));
  assert.ok(!at(2, 'accent', 'accent').includes('resolution louder than its dissonance'));
});

test('findings are ordered, told once, and say what would solve them', () => {
  const all = findings('!ff!c2!<(!d2 e2!<)!f2|g8|"^rit."a8|g6z2|c2d2 e2f2|e8|');
  assert.equal(new Set(all.map((f) => f.id)).size, all.length);
  for (const f of all) assert.ok(f.what.length > 10 && f.remedy.length > 10);
  assert.deepEqual(
    all.map((f) => f.severity),
    [...all.map((f) => f.severity)].sort(
      (a, b) => ['contradiction', 'risk', 'question'].indexOf(a) - ['contradiction', 'risk', 'question'].indexOf(b)
    )
  );
  const solved = all.find((f) => f.kind === 'tempo not restored')!;
  assert.equal(solved.marking?.value, 'a tempo');
});

test('few false alarms: the demo pieces have contradictions only where they were left on purpose', () => {
  for (const name of ['corrente.abc', 'andantino.abc', 'etude.abc']) {
    const { score } = demo(name);
    const all = proof(studyOf(score), replay([]), []);
    assert.ok(all.filter((f) => f.severity === 'contradiction').length <= 2, `${name}: ${all.map((f) => f.what).join('; ')}`);
    assert.ok(all.length <= 12, `${name}: ${all.length}`);
  }
});

test('an accepted finding keeps its reason, and can be looked at again', () => {
  const reading = replay([{ type: 'accept-finding', finding: 'two peaks@8_1', because: 'Both are meant.' }]);
  assert.equal(reading.accepted['two peaks@8_1'], 'Both are meant.');
  assert.deepEqual(
    replay([
      { type: 'accept-finding', finding: 'x', because: 'y' },
      { type: 'accept-finding', finding: 'x', because: null }
    ]).accepted,
    {}
  );
});
