import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { playableScore } from '../../../src/core/performance/playable-score.ts';
import { proof } from '../../../src/core/proof/proof.ts';
import { brief } from '../../../src/core/reading/brief.ts';
import { dynamicPlan } from '../../../src/core/reading/dynamic-plan.ts';
import { handsOfPart } from '../../../src/core/reading/hands.ts';
import { dynamicLevels, levelInForce } from '../../../src/core/reading/in-force.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { abc, attributes, markingAt, note, xml } from '../helpers.ts';

const PIANO = (treble: string, bass: string) =>
  abc(`M:4/4\nL:1/4\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n${treble}\nV:B\n${bass}`);
const reading = (...markings: Marking[]): Reading => ({ ...EMPTY_READING, markings });

test('a mark for the lower hand never changes the upper one, a mark between the staves holds for both', () => {
  const score = PIANO('!f!e f g a|g f e d|c4|', 'C, E, G, E,|C, E, G, E,|C,4|');
  const study = studyOf(score);
  const soft = reading(markingAt('dynamic', 'pp', 4, { staff: 2 }));
  const loudness = (r: Reading) => {
    const { notes } = perform(playableScore(study, 0, r.instruments), r);
    return (staff: number) => notes.filter((n) => n.staff === staff).map((n) => n.db);
  };
  const [before, after] = [loudness(reading()), loudness(soft)];
  assert.deepEqual(after(1), before(1), 'the upper hand is what it was');
  assert.ok(after(2).at(-1)! < before(2).at(-1)! - 5, 'the lower one is softer by steps');
  assert.deepEqual(handsOfPart(score, soft), [1, 2]);
  const at = (hand: number) => levelInForce(dynamicLevels(score, soft.markings), 0, frac(5), hand)!.sign;
  assert.deepEqual([at(1), at(2)], ['f', 'pp']);
  const plan = (hand: number) => dynamicPlan(score, study.facts, soft, hand).bars[2].level;
  assert.ok(plan(1) - plan(2) > 2);
  assert.match(brief(score, study.facts, soft.markings, 2, 2).howLongAndLoud.join('\n'), /upper hand\): f, .*\n.*lower hand\): \[pp\]/);
  // A level between the staves later takes both.
  const both = reading(markingAt('dynamic', 'pp', 4, { staff: 2 }), markingAt('dynamic', 'mf', 8));
  assert.equal(levelInForce(dynamicLevels(score, both.markings), 0, frac(8), 2)!.sign, 'mf');
});

test('printed marks that all hang on the lower staff, or stand over it, are for both hands', () => {
  const dynamic = (staff: number, placement: string, sign: string) =>
    `<direction placement="${placement}"><direction-type><dynamics><${sign}/></dynamics></direction-type><staff>${staff}</staff></direction>`;
  const staves = attributes('<time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves>');
  const notes = `${note('C5', 16, '<voice>1</voice><staff>1</staff>')}<backup><duration>16</duration></backup>${note('C3', 16, '<voice>2</voice><staff>2</staff>')}`;
  const upper = (...marks: string[]) => levelInForce(dynamicLevels(xml(`${staves}${marks.join('')}${notes}`)), 0, frac(0), 1)?.sign;
  assert.equal(upper(dynamic(2, 'below', 'p')), 'p', 'the file says all at its lower staff');
  assert.equal(upper(dynamic(1, 'below', 'f'), dynamic(2, 'above', 'p')), 'p');
  assert.equal(upper(dynamic(1, 'below', 'f'), dynamic(2, 'below', 'p')), 'f');
});

test('a printed hairpin between the staves is for both hands, one under the lower staff for the lower alone', () => {
  const wedge = (type: string, placement: string) =>
    `<direction placement="${placement}"><direction-type><wedge type="${type}" number="1"/></direction-type><staff>2</staff></direction>`;
  const dynamic = '<direction placement="below"><direction-type><dynamics><p/></dynamics></direction-type><staff>1</staff></direction>';
  const staves = attributes('<time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves>');
  const bar = (placement: string) => {
    const held = `${note('C5', 16, '<voice>1</voice><staff>1</staff>')}<backup><duration>16</duration></backup>`;
    return `${staves}${dynamic}${wedge('crescendo', placement)}${held}${note('C3', 16, '<voice>2</voice><staff>2</staff>')}${wedge('stop', placement)}`;
  };
  const hairpins = (placement: string, hand: number): number => {
    const score = xml(bar(placement), `${note('C5', 16, '<staff>1</staff>')}`);
    return dynamicPlan(score, studyOf(score).facts, reading(), hand).hairpins.length;
  };
  assert.deepEqual([hairpins('above', 1), hairpins('above', 2)], [1, 1]);
  assert.deepEqual([hairpins('below', 1), hairpins('below', 2)], [0, 1]);
});

test('the proof finds parts that go against each other, and an accompaniment set over the tune', () => {
  const score = abc(
    'M:4/4\nL:1/4\n%%score 1 2\nV:1 name="Flute"\nV:2 name="Cello" clef=bass\nK:C\nV:1\n!p!e f g a|g f e d|c4|\nV:2\nC,4|G,,4|C,4|'
  );
  const study = studyOf(score);
  const found = (...markings: Marking[]) =>
    proof(study, { ...reading(...markings), part: 1 }, [])
      .filter((f) => /part against part|background/.test(f.kind))
      .map((f) => `${f.kind}: ${f.what}`);
  const up = markingAt('hairpin', 'crescendo', 0, { end: frac(4) });
  const down = markingAt('hairpin', 'diminuendo', 0, { end: frac(4), part: 1 });
  assert.deepEqual(found(up, down), ['part against part: bar 1, beat 1: hairpin diminuendo while Flute grows']);
  assert.deepEqual(found(up, { ...down, value: 'crescendo' }), []);
  assert.deepEqual(found(markingAt('dynamic', 'f', 0, { part: 1 })), [
    'background louder than foreground: bar 1, beat 1: f under the tune of Flute, which has p'
  ]);
  assert.deepEqual(found(markingAt('dynamic', 'pp', 0, { part: 1 })), []);
});
