import assert from 'node:assert/strict';
import { test } from 'node:test';
import { factsOf, openAnalysis } from '../../../src/core/analysis/analyse.ts';
import { bassLine, details } from '../../../src/core/analysis/details.ts';
import { findLike } from '../../../src/core/analysis/motives.ts';
import { skeleton } from '../../../src/core/analysis/note-roles.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { positionAt } from '../../../src/core/score/position.ts';
import { abc, demo } from '../helpers.ts';

/** Everything about a tune typed in C, 4/4, eighths, unless its own header says otherwise. */
function study(text: string) {
  const score = abc(/(^|\n)K:/.test(text) ? text : `M:4/4\nL:1/8\nK:C\n${text}`);
  return studyOf(score);
}
function studyOf(score: Score) {
  const analysis = openAnalysis(score);
  const facts = factsOf(analysis);
  const more = details(analysis, facts);
  return { score, analysis, facts, more, bar: (at: { n: number; d: number }) => positionAt(score, at).number };
}
const duet = (treble: string, bass: string, head = 'M:4/4\nL:1/8\nK:C') =>
  `${head.replace(/\nK:/, '\n%%score {S B}\nV:S\nV:B clef=bass\nK:')}\nV:S\n${treble}\nV:B\n${bass}`;
const roleOf = (s: ReturnType<typeof study>, k: number) => {
  const notes = s.score.notes.filter((n) => n.pitch && n.staff === 1);
  return s.more.roles.find((r) => r.note === notes[k].id)!;
};

// 1 and 2, keys and chords, are tested in harmony.test.ts.

test('roles: passing, neighbour, appoggiatura, suspension, anticipation, escape', () => {
  const over = (treble: string, bass: string) => study(duet(treble, bass));
  assert.equal(roleOf(over('c d e4 g2|', '[C,E,G,]8|'), 1).role, 'passing');
  assert.equal(roleOf(over('e f e2 g4|', '[C,E,G,]8|'), 1).role, 'neighbour');
  assert.equal(roleOf(over('e2 c2 f2 e2|', '[C,E,G,]8|'), 2).role, 'appoggiatura');
  assert.equal(roleOf(over('g4 c4-|c2 B2 G4|c8|', '[C,E,G,]8|[G,,D,G,]8|[C,E,G,]8|'), 1).role, 'suspension');
  assert.equal(roleOf(over('d4 B3 c|c8|', '[G,,D,G,]8|[C,E,G,]8|'), 2).role, 'anticipation');
  assert.equal(roleOf(over('e2 f c G4|', '[C,E,G,]8|'), 1).role, 'escape');
});

test('roles: notes of the chord are chord tones, in a decorated line too, and pillars stand on the beats', () => {
  const s = study(duet('(c/d/c/B/ c2) e2 g2|c8|', '[C,E,G,]8|[C,E,G,]8|'));
  assert.equal(roleOf(s, 0).rank, 'pillar');
  assert.equal(roleOf(s, 1).rank, 'connecting');
  assert.equal(roleOf(s, 5).role, 'chord tone');
  const plain = study(duet('c2 e2 g2 e2|c8|', '[C,E,G,]8|[C,E,G,]8|'));
  assert.ok(plain.more.roles.every((r) => r.role === 'chord tone'));
});

test('the skeleton leaves the ornament notes out, at two levels', () => {
  const s = study(duet('cdcB c2 e>f|g2 fe d4|', '[C,E,G,]8|[G,,B,,D,]8|'));
  const roles = new Map(s.more.roles.map((r) => [r.note, r]));
  const names = (level: 1 | 2) => skeleton(s.analysis.sounding.melody, roles, level).map((t) => pitchName(t.note.pitch!));
  assert.ok(names(1).length < s.analysis.sounding.melody.length);
  assert.ok(names(2).length <= names(1).length);
  assert.equal(names(2)[0], 'C5');
  assert.ok(!names(1).includes('B4'));
});

test('harmonic rhythm: counted by bar; changes against the meter and quickening are told, steady chords are not', () => {
  const against = study(duet('[CEG]4 [CEG]2 [B,DG]2|[B,DG]4 [CEG]4|[CEG]8|', 'C,6 G,,2|G,,4 C,4|C,8|'));
  assert.ok(against.more.harmonicRhythmFacts.some((f) => f.kind === 'against the meter' && f.measure === 0));
  const quick = study(duet('[EGc]8|[FAc]8|[EGc]4 [FAc]4|[DGB]4 [EGc]4|', 'C,8|F,8|C,4 F,4|G,,4 C,4|'));
  assert.deepEqual(
    quick.more.harmonicRhythm.map((b) => b.changes),
    [1, 1, 2, 2]
  );
  assert.ok(quick.more.harmonicRhythmFacts.some((f) => f.kind === 'quickens' && f.measure === 2));
  const steady = study(duet('[EGc]8|[FAc]8|[DGB]8|[EGc]8|', 'C,8|F,8|G,,8|C,8|'));
  assert.deepEqual(steady.more.harmonicRhythmFacts, []);
});

// Caplin 1998: a period answers a weaker close with a stronger one after the same beginning; a sentence repeats its idea and goes on.
test('periods and sentences are named, other phrases are not', () => {
  const period = studyOf(demo('andantino.abc').score);
  assert.ok(period.more.groups.some((g) => g.kind === 'period' || g.kind === 'phrase pair'));
  const sentence = study(duet('c2 e2 g4|d2 f2 a4|g2f2 e2d2|c8|]', '[C,E,G,]8|[D,F,A,]8|[G,,D,G,]8|[C,E,G,]8|]'));
  assert.ok(
    sentence.more.groups.some((g) => g.kind === 'sentence'),
    JSON.stringify(sentence.more.groups)
  );
  const neither = study(duet('c8|G8|A4B4|c8|]', '[C,E,G,]8|[G,,D,G,]8|[F,A,C]8|[C,E,G,]8|]'));
  assert.ok(!neither.more.groups.some((g) => g.kind === 'sentence' || g.kind === 'period'));
});

test('phrase lengths: irregular ones are pointed out', () => {
  const s = study('c2d2 e2f2|g2f2 e2d2|c2e2 d2B2|c6 z2|c2d2 e2f2|g2f2 e2d2|c2d2 e2f2|g2e2 d2B2|c6 z2|]');
  const bars = s.more.lengths.map((l) => [l.bars, l.irregular]);
  assert.deepEqual(bars, [
    [4, false],
    [5, true]
  ]);
});

test('sections: same music same letter, a variant a prime, other music another letter', () => {
  const a = 'c2e2 g2e2|f2a2 g4|e2c2 d2B2|c6 z2';
  const b = "g3a b2g2|a3b c'2a2|d'2b2 a2^f2|g6 z2";
  const varied = 'c2e2 g2e2|fgaf g4|e2c2 dcBd|c6 z2';
  const labels = (text: string) => study(text).facts.sections.map((x) => x.label);
  assert.deepEqual(labels(`${a}|${b}|${a}|`), ['A', 'B', 'A']);
  assert.deepEqual(labels(`|:${a}:||:${b}|${varied}:|`), ['A', 'B', "A'"]);
  assert.equal(study(`|:${a}:||:${b}|${a}:|`).facts.form, 'rounded binary');
  assert.equal(study(`${a}|${b}|${a}|`).facts.form, 'ternary');
  assert.deepEqual(labels(`|:${a}:||:${b}:|`), ['A', 'B']);
});

test('sections say in which key they begin and how they are set up', () => {
  const { facts } = studyOf(demo('corrente.abc').score);
  assert.equal(facts.sections[0].setUp, 'the beginning');
  assert.equal(facts.sections[0].opens, 'D minor');
  assert.match(facts.sections[1].setUp, / in F major before it/);
});

test('parallel places: the same, transposed, decorated otherwise, shifted; unlike music is not claimed', () => {
  const theme = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
  const other = "E2 z2 c'2 z2|b2 z2 F2 z2|";
  const found = (text: string) => study(text).facts.parallels;
  const same = found(`${theme}${other}${theme}`);
  assert.ok(
    same.some((p) => p.transposition === 'P1' && p.differences.length === 0),
    JSON.stringify(same.map((p) => p.evidence))
  );
  const up = found(`${theme}${other}g2ba g2d2|e2gf e4|d2cB A2Bc|`);
  assert.ok(up.some((p) => p.transposition === 'P5'));
  const decorated = found(`${theme}${other}cdef edcB|ABcd cBA2|GAGF DCDE|`);
  assert.ok(decorated.some((p) => p.transposition === 'P1'));
  const shifted = found(`${theme}${other}z4 c2ed|c2G2 A2cB|A4 G2FE|D2EF z4|`);
  assert.ok(shifted.some((p) => p.shift.n === 2 && p.shift.d === 1));
  assert.deepEqual(found('c2d2 e2f2|G8|A2^c2 e2g2|d4 F4|E2B2 d2^g2|a4 z4|'), []);
});

test('parallel places: every kind of difference is named at its note', () => {
  const one = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
  const two = '(c2e)d .c2G2|A2c_B A4|G2F2 !trill!D2EF|';
  const differences = study(`${one}E2 z2 c'2 z2|b2 z2 F2 z2|${two}`).facts.parallels[0].differences;
  const kinds = new Set(differences.map((d) => d.kind));
  for (const kind of ['slur', 'articulation', 'alteration', 'rhythm', 'left out', 'ornament'])
    assert.ok(kinds.has(kind), `${kind} in ${[...kinds]}`);
});

test('sequences: units, step and cycle; a decorated one; scales and broken chords are none', () => {
  const { sequences } = study('e2g2 f2e2|d2f2 e2d2|c2e2 d2c2|B8|').facts;
  assert.deepEqual(
    sequences.map((s) => [s.units, s.step, s.unit.n / s.unit.d]),
    [[3, '-M2', 4]]
  );
  assert.equal(sequences[0].anchors.length, 3);
  const fifths = studyOf(demo('corrente.abc').score).facts.sequences;
  assert.equal(fifths[0].kind, 'descending fifths');
  const decorated = study('efga gfe2|defg fed2|cdef edc2|B8|').facts.sequences;
  assert.equal(decorated[0].units, 3);
  assert.deepEqual(study("cdef gabc'|bagf edcB|cdef gabc'|c8|").facts.sequences, []);
  assert.deepEqual(study("cegc' gece|cegc' gece|cegc' gece|c8|").facts.sequences, []);
});

test('motives are found and their transformations named; "find this" gives all places', () => {
  const text = 'c3d e2c2|d3e f2d2|G8|g3f e2g2|c6d2|e4c4|';
  const s = study(text);
  const ids = s.score.notes.filter((n) => n.pitch).map((n) => n.id);
  const places = findLike(s.analysis.sounding, ids.slice(0, 4));
  const what = places.map((p) => p.transformations.join('+'));
  assert.deepEqual(what, ['same', 'transposed', 'inverted', 'augmented']);
  assert.deepEqual(findLike(s.analysis.sounding, ids.slice(0, 2)), []);
  const moved = study('c3d e2c2|G8|z2 c3d e2|c2 z6|');
  const again = findLike(
    moved.analysis.sounding,
    moved.score.notes
      .filter((n) => n.pitch)
      .slice(0, 4)
      .map((n) => n.id)
  );
  assert.ok(again.some((p) => p.transformations.includes('moved to another beat')));
  assert.ok(study('c3d e2c2|d3e f2d2|G4 c3d|e2c2 z4|e3f g2e2|c8|').more.motives.length > 0);
  assert.deepEqual(study("cdef gabc'|G8|").more.motives, []);
});

test('a leaping line splits into voices, a stepping one does not', () => {
  const leaping = study("c'Ec'E bEbE|aEaE gEgE|c'8|");
  assert.equal(leaping.more.streams[0].streams.length, 2);
  assert.equal(leaping.more.streams[0].streams[0].name, 'upper');
  assert.deepEqual(study('cdef gfed|cBAB c4|').more.streams, []);
});

test('hidden scale lines and chromatic lines', () => {
  const hidden = study("c'G bG|aG gG|fG eG|d4|".replace(/ /g, ' ').replace(/^/, ''));
  assert.ok(hidden.more.lines.some((l) => l.kind === 'scale' && l.direction === 'down'));
  const chromatic = study('c2^c2 d2^d2|e8|');
  assert.ok(chromatic.more.lines.some((l) => l.kind === 'chromatic' && l.direction === 'up'));
  assert.deepEqual(study('c2e2 G2c2|e8|').more.lines, []);
  const bass = study(duet('c8|c8|c8|c8|', 'C4 B,4|A,4 G,4|F,4 E,4|D,8|'));
  assert.ok(bassLine(bass.analysis.comparison).length >= 6);
  assert.ok(bass.more.lines.some((l) => l.where === 'bass'));
});

test('meter against rhythm: syncopation, hemiola, grouping, written-out slowing and quickening', () => {
  const kinds = (text: string) => study(text).more.rhythms.map((r) => r.kind);
  assert.ok(kinds('c2d4e2|c8|').includes('syncopation'));
  assert.ok(kinds('M:3/4\nL:1/4\nK:C\nc d e|c2 d-|d e2|c3|').includes('hemiola'));
  assert.ok(!kinds('M:3/4\nL:1/4\nK:C\nc2 d|c2 d|c3|').includes('hemiola'));
  assert.ok(kinds('M:5/8\nL:1/8\nK:C\nc2 d3|').includes('grouping'));
  assert.ok(kinds('cdef (3gab(3abg|f2e2 d4|c8|').some((k) => k === 'written-out slowing' || k === 'written-out quickening'));
  assert.ok(kinds('c2c2 cccc|c/c/c/c/ c/c/c/c/ c4|').includes('written-out quickening'));
  assert.deepEqual(kinds('c2d2 e2f2|g2f2 e2d2|'), []);
});

test('a theme that returns on another place of the bar is a trap', () => {
  const theme = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
  const s = study(`${theme}E2 z2 c'2 z2|b2 z2 F2 z2|z4 c2ed|c2G2 A2cB|A4 G2FE|D2EF z4|`);
  assert.ok(s.more.rhythms.some((r) => r.kind === 'displaced theme'));
});

test('gestures: upbeats, repetitions, three times, echo, call and answer, extremes, leaps', () => {
  const kinds = (text: string) => study(text).more.gestures.map((g) => g.kind);
  assert.ok(kinds('M:3/4\nL:1/4\nK:C\nG|c2 e|g2 z|').includes('rising upbeat'));
  assert.ok(kinds('M:3/4\nL:1/4\nK:C\ng|c2 e|g2 z|').includes('falling upbeat'));
  assert.ok(kinds('c2ed c2G2|c2ed c2G2|A8|').includes('repeated at once'));
  assert.ok(kinds('c2ed c2G2|c2ed c2G2|c2ed c2G2|A8|').includes('three times'));
  assert.ok(kinds('!f!c2ed c2G2|!p!c2ed c2G2|A8|').includes('echo'));
  assert.ok(kinds("c'2b2 z4|C2D2 z4|c'2a2 z4|C2E2 z4|").includes('call and answer'));
  const calm = kinds('c2d2 e2f2|g2a2 g2e2|');
  assert.deepEqual(calm, ['lowest note', 'highest note']);
  assert.ok(kinds("C2c'2 c'4|").includes('leap'));
});

test('tutti and solo are told in scores of several parts', () => {
  const score = abc('M:4/4\nL:1/4\nV:1\nV:2\nV:3\nK:C\nV:1\ncdef|gggg|\nV:2\nz4|eeee|\nV:3\nz4|cccc|');
  assert.deepEqual(
    studyOf(score)
      .more.gestures.filter((g) => g.kind === 'tutti' || g.kind === 'solo')
      .map((g) => [g.kind, g.measure]),
    [
      ['solo', 0],
      ['tutti', 1]
    ]
  );
});

test('corrections: role, voice, section, cadence, same music, dismiss bind; taken back they are gone', () => {
  const { score } = demo('corrente.abc');
  const analysis = openAnalysis(score);
  const plain = factsOf(analysis);
  const at = score.measures[5].start;
  const dismissed = factsOf(analysis, [{ id: 'd', kind: 'dismiss', start: at, fact: plain.sequences[0].id, what: 'sequence' }]);
  assert.equal(dismissed.sequences.length, plain.sequences.length - 1);
  const sections = factsOf(analysis, [{ id: 's', kind: 'section', start: score.measures[21].start, label: "A'" }]).sections;
  assert.deepEqual(
    sections.map((x) => x.label),
    ['A', 'B', "A'"]
  );
  const merged = factsOf(analysis, [{ id: 's', kind: 'section', start: score.measures[13].start, label: '' }]).sections;
  assert.equal(merged.length, 1);
  const cadence = factsOf(analysis, [{ id: 'c', kind: 'cadence', start: plain.cadences[0].start, type: 'EC' }]).cadences[0];
  assert.deepEqual([cadence.type, cadence.pinned], ['EC', true]);
  const same = factsOf(analysis, [
    { id: 'm', kind: 'same-music', start: score.measures[1].start, other: score.measures[18].start, length: { n: 6, d: 1 } }
  ]);
  assert.ok(same.parallels.some((p) => p.id === 'm' && p.pinned));
  const note = score.notes.filter((n) => n.pitch)[4];
  const more = details(analysis, plain, [{ id: 'r', kind: 'role', note: note.id, start: note.start, role: 'passing' }]);
  assert.deepEqual(
    more.roles.filter((r) => r.pinned).map((r) => [r.note, r.role]),
    [[note.id, 'passing']]
  );
  assert.deepEqual(factsOf(analysis), plain);
});

test('a correction is worked out near its place and gives what a search of the whole would settle on elsewhere', () => {
  const { score } = demo('andantino.abc');
  const analysis = openAnalysis(score);
  const plain = factsOf(analysis);
  const pin = { id: 'k', kind: 'chord' as const, start: score.measures[19].start, end: score.measures[20].start, roman: 'ii' };
  const after = factsOf(analysis, [pin]);
  const early = (f: typeof plain) => f.chords.filter((c) => c.start.n / c.start.d < 24).map((c) => c.roman);
  assert.deepEqual(early(after), early(plain));
  assert.ok(after.chords.some((c) => c.pinned && c.roman === 'ii'));
});
