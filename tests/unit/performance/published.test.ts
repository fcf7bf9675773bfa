import assert from 'node:assert/strict';
import { test } from 'node:test';
import { timeAlong } from '../../../src/core/performance/tempo-curve.ts';
import { velocityOf } from '../../../src/core/performance/loudness.ts';
import { isNoticed } from '../../../src/core/performance/explain.ts';
import { realise } from '../../../src/core/performance/ornaments.ts';
import { entriesOf, ratiosOf } from '../../../src/core/performance/rhythm.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { frac, toNumber } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { clarityCeiling, soundAndSilence } from '../../../src/core/style/clarity.ts';
import { levelDb } from '../../../src/core/reading/dynamic-plan.ts';
import { dynamicStep, VELOCITY } from '../../../src/core/style/dynamics.ts';
import { swingRatio } from '../../../src/core/style/swing.ts';
import { onScaleBelow } from '../../../src/core/style/tempo-words.ts';
import { abc, attributes, note, xml } from '../helpers.ts';
import { playableOf, literal, onsets, readingOf, spelledOut } from './play.ts';

const near = (a: number, b: number, by = 1e-6): void => assert.ok(Math.abs(a - b) <= by, `${a} is not ${b}`);

/** Handbook 7.2, written down once more from the source. */
const tempoAlong = (x: number, w: number, q: number): number => (1 + (w ** q - 1) * x) ** (1 / q);

test('the final ritardando: Friberg & Sundberg 1999, values of handbook 7.2', () => {
  near(tempoAlong(0.5, 0.5, 2), 0.790569);
  near(timeAlong(1, 0.5, 2), 4 / 3);
  near(tempoAlong(0.5, 0.5, 3), 0.825482);
  near(timeAlong(1, 0.5, 3), 1.285714);
  // Its time is the integral of one over its tempo.
  for (const [w, q] of [
    [0.5, 2],
    [0.7, 3],
    [1.3, 2]
  ]) {
    let sum = 0;
    for (let k = 0; k < 10_000; k++) sum += 1 / tempoAlong((k + 0.5) / 10_000, w, q) / 10_000;
    near(timeAlong(1, w, q), sum, 1e-5);
  }
});

test('swing by tempo: Friberg & Sundström 2002, values of handbook 1.8', () => {
  near(swingRatio(200), 2);
  near(swingRatio(240), 1.5);
  near(swingRatio(150), 3);
  assert.equal(swingRatio(60), 3.5);
});

test('swung eighths sound where the ratio puts them, triplets stay', () => {
  const playable = playableOf(abc('M:4/4\nL:1/8\nQ:1/4=200\nK:C\nCDEF (3GAG F2|'));
  const straight = onsets(literal(playable));
  const swung = onsets(perform(playable, readingOf('swing', { swing: 'by-tempo' }, { amounts: { leaning: 0 } })));
  const ids = playable.tones.map((t) => `${t.tone.note.id}|0`);
  // At 200 a beat lasts 300 ms: 200 and 100.
  near(swung.get(ids[1])! - swung.get(ids[0])!, 0.2);
  near(swung.get(ids[2])! - swung.get(ids[1])!, 0.1);
  near(straight.get(ids[1])! - straight.get(ids[0])!, 0.15);
  near(swung.get(ids[5])! - swung.get(ids[4])!, 0.1);
});

test('velocities: MusicXML 4.0, percentages of 90; handbook 5.2', () => {
  assert.equal(Math.round(0.71 * VELOCITY.f), VELOCITY.mf);
  assert.equal(velocityOf(levelDb(dynamicStep('f')!)), 90);
  assert.equal(velocityOf(levelDb(dynamicStep('mf')!)), 64);
});

test('the clarity ceiling: handbook 6.3', () => {
  const { sound, silence } = soundAndSilence(0.25, 0.5, 96);
  near(sound, 0.078125);
  near(silence, 0.078125);
  near(clarityCeiling(0.25, 0.5), 107.142857, 1e-5);
  assert.equal(onScaleBelow(clarityCeiling(0.25, 0.5)), 104);
});

test('what is noticed: Friberg & Sundberg 1995; handbook 1.9', () => {
  assert.equal(isNoticed(0.02, 1), false);
  assert.equal(isNoticed(0.026, 1), true);
  assert.equal(isNoticed(0.005, 0.2), false);
  assert.equal(isNoticed(0.007, 0.2), true);
});

const SCHOOL = { trillStart: 'upper', appoggiatura: 'long', words: [] } as const;

/** The ornament of the first sounding note. */
function first(score: Score, tempo = 60, school: Parameters<typeof realise>[5] = SCHOOL) {
  const playable = playableOf(score);
  const t = playable.tones[0];
  const { note } = t.tone;
  return realise(score, playable.facts, note, note.duration, tempo, school, t.graces, t.tone.next?.note ?? null);
}

test('the long appoggiatura takes half of a plain note, two thirds of a dotted one: Quantz 1752 VIII, C. P. E. Bach 1753 II.2; handbook 8.1', () => {
  assert.equal(spelledOut(first(abc('M:4/4\nL:1/4\nK:C\n{d}c2 B2|'))!), 'D5 1/1, C5 1/1');
  assert.equal(spelledOut(first(abc('M:3/4\nL:1/4\nK:C\n{d}c3|'))!), 'D5 2/1, C5 1/1');
  // With a stroke it is short, before the beat, and the note keeps its time.
  const short = first(abc('M:4/4\nL:1/4\nK:C\n{/d}c2 B2|'))!;
  assert.equal(short.before, true);
  assert.equal(toNumber(short.notes[1].length), 2);
});

test('the pipers’ movements stand before the beat or on it, as the school says; their notes take no written time (handbook 9.5)', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n{gdc}c2 B2|');
  const before = first(score, 60, { ...SCHOOL, placing: 'before-beat' })!;
  assert.equal(before.before, true);
  assert.equal(toNumber(before.notes.at(-1)!.at), 0);
  assert.equal(toNumber(before.notes.at(-1)!.length), 2);
  const on = first(score, 60, { ...SCHOOL, placing: 'on-beat' })!;
  assert.equal(toNumber(on.notes[0].at), 0);
  assert.equal(on.notes.length, 4);
});

test('a late turn: four notes in the time of a sixteenth are 64ths (handbook 1.7)', () => {
  const turn = first(
    xml(attributes() + note('C5', 4, '<type>quarter</type><notations><ornaments><delayed-turn/></ornaments></notations>') + note('D5', 12))
  )!;
  assert.deepEqual(
    turn.notes.map((n) => `${n.length.n}/${n.length.d}`),
    ['3/4', '1/16', '1/16', '1/16', '1/16']
  );
  assert.equal(spelledOut(turn), 'C5 3/4, D5 1/16, C5 1/16, B4 1/16, C5 1/16');
});

test('a trill has as many notes as value and rate allow, from the note of the school, with its ending: handbook 8.2', () => {
  const trill = (school: Parameters<typeof realise>[5], tempo = 60) =>
    first(
      xml(attributes() + note('C5', 4, '<notations><ornaments><trill-mark/></ornaments></notations>') + note('D5', 12)),
      tempo,
      school
    )!;
  const upper = trill(SCHOOL);
  assert.equal(upper.notes[0].main, false);
  assert.equal(upper.notes.at(-1)!.main, true);
  // A second at the most of eight alternations: sixteen notes, the last two its ending from below.
  assert.equal(upper.notes.length, 16);
  assert.ok(upper.notes.at(-2)!.midi < upper.notes.at(-1)!.midi);
  assert.equal(trill({ ...SCHOOL, trillStart: 'main' }).notes[0].main, true);
  // On a very short note one flick is a trill, and the rhythm stays.
  const flick = trill(SCHOOL, 300);
  assert.equal(flick.says, 'one flick');
  for (const r of [upper, flick, trill({ ...SCHOOL, trillStart: 'main' })])
    assert.equal(
      r.notes.reduce((s, n) => s + toNumber(n.length), 0),
      1
    );
});

test('a sign at the ornament outweighs the key, the leading note of minor is raised: C. P. E. Bach 1753 II.4', () => {
  const signed = first(
    xml(
      attributes() +
        note('C5', 4, '<notations><ornaments><turn/><accidental-mark placement="above">flat</accidental-mark></ornaments></notations>') +
        note('D5', 12)
    )
  )!;
  assert.match(spelledOut(signed), /^Db5/);
  const minor = abc('M:4/4\nL:1/4\nK:Am\n!turn!A2 E2|^GAB^G|A2 E2|A4|');
  assert.match(spelledOut(first(minor)!), /G#4/);
});

test('three to one is a twelfth of the group away from the triplet’s two to one; six sixteenths, then a triplet on the fourth eighth (handbook 1.7)', () => {
  const dotted = playableOf(abc('M:2/4\nL:1/16\nQ:1/4=60\nK:C\nc3d c3d|'));
  const line = new Set(dotted.score.notes.map((n) => n.id));
  const entries = entriesOf(dotted.score, dotted.score.measures[0], line, 60);
  const [ratio] = ratiosOf(entries, 60);
  assert.equal(ratio.says, '3 : 1');
  // 1/4 against 1/3 of the beat.
  near(ratio.fromTriplet!, 1 / 3 - 1 / 4);
  assert.deepEqual(
    entries.map((e) => e.count),
    ['1', '1 a', '2', '2 a']
  );
  const upbeat = playableOf(abc('M:3/4\nL:1/8\nQ:1/4=60\nK:C\nc|c2 d2 e2|'));
  assert.equal(entriesOf(upbeat.score, upbeat.score.measures[0], new Set(upbeat.score.notes.map((n) => n.id)), 60)[0].count, '3 &');
  const run = playableOf(abc('M:2/4\nL:1/16\nQ:1/4=60\nK:C\ncdefga (3bag|'));
  const triplet = entriesOf(run.score, run.score.measures[0], new Set(run.score.notes.map((n) => n.id)), 60)[6];
  assert.deepEqual(triplet.at, frac(3, 2));
  assert.equal(triplet.count, '2 &');
});
