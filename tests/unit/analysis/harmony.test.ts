import assert from 'node:assert/strict';
import { join } from 'node:path';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { keyDistance, keyName, parseKey } from '../../../src/core/analysis/keys.ts';
import { positionAt } from '../../../src/core/score/position.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { TEMPERLEY, KRUMHANSL_KESSLER } from '../../../src/core/style/key-profiles.ts';
import { abc, demo, open, sample } from '../helpers.ts';

const keys = (facts: Facts) => facts.keys.map((k) => k.name);
const romans = (facts: Facts) => facts.chords.map((c) => c.roman).join(' ');
const at = (score: Score, facts: Facts, bar: string) =>
  facts.chords.filter((c) => positionAt(score, c.start).number === bar).map((c) => c.roman);
const chorale = (...bars: string[]) => abc(`M:4/4\nL:1/2\n%%score {S B}\nV:S\nV:B clef=bass\nK:C\n${bars.join('\n')}`);

test('the key profiles are the published ones', () => {
  // Krumhansl & Kessler 1982 and Temperley 2001, as quoted in the handbook, section 2.2.
  assert.equal(KRUMHANSL_KESSLER.major.reduce((a, b) => a + b, 0).toFixed(2), '41.79');
  assert.equal(KRUMHANSL_KESSLER.minor.reduce((a, b) => a + b, 0).toFixed(2), '44.51');
  assert.deepEqual([TEMPERLEY.major[0], TEMPERLEY.minor[3], TEMPERLEY.minor[10]], [5, 4.5, 1.5]);
});

test('keys are named, read and measured', () => {
  for (const name of ['C major', 'F# minor', 'Bb major', 'Cb major']) assert.equal(keyName(parseKey(name)!), name);
  assert.equal(parseKey('H major'), null);
  assert.equal(keyDistance(parseKey('C major')!, parseKey('G major')!), 1);
  assert.equal(keyDistance(parseKey('C major')!, parseKey('A minor')!), 0.5);
  assert.equal(keyDistance(parseKey('C major')!, parseKey('C minor')!), 1);
});

test('full chords: a plain cadence with its inversions', () => {
  const facts = analyse(chorale('V:S\n[Gce]2|[Acf]2|[Gce][FGd]|[EGc]2|', 'V:B\nC,2|F,2|G,G,|C,2|'));
  assert.deepEqual(keys(facts), ['C major']);
  assert.equal(romans(facts), 'I IV V64 V7 I');
  assert.ok(facts.chords[2].cadential);
});

test('applied dominants are no modulation', () => {
  const facts = analyse(chorale('V:S\n[EGc]2|[^FAd][FAc]|[GBd]2|[EGc]2|', 'V:B\nC,2|D,D,|G,2|C,2|'));
  assert.deepEqual(keys(facts), ['C major']);
  assert.ok(facts.chords.some((c) => c.applied && c.roman.endsWith('/V')));
});

test('a dominant and its goal to and fro for two bars stay in the key around them; a goal foreign to it is a key', () => {
  const around = (upper: string, lower: string) => {
    const [u, l] = ['[EGc]2|[FAc]2|[FGB]2|[EGc]2|', 'C,2|F,2|G,2|C,2|'];
    return keys(analyse(chorale(`V:S\n${u}${u}${upper}${u}${u}`, `V:B\n${l}${l}${lower}${l}${l}`)));
  };
  assert.deepEqual(around('[^GBd][Ace]|[^GBd][Ace]|', 'E,A,|E,A,|'), ['C major'], 'E7 and A minor');
  assert.deepEqual(around('[^GBd][A^ce]|[^GBd][A^ce]|', 'E,A,|E,A,|'), ['C major', 'A major', 'C major'], 'E7 and A major');
});

// Common practice (handbook 2.2): a key needs its dominant.
test('chords between two keys are no key of their own, and the old key comes back with its phrase', () => {
  // VII III VII in D minor, as in the later folia, is no C major.
  const folia = analyse(open(join(import.meta.dirname, '../../fixtures/analysed/folia.abc')).score);
  assert.deepEqual(keys(folia), ['D minor']);
  assert.match(romans(folia), /VII III VII/);
  // To the dominant over a pivot, a phrase there, and home again: three keys, changing at the joints.
  const facts = analyse(
    chorale(
      'V:S\n[EGc]2|[FAc]2|[FGB]2|[EGc]2|[EGc]2|[EAc]2|[^FAd]2|[GBd]2|[GBd]2|[Gce]2|[^FAd]2|[GBd]2|[EGc]2|[FAd]2|[FGB]2|[EGc]2|]',
      'V:B\nC,2|F,2|G,2|C,2|C,2|A,2|D,2|G,2|G,2|C,2|D,2|G,,2|C,2|D,2|G,2|C,2|]'
    )
  );
  assert.deepEqual(keys(facts), ['C major', 'G major', 'C major']);
  assert.equal(facts.keys[2].start.n, 48);
});

test('spelling tells an augmented sixth from a dominant seventh', () => {
  const sixth = analyse(
    abc('M:4/4\nL:1/2\n%%score {S B}\nV:S\nV:B clef=bass\nK:Am\nV:S\n[EAc]2|[Ac^d]2|[^GBe]2|[EAc]2|\nV:B\nA,2|F,2|E,2|A,2|')
  );
  assert.equal(sixth.chords[1].special, 'augmented sixth');
  assert.equal(sixth.chords[1].roman, 'Ger65');
  const seventh = analyse(abc('M:4/4\nL:1/2\n%%score {S B}\nV:S\nV:B clef=bass\nK:Bb\nV:S\n[FBd]2|[Ac_e]2|[FBd]2|\nV:B\nB,2|F,2|B,2|'));
  assert.equal(seventh.chords[1].roman, 'V7');
  assert.equal(seventh.chords[1].special, null);
});

test('the Neapolitan sixth before the dominant', () => {
  const facts = analyse(
    abc('M:4/4\nL:1/2\n%%score {S B}\nV:S\nV:B clef=bass\nK:Am\nV:S\n[EAc]2|[F_Bd]2|[E^GB]2|[EAc]2|\nV:B\nA,2|D,2|E,2|A,2|')
  );
  assert.deepEqual(
    facts.chords.map((c) => c.roman),
    ['i', 'N6', 'V', 'i']
  );
});

test('a broken chord is one chord, and passing notes do not disturb it', () => {
  const facts = analyse(abc('M:4/4\nL:1/8\nK:C\nCEGc GEGE|CDEF GFED|B,DGd GDFD|C8|'));
  assert.deepEqual(
    facts.chords.map((c) => c.roman.replace(/7|65/, '')),
    ['I', 'V', 'I']
  );
});

test('a single line implies its chords', () => {
  const { score } = demo('corrente.abc');
  const facts = analyse(score);
  assert.deepEqual(
    keys(facts).filter((k, i, all) => all.indexOf(k) === i),
    ['D minor', 'F major']
  );
  assert.equal(at(score, facts, '26')[0], 'N');
  assert.deepEqual(at(score, facts, '16'), ['iv']);
});

test('two staves: the agreed harmony of the demo’s keyboard piece', () => {
  const { score } = demo('andantino.abc');
  const facts = analyse(score);
  // The first strain closes on its dominant through the dominant of that, before the repeat: in C.
  assert.deepEqual(keys(facts), ['F major', 'C major', 'F major']);
  for (const [bar, expected] of Object.entries({
    1: ['I'],
    2: ['V65'],
    6: ['ii'],
    7: ['V64', 'V7'],
    8: ['I'],
    9: ['V6'],
    11: ['V65/ii'],
    12: ['ii'],
    13: ['V65/V'],
    20: ['IV'],
    23: ['ii6', 'V64', 'V7']
  })) {
    assert.deepEqual(at(score, facts, bar), expected, `bar ${bar}`);
  }
});

// Agreed analysis: BWV 775 begins in D minor, closes its first part in F major (bar 18), goes to A minor (bar 38) and returns.
test('keys over time in the two-part invention BWV 775', () => {
  const { score } = open(sample('BWV_0775.xml'));
  const facts = analyse(score);
  assert.deepEqual(keys(facts), ['D minor', 'F major', 'A minor', 'D minor']);
});

test('transposing instruments are analysed as they sound', () => {
  assert.equal(analyse(demo('etude.abc').score).keys[0].name, 'D minor');
});

test('a pinned key and a pinned chord bind, and what depends on them follows', () => {
  const { score } = demo('andantino.abc');
  const before = analyse(score);
  const bar = score.measures[13];
  const end = score.measures[14].start;
  const keyed = analyse(score, [{ id: 'a', kind: 'key', start: score.measures[12].start, end, key: 'C major' }]);
  const area = keyed.keys.find((k) => k.pinned)!;
  assert.equal(area.name, 'C major');
  assert.equal(area.confidence, 1);
  assert.deepEqual(
    at(score, keyed, '13').map((r) => r.replace(/7|65/, '')),
    ['V']
  );
  assert.notDeepEqual(at(score, before, '13'), at(score, keyed, '13'));
  const chord = analyse(score, [{ id: 'b', kind: 'chord', start: bar.start, end, roman: 'vi' }]);
  const pinned = chord.chords.find((c) => c.pinned)!;
  assert.equal(pinned.roman, 'vi');
  assert.equal(positionAt(score, pinned.start).number, '14');
});

test('every fact says how sure it is and on what evidence', () => {
  const facts = analyse(demo('corrente.abc').score);
  for (const fact of [...facts.keys, ...facts.chords, ...facts.cadences, ...facts.phrases]) {
    assert.ok(fact.confidence > 0 && fact.confidence <= 1);
    assert.ok(fact.evidence.length > 3);
  }
});

test('a score of rests has no facts and does no harm', () => {
  assert.deepEqual(analyse(abc('M:4/4\nL:1/4\nK:C\nz4|z4|A4|z4|')).keys.length, 1);
});
