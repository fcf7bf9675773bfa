import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { positionAt } from '../../../src/core/score/position.ts';
import { jointEvidence } from '../../../src/core/analysis/phrases.ts';
import { soundingScore } from '../../../src/core/analysis/sounding-score.ts';
import { abc, demo } from '../helpers.ts';

const cadences = (score: ReturnType<typeof abc>) => analyse(score).cadences.map((c) => `${positionAt(score, c.start).number} ${c.type}`);
const piano = (treble: string, bass: string) => abc(`M:4/4\nL:1/4\n%%score {S B}\nV:S\nV:B clef=bass\nK:C\nV:S\n${treble}\nV:B\n${bass}`);

// Definitions of the cadences: Caplin, Classical Form, 1998.
test('perfect and imperfect authentic cadences by the soprano', () => {
  assert.deepEqual(cadences(piano('[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]4|]', 'C,2F,2|G,2G,2|C,4|]')), ['3 PAC']);
  assert.deepEqual(cadences(piano('[EGc]2[FAd]2|[EGc]2[FGd]2|[cGe]4|]', 'C,2F,2|G,2G,2|C,4|]')), ['3 IAC']);
});

test('a half cadence needs the phrase to end on the dominant', () => {
  const found = cadences(
    piano('[EGc]2[EGc]2|[FAc]2[FAd]2|[DGB]2z2|[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]4|]', 'C,2E,2|F,2D,2|G,2z2|C,2F,2|G,2G,2|C,4|]')
  );
  assert.deepEqual(found, ['3 HC', '6 PAC']);
});

test('the cadences of the demo pieces', () => {
  const { score } = demo('andantino.abc');
  const found = cadences(score);
  for (const expected of ['4 HC', '22 DC', '24 PAC'])
    assert.ok(
      found.some((f) => f === expected || (expected === '24 PAC' && f === '24 IAC')),
      `${expected} in ${found}`
    );
  assert.ok(cadences(demo('corrente.abc').score).includes('12 PAC'));
  assert.ok(cadences(demo('corrente.abc').score).includes('28 PAC'));
});

test('phrases end at rests, long notes and section ends, and cover the piece', () => {
  const score = abc('M:4/4\nL:1/8\nK:C\ncdef gfed|c2e2 g4|fedc Bcde|c6 z2|:cdef gfed|c2e2 g4|fedc BcdB|c8:|');
  const { phrases } = analyse(score);
  const starts = phrases.map((p) => positionAt(score, p.start).number);
  assert.ok(starts.includes('1') && starts.includes('5'), starts.join());
  phrases.slice(1).forEach((p, k) => assert.deepEqual(p.start, phrases[k].end));
});

test('a run of equal notes without any sign is not cut into pieces', () => {
  const { phrases } = analyse(abc('M:4/4\nL:1/8\nK:C\ncdef gfed|cdef gfed|'));
  assert.equal(phrases.length, 1);
});

test('a phrase start set by the instructor stands, one taken away is gone', () => {
  const score = abc('M:4/4\nL:1/8\nK:C\ncdef gfed|cdef gfed|cdef gfed|c6 z2|cdef gfed|c8|');
  const start = score.measures[2].start;
  const starts = (here: boolean, at = start) =>
    analyse(score, [{ id: 'p', kind: 'phrase-start', start: at, here }]).phrases.map((p) => positionAt(score, p.start).number);
  assert.ok(starts(true).includes('3'));
  assert.ok(analyse(score).phrases.some((p) => positionAt(score, p.start).number === '5'));
  assert.ok(!starts(false, score.measures[4].start).includes('5'));
});

test('joints are weaker between the units of a sequence, unless a rest stands there, and stronger where a passage begins that comes twice', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\nCDEF|DEFG|EFGz|GABc|');
  const sounding = soundingScore(score);
  const bar = 4 * sounding.ticksPerQuarter;
  const plain = jointEvidence(score, sounding, [], []).joints;
  const inside = jointEvidence(score, sounding, [], [[1, 4 * bar]]).joints;
  const twice = jointEvidence(score, sounding, [bar], []).joints;
  assert.ok(inside[4].strength < plain[4].strength);
  assert.equal(inside[11].strength, plain[11].strength, 'after the rest');
  assert.ok(twice[4].strength > plain[4].strength);
  assert.ok(twice[4].evidence.includes('a passage begins that comes twice'));
  assert.equal(twice[5].strength, plain[5].strength);
});
