import assert from 'node:assert/strict';
import { test } from 'node:test';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { metricLevel } from '../../../src/core/score/meter.ts';
import type { Note, Score } from '../../../src/core/score/model.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { DRILL_KINDS, type DrillKind } from '../../../src/core/style/drills.ts';
import { tempoMarks } from '../../../src/core/score/tempo.ts';
import { abc } from '../helpers.ts';
import { drillsIn, made, unfilled } from './made.ts';

const VIOLIN = 'M:4/4\nL:1/16\nQ:1/4=120\nV:1 nm="Violin"\nK:C\n';
const RUN = `${VIOLIN}cdefgfedcdefgfed|efgagfedcBcdefga|c16|`;
/** Slow, even, stepwise, in one position, without sign: no reason for anything but scales. */
const PLAIN = 'M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Flute"\nK:C\nGABA|GABA|';

const names = (notes: readonly Note[]): string => notes.map((n) => pitchName(n.pitch!)).join(' ');
const onsets = (score: Score): string[] =>
  score.notes.filter((n) => !n.rest && !n.grace).map((n) => `${n.measure} ${n.onset.n}/${n.onset.d}`);
const get = (text: string, kind: DrillKind) => made(text, kind) ?? assert.fail(`${kind} is not offered`);

test('a plain slow tune gives reason for none of the kinds', () => {
  const score = abc(PLAIN);
  for (const kind of DRILL_KINDS) {
    // A tune of eight notes has no keys to practise either; slow long notes are there in a wind part only when they are long.
    assert.deepEqual(
      drillsIn(score, kind).map((d) => d.because),
      [],
      kind
    );
  }
});

test('strong beats, all beats: what is kept stays at its place and is held; the bars add up', () => {
  for (const [kind, least] of [
    ['strong-beats', 2],
    ['some-beats', 1]
  ] as const) {
    const { score, sounding, drill } = get(RUN, kind);
    const written = abc(RUN);
    const expected = written.notes.filter(
      (n) => n.measure >= drill.from && n.measure <= drill.to && metricLevel(written.measures[n.measure], n.onset) >= least
    );
    assert.deepEqual(names(sounding), names(expected));
    assert.deepEqual(unfilled(score), []);
    assert.equal(score.notes.filter((n) => n.rest).length, 0, 'each is held to the next');
  }
});

test('anchors sound in their own length and time, the others are silent', () => {
  const { sounding, score } = get(RUN, 'anchors');
  assert.ok(sounding.length > 0 && score.notes.some((n) => n.rest));
  const own = new Set(onsets(abc(RUN)));
  for (const at of onsets(score)) assert.ok(own.has(at), at);
});

test('frames: the barer one has fewer notes, all of them among the first’s', () => {
  const [one, two] = [get(RUN, 'skeleton-1').sounding, get(RUN, 'skeleton-2').sounding];
  assert.ok(two.length < one.length && one.length < 33);
});

test('ties undone: every note has its onset, and those of the tied notes come to them', () => {
  const text = 'M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\nc d e f-|f g a b|';
  const { score, sounding } = get(text, 'ties-undone');
  assert.deepEqual(onsets(score), onsets(abc(text)));
  assert.ok(sounding.every((n) => !n.tie?.start && !n.tie?.stop));
});

test('rests filled: the same notes, longer, without a rest between; the onsets stay', () => {
  const text = 'M:4/4\nL:1/8\nV:1 nm="Flute"\nK:C\n.c z .d z .e z .f z|';
  const { score, sounding } = get(text, 'rests-filled');
  assert.deepEqual(onsets(score), onsets(abc(text)));
  assert.ok(sounding.every((n) => toNumber(n.duration) === 1 && !n.marks?.length));
  assert.equal(score.slurs.length, 1);
});

test('even values: the same notes in eighths', () => {
  const text = 'M:4/4\nL:1/16\nV:1 nm="Flute"\nK:C\nc6d2 e4 f3g|a8 b4 c\'4|';
  const { sounding } = get(text, 'even-values');
  assert.ok(sounding.every((n) => toNumber(n.duration) === 0.5));
  assert.equal(names(sounding), names(abc(text).notes.filter((n) => !n.rest)));
});

test('slurs grow from none to three to six over the same notes', () => {
  const { score, sounding } = get(RUN, 'slurs-grow');
  const third = sounding.length / 3;
  const notes = names(sounding).split(' ');
  assert.deepEqual(notes.slice(0, third), notes.slice(third, 2 * third));
  const sizes = score.slurs.map((s) => {
    const [a, b] = [s.from, s.to].map((id) => sounding.findIndex((n) => n.id === id));
    return b - a + 1;
  });
  assert.deepEqual([...new Set(sizes)], [3, 6]);
});

test('long and short: each pair keeps its time, three to one; the other way round it is mirrored', () => {
  for (const [kind, first] of [
    ['long-short', 0.375],
    ['short-long', 0.125]
  ] as const) {
    const { sounding } = get(RUN, kind);
    assert.equal(toNumber(sounding[0].duration), first);
    assert.equal(toNumber(sounding[0].duration) + toNumber(sounding[1].duration), 0.5);
  }
});

test('groups stop after four; accents move one on each time', () => {
  const groups = get(RUN, 'groups');
  for (const m of groups.score.measures) assert.equal(groups.sounding.filter((n) => n.measure === m.index).length, 4);
  const { sounding } = get(RUN, 'accents-moved');
  const places = sounding.map((n, k) => (n.marks?.some((m) => m.name === 'accent') ? k : -1)).filter((k) => k >= 0);
  const each = sounding.length / 4;
  assert.deepEqual([...new Set(places.map((k) => `${Math.floor(k / each)} ${(k % each) % 4}`))], ['0 0', '1 1', '2 2', '3 3']);
});

test('chords four times each; double stops in twice their time', () => {
  const chords = get('M:4/4\nL:1/2\nV:1 nm="Piano"\nK:C\n[CEG][DFA]|[CEG]2|', 'chords-repeated');
  assert.equal(chords.sounding.length, 2 * 4 * 3);
  const double = get('M:2/4\nL:1/4\nV:1 nm="Violin"\nK:C\n[DB][DA]|', 'double-stops-slow');
  assert.ok(double.sounding.every((n) => toNumber(n.duration) === 2));
});

test('hands alone: all notes of the right hand, then all of the left', () => {
  const { sounding } = get(
    'M:4/4\nL:1/4\n%%score {1 2}\nV:1 nm="Piano"\nV:2 clef=bass\nK:C\n[V:1]cdef|g4|\n[V:2]C,E,G,E,|C,4|\n',
    'hands-alone'
  );
  assert.equal(names(sounding), 'C5 D5 E5 F5 G5 C3 E3 G3 E3 C3');
});

test('the bow alone keeps rhythm and slurs on open strings; the left hand alone keeps the notes without bow', () => {
  const text = 'M:4/4\nL:1/4\nV:1 nm="Violin"\nK:C\n(G, B)(d f)|';
  const { score, sounding } = get(text, 'bow-alone');
  assert.ok(sounding.every((n) => ['G3', 'D4', 'A4', 'E5'].includes(pitchName(n.pitch!))));
  assert.deepEqual([onsets(score), score.slurs.length], [onsets(abc(text)), 2]);
  // A tied note stays on its string; a double bass reads its open strings an octave higher than they sound.
  const tied = get('M:4/4\nL:1/4\nV:1 nm="Violin"\nK:C\nG, B d f-|f d B G,|', 'bow-alone');
  assert.ok(tied.sounding.every((n) => ['G3', 'D4', 'A4', 'E5'].includes(pitchName(n.pitch!))));
  const bass = get('M:4/4\nL:1/4\nV:1 nm="Double Bass" clef=bass octave=0 transpose=-12\nK:C\nA,, D, F, A,|', 'bow-alone');
  assert.ok(
    bass.sounding.every((n) => ['E2', 'A2', 'D3', 'G3'].includes(pitchName(n.pitch!))),
    names(bass.sounding)
  );
  const high = get('M:4/4\nL:1/4\nV:1 nm="Violin"\nK:C\n(e b)(e\' b)|', 'left-hand-alone');
  assert.equal(high.score.slurs.length, 0);
});

test('without ornaments: the tune stays, small notes and signs go; exactly: each is written out', () => {
  const text = 'M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\n{d}c Td e f|';
  const { score, sounding } = get(text, 'ornaments-out');
  assert.equal(names(sounding), 'C5 D5 E5 F5');
  assert.ok(!score.notes.some((n) => n.grace || n.marks?.length));
  const exact = get(text, 'ornaments-exact');
  assert.ok(exact.sounding.length > 4);
  assert.equal(tempoMarks(exact.score)[0].low, exact.drill.tempo.start);
});

test('an interval alone, then in what is around it, then as written', () => {
  const text = 'M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\ncdc d\'|c\'bag|';
  const { sounding } = get(text, 'interval');
  assert.deepEqual(names(sounding).split(' ').slice(0, 4), ['C5', 'D6', 'C5', 'D6']);
  assert.ok(names(sounding).endsWith(names(abc(text).notes)));
});

test('added from the front and from the end: each ends on the whole', () => {
  const text = `${VIOLIN}c^defg^fed|cdefgfedcdefgfed|g^fga^g^fed^cB^cdefga|c16|`;
  for (const kind of ['from-the-front', 'from-the-end'] as const) {
    const { sounding, drill } = get(text, kind);
    const written = abc(text).notes.filter((n) => !n.rest && n.measure >= drill.from && n.measure <= drill.to);
    assert.ok(names(sounding).endsWith(names(written)), kind);
    assert.ok(sounding.length > 2 * written.length, kind);
    const begins = kind === 'from-the-front' ? written[0] : written.filter((n) => n.measure === drill.to)[0];
    assert.equal(names(sounding.slice(0, 1)), names([begins]), kind);
  }
});

test('a sequence unit by unit with a bar of silence between, then joined', () => {
  const { score, drill } = get(
    'M:3/4\nL:1/8\nV:1 nm="Violin"\nK:C\nc2 eg ec|B2 dg dB|A2 cf cA|G2 Be BG|F2 Ad AF|E2 Gc GE|C6|',
    'sequence-units'
  );
  const silent = score.measures.filter((m) => score.notes.filter((n) => n.measure === m.index).every((n) => n.rest)).length;
  assert.ok(silent >= 2 && /units/.test(drill.because));
});

test('rhythm alone: one pitch, the same onsets', () => {
  const text = 'M:4/4\nL:1/16\nQ:1/4=90\nV:1 nm="Flute"\nK:C\nc3d e2f2 g6a2|(3b4a4g4 f3e d2c2|c16|';
  const { score, sounding, drill } = get(text, 'rhythm-alone');
  assert.equal(new Set(sounding.map((n) => pitchName(n.pitch!))).size, 1);
  const own = abc(text);
  assert.deepEqual(onsets(score).length, own.notes.filter((n) => !n.rest && n.measure >= drill.from && n.measure <= drill.to).length);
});

test('altered notes only, at their places', () => {
  const { sounding } = get('M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\nc^cd^d|e^fg^g|', 'altered-notes');
  assert.equal(names(sounding), 'C#5 D#5 F#5 G#5');
});

test('long notes of the peak grow and fade; scales go over the range of the piece', () => {
  const long = get('M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Flute"\nK:C\nc4|g4|e4|', 'long-notes');
  assert.deepEqual(
    long.score.hairpins.slice(0, 2).map((h) => h.kind),
    ['crescendo', 'diminuendo']
  );
  const piece = 'M:4/4\nL:1/4\nV:1 nm="Flute"\nK:D\nDFAd|efge|dAFA|d4|DFAd|efge|dAFA|d4|';
  const scale = get(piece, 'scales-of-the-piece');
  assert.ok(names(scale.sounding).startsWith('D4 E4 F#4 G4 A4 B4 C#5 D5 C#5'));
  assert.match(scale.drill.because, /D major/);
});

test('a movement of the pipes alone, between its notes, in its bar', () => {
  const { score } = get('M:4/4\nL:1/4\nV:1 nm="Highland bagpipe"\nK:D\nc {GdGe}A B A|', 'movement-alone');
  const graces = score.notes.filter((n) => n.grace).length;
  assert.ok(graces >= 4 * 3 && graces % 4 === 0);
});
