import assert from 'node:assert/strict';
import { test } from 'node:test';
import { asksOf } from '../../../src/core/technique/asks.ts';
import { saveBefore, spentBeforePeak } from '../../../src/core/technique/brass-slurs.ts';
import { joinsOf, tunesOf } from '../../../src/core/technique/pipe-set.ts';
import { windFingerings } from '../../../src/core/technique/wind-fingers.ts';
import { WIND_CHARTS } from '../../../src/core/style/wind-charts.ts';
import { parsePitch } from '../../../src/core/score/pitch.ts';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { howItLies } from '../../../src/core/technique/how-it-lies.ts';
import { abc } from '../helpers.ts';
import { newPlayer } from '../../../src/core/players/player.ts';
import { marksOf } from '../../../src/core/technique/told/marks.ts';
import { found, lies, told } from './asked.ts';

test('brass: slurs over partials, slides that would be heard, soft entrances, high accents: handbook 17.3', () => {
  const trumpet = (notes: string): string | undefined => told(lies(`M:4/4\nL:1/4\nV:1 nm="Trumpet in C"\nK:C\n${notes}`), 0, 'Lips');
  assert.match(trumpet('(_B,_b)z2|')!, /passes 5 partials/);
  assert.equal(trumpet('(_B,F)z2|'), undefined, 'neighbours');
  const trombone = lies('M:4/4\nL:1/4\nV:1 nm="Trombone" clef=bass\nK:C\n(D,E,)z2|');
  assert.ok(trombone.brassRemarks.every((r) => r.kind === 'smears' || r.kind === 'over-partials'));
  const soft = lies('M:4/4\nL:1/1\nV:1 nm="Trumpet in C"\nK:C\n!f!c|z|z|z|!p!c|', { tempo: 60 });
  assert.match(told(soft, 4, 'Lips')!, /soft on beat 1 after 12 s of rest/);
  const high = lies('M:4/4\nL:1/4\nV:1 nm="Trumpet in C"\nK:C\n!>!_b4|');
  assert.match(told(high, 0, 'Lips')!, /the accent on beat 1 is high/);
});

test('brass: what is loud before the last peak can be saved; a peak that comes too late is asked about: handbook 17.2', () => {
  assert.deepEqual(saveBefore([0.2, 0.7, 0.65, 0.3, 1, 0.4]), { from: 1, to: 3, peak: 4 });
  assert.equal(saveBefore([0.2, 0.3, 1]), null);
  assert.equal(spentBeforePeak([0.2, 0.5, 1], 2), null);
  const spent = spentBeforePeak([0.4, 1, 0.5, 0.7], 3)!;
  assert.match(
    spent.what([{ number: '1' }, { number: '2' }, { number: '3' }, { number: '4' }]),
    /most in bar 2, before the loudest place in bar 4/
  );
});

test('mallets: two hands on one bar need places of their own; the body stands for the next phrase: handbook 18.2, 18.3', () => {
  const roll = lies('M:4/4\nL:1/16\nV:1 nm="Marimba"\nK:C\ncccccccccccccccc|');
  assert.match(told(roll, 0, 'Stand')!, /both hands on C5: one near the middle, one near the end, never over the cord/);
  assert.equal(told(lies('M:4/4\nL:1/4\nV:1 nm="Marimba"\nK:C\nc c c c|'), 0, 'Stand'), undefined);
  const far = lies("M:4/4\nL:1/4\nV:1 nm=\"Marimba\"\nK:C\nC D E F|G F E D|C D E F|G A G2|z4|c' b c' d'|e' d' c' b|c' d' e' d'|c'4|", {
    tempo: 100
  });
  if (far.phraseEnds.size > 1) assert.match(told(far, 5, 'Stand') ?? told(far, 4, 'Stand') ?? '', /higher: stand for it before it comes/);
});

test('pipes: a set has its tunes and joins; a grip where a taorluath stands elsewhere is asked about: handbook 19.2, 19.3', () => {
  const set = lies('M:2/4\nL:1/8\nV:1 nm="Highland bagpipe"\nK:D\nA2B2|c2d2|e4|]\n[M:6/8]a2ge2d|c3A3|]\n');
  assert.deepEqual(
    tunesOf(set.line.score).map((t) => [t.from, t.to, t.meter]),
    [
      [0, 2, '2/4'],
      [3, 4, '6/8']
    ]
  );
  const [join] = joinsOf(set.line.score, 0);
  assert.deepEqual([join.measure, join.sameMeter], [3, false]);
  assert.match(told(set, 3, 'Set')!, /from E5 straight to A5, the beat is another/);
  assert.ok(asksOf(set).lines.some((l) => l.label === 'Tunes in the set' && l.value.startsWith('2, in 2/4 and 6/8')));
  const grips = lies('M:4/4\nL:1/4\nV:1 nm="Highland bagpipe"\nK:D\nB {GdGe}A B A|B {GdGe}A B A|B {GdG}A B A|B {GdGe}A B A|');
  assert.ok(found(grips).some((w) => /A grip stands here, where bar 1 has a taorluath: was its E meant\?/.test(w)));
});

test('a breath that divides what belongs together is named: handbook 15.2', () => {
  const flute = lies('M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\n(cdef)|g4|');
  const second = flute.line.attacks[1].notes[0].id;
  const pinned = lies('M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\n(cdef)|g4|', { pins: new Map([[second, { breath: true }]]) });
  assert.ok(found(pinned).includes('The breath before this note is inside a slur.'));
  assert.ok(!found(flute).some((w) => /The breath before/.test(w)));
});

test('the bassoon has a chart of its own, from memory: handbook 16.1', () => {
  assert.equal(windFingerings(WIND_CHARTS.bassoon, parsePitch('C3')!)[0].keys, 'R123');
  assert.ok(windFingerings(WIND_CHARTS.bassoon, parsePitch('F#2')!).some((w) => w.held.get('RT') === 'tF#'));
});

test('a breath is written after all that is tied to its note, and is the same pin when it is read again', () => {
  const text = 'M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\ncdef-|f3 g|cdef|g3 a|cdef|g4|';
  const t = lies(text, { tempo: 50, player: { ...newPlayer('Nora'), key: 'nora', breath: 5 } });
  const tied = t.line.score.notes.filter((n) => n.tie?.stop);
  const breaths = marksOf(t).filter((m) => m.kind === 'breath');
  assert.ok(breaths.some((m) => m.note === tied[0].id));
  assert.ok(!breaths.some((m) => t.line.score.notes.find((n) => n.id === m.note)?.tie?.start));
});

test('over the page stand the seconds of each breath and the names of movements, single graces left out', () => {
  const words = (text: string): string[] => howItLies(studyOf(abc(text)), EMPTY_READING).words.map((w) => w.text);
  assert.ok(words('M:4/4\nL:1/4\nQ:1/4=40\nV:1 nm="Flute"\nK:C\ncdef|g4|cdef|g4|cdef|g4|').some((w) => /^\d+ s(, quick)?$/.test(w)));
  assert.deepEqual(words('M:4/4\nL:1/4\nV:1 nm="Highland bagpipe"\nK:D\n{gBd}B {dc}d {g}c {GdGe}A|'), ['dbl', 'throw?', 'taorluath']);
});
