import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse, factsOf, openAnalysis } from '../../../src/core/analysis/analyse.ts';
import { details } from '../../../src/core/analysis/details.ts';
import { againstPrinted } from '../../../src/core/markings/describe.ts';
import { replay } from '../../../src/core/reading/log.ts';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { copiesAt, samePlaces } from '../../../src/core/reading/copies.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import type { MarkingKind } from '../../../src/core/markings/marking-kind.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { reasonsAt } from '../../../src/core/reading/reasons.ts';
import { inScope } from '../../../src/core/reading/scopes.ts';
import { add, cmp, frac } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { abc, demo } from '../helpers.ts';

const HEAD = 'M:4/4\nL:1/8\nV:1 name="Flute"\nK:C\n';
const THEME = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
const OTHER = "E2 z2 c'2 z2|b2 z2 F2 z2|";

function marking(score: Score, k: number, kind: MarkingKind, value: string, rest: Partial<Marking> = {}): Marking {
  const note = score.notes.filter((n) => n.pitch)[k];
  return { id: `m${k}`, kind, value, part: 0, staff: 1, start: note.start, note: note.id, because: [], ...rest };
}

test('a marking gets its reasons from the facts at its place, the weightiest first', () => {
  const { score } = demo('corrente.abc');
  const analysis = openAnalysis(score);
  const facts = factsOf(analysis);
  const more = details(analysis, facts);
  const neapolitan = facts.chords.find((c) => c.special === 'neapolitan')!;
  const reasons = reasonsAt(score, facts, more, { start: neapolitan.start });
  assert.ok(
    reasons.some((r) => /neapolitan/.test(r.text) && r.facts?.includes(neapolitan.id)),
    reasons.map((r) => r.text).join(' ')
  );
  const last = facts.cadences.at(-1)!;
  assert.match(reasonsAt(score, facts, more, { start: last.start })[0].text, /PAC in D minor/);
  for (const c of facts.chords) {
    const found = reasonsAt(score, facts, more, { start: c.start });
    assert.ok(found.length >= 1 && found.length <= 3);
  }
});

test('markings are copied to the same music elsewhere, note for note, and a step softer', () => {
  const score = abc(HEAD + THEME + OTHER + THEME);
  const facts = analyse(score);
  const [place] = samePlaces(score, facts, frac(0), frac(4));
  const notes = score.notes.filter((n) => n.pitch);
  const own = [
    marking(score, 0, 'dynamic', 'f'),
    marking(score, 1, 'accent', 'accent'),
    marking(score, 0, 'hairpin', 'crescendo', { id: 'h', note: undefined, end: frac(4) })
  ];
  const copies = copiesAt(score, own, place, -1, (m) => `copy-${m.id}`);
  assert.deepEqual(
    copies.map((m) => [m.id, m.value, m.start]),
    [
      ['copy-m0', 'mf', frac(20)],
      ['copy-m1', 'accent', notes[20].start],
      ['copy-h', 'crescendo', frac(20)]
    ]
  );
  assert.equal(cmp(copies[2].end!, add(frac(4), frac(20))), 0);
  assert.match(copies[0].because.at(-1)!.text, /As in bar 1: the same, but softer/);
  // Copied again nothing is doubled.
  assert.deepEqual(
    copiesAt(score, [...own, ...copies], place, -1, (m) => m.id),
    []
  );
});

test('a copy goes both ways, and only where the notes have partners', () => {
  const score = abc(HEAD + THEME + OTHER + THEME);
  const facts = analyse(score);
  const back = samePlaces(score, facts, frac(20), frac(24))[0];
  assert.ok(back.backward);
  assert.equal(
    copiesAt(score, [marking(score, 19, 'accent', 'accent')], back, 0, (m) => m.id)[0]?.note,
    score.notes.filter((n) => n.pitch)[0].id
  );
  assert.deepEqual(samePlaces(score, facts, frac(12), frac(16)), []);
});

test('a marking against the printed page is told, one that agrees is not', () => {
  const score = abc(`${HEAD}!p!c2 !<(!d2 e2!<)! .f2|g8|`);
  const at = (k: number, kind: MarkingKind, value: string, rest: Partial<Marking> = {}) =>
    againstPrinted(score, marking(score, k, kind, value, rest));
  assert.match(at(0, 'dynamic', 'f')!, /p is printed/);
  assert.equal(at(0, 'dynamic', 'p'), null);
  assert.equal(at(4, 'dynamic', 'f'), null);
  assert.match(at(0, 'hairpin', 'diminuendo', { end: frac(4) })!, /crescendo/);
  assert.equal(at(0, 'hairpin', 'crescendo', { end: frac(4) }), null);
  assert.match(at(3, 'articulation', 'tenuto')!, /staccato/);
  assert.equal(at(2, 'articulation', 'tenuto'), null);
});

test('proposals are taken by bars, phrase, section, kind or rule', () => {
  const { score } = demo('andantino.abc');
  const facts = analyse(score);
  const all = propose(studyOf(score, [], facts), 'classical');
  const bar = score.measures[6];
  const of = (scope: Parameters<typeof inScope>[2]) => inScope(all, facts, scope, bar.start, add(bar.start, bar.length));
  const inBar = all.filter((p) => cmp(p.marking.start, bar.start) >= 0 && cmp(p.marking.start, add(bar.start, bar.length)) < 0);
  assert.deepEqual(of('bars'), inBar);
  assert.ok(inBar.length > 0);
  for (const p of inBar) for (const scope of ['phrase', 'section', 'kind', 'rule'] as const) assert.ok(of(scope).includes(p));
  assert.ok(of('section').length > of('phrase').length || of('section').length > inBar.length);
  const kinds = new Set(inBar.map((p) => p.marking.kind));
  assert.ok(of('kind').every((p) => kinds.has(p.marking.kind)));
  const rules = new Set(inBar.map((p) => p.rule));
  assert.deepEqual(
    of('rule'),
    all.filter((p) => rules.has(p.rule))
  );
});

test('several acts together are undone in one, and a brief in own words is kept and let go', () => {
  const score = abc(HEAD + THEME);
  const group: Command = {
    type: 'together',
    what: 'copying',
    commands: [0, 1, 2].map((k) => ({ type: 'add-marking' as const, marking: { ...marking(score, k, 'accent', 'accent'), id: `a${k}` } }))
  };
  assert.equal(replay([group]).markings.length, 3);
  assert.equal(replay([group, { type: 'undo' }]).markings.length, 0);
  assert.equal(replay([group, { type: 'undo' }, { type: 'redo' }]).markings.length, 3);
  const written: Command = { type: 'write-brief', from: 0, to: 1, text: 'Sing it.' };
  assert.deepEqual(replay([written]).briefs, [{ from: 0, to: 1, text: 'Sing it.' }]);
  assert.deepEqual(replay([written, { ...written, text: 'Say it.' }]).briefs, [{ from: 0, to: 1, text: 'Say it.' }]);
  assert.deepEqual(replay([written, { ...written, text: null }]).briefs, []);
});
