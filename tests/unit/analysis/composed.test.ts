import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { positionAt } from '../../../src/core/score/position.ts';
import { f1, recall, scorePiece, type Kind, type Tally } from './scorer.ts';
import { compose, dice, PHRASES, type Phrase, type Plan, type SoundingScore } from './composed.ts';

const TEXTURES = ['chorale', 'alberti', 'waltz', 'duet', 'line'] as const satisfies readonly SoundingScore[];
/** Lines alone; odd seeds were in view when their weights were chosen, even ones were not. */
const SOLOS = ['solo basses', 'solo passing', 'solo suspensions', 'line'] as const satisfies readonly SoundingScore[];
const MODES = ['major', 'minor'] as const;

/** Half close and full close, twice, in a key, a metre and a texture by chance. */
function periodic(mode: Plan['mode'], texture: SoundingScore, seed: number): Plan {
  const roll = dice(seed * 7919 + texture.length + mode.length * 31);
  const pick = (close: Phrase['close']): Phrase => {
    const own = PHRASES[mode].filter((p) => p.close === close);
    return own[roll(own.length)];
  };
  const half = pick('HC');
  const phrases = [half, pick('PAC'), half, pick('PAC')];
  const meter = texture === 'waltz' ? '3/4' : (['4/4', '3/4', '2/4', '6/8'] as const)[roll(4)];
  return { name: `${mode} ${texture} ${seed}`, mode, texture, tonic: roll(9) - 4, meter, phrases, seed, upbeat: roll(3) === 0 };
}

/** What the engine finds in some pieces, of what they were written from. */
function found(plans: Plan[]): Record<'keys' | 'chords' | 'cadences' | 'phraseEnds', Tally> {
  const none = (): Tally => ({ right: 0, wanted: 0, claimed: 0 });
  const totals = { keys: none(), chords: none(), cadences: none(), phraseEnds: none() };
  for (const plan of plans) {
    const own = scorePiece(compose(plan));
    for (const kind of Object.keys(totals) as (keyof typeof totals)[]) {
      const tally = own[kind as Kind]!;
      totals[kind].right += tally.right;
      totals[kind].wanted += tally.wanted;
      totals[kind].claimed += tally.claimed;
    }
  }
  return totals;
}

const atLeast = (reached: number, floor: number, what: string): void =>
  assert.ok(reached >= floor, `${what}: ${reached.toFixed(3)}, at least ${floor}`);

/** What is reached in each texture, rounded down. A single line leaves most to the listener. */
const FLOORS: Record<(typeof TEXTURES)[number], { chords: number; cadences: number; phraseEnds: number }> = {
  chorale: { chords: 0.95, cadences: 0.8, phraseEnds: 0.8 },
  alberti: { chords: 0.9, cadences: 0.9, phraseEnds: 0.9 },
  waltz: { chords: 0.88, cadences: 0.9, phraseEnds: 0.9 },
  duet: { chords: 0.8, cadences: 0.85, phraseEnds: 0.85 },
  line: { chords: 0.85, cadences: 0.6, phraseEnds: 0.55 }
};

for (const texture of TEXTURES)
  test(`textbook progressions written as ${texture}: keys, chords, closes and phrases are found`, () => {
    const plans = MODES.flatMap((mode) => [1, 2, 3, 4].map((seed) => periodic(mode, texture, seed)));
    const totals = found(plans);
    atLeast(recall(totals.keys), 0.98, 'keys');
    atLeast(recall(totals.chords), FLOORS[texture].chords, 'chords');
    atLeast(f1(totals.cadences), FLOORS[texture].cadences, 'cadences');
    atLeast(f1(totals.phraseEnds), FLOORS[texture].phraseEnds, 'phrase ends');
  });

for (const tuned of [true, false])
  test(`a line alone: keys, numerals and closes (${tuned ? 'tuned half' : 'other half'})`, () => {
    const seeds = [1, 2, 3, 4, 5, 6].filter((seed) => (seed % 2 === 1) === tuned);
    const totals = found(SOLOS.flatMap((texture) => MODES.flatMap((mode) => seeds.map((seed) => periodic(mode, texture, seed)))));
    atLeast(recall(totals.keys), 0.96, 'keys');
    atLeast(recall(totals.chords), 0.85, 'numerals');
    atLeast(f1(totals.cadences), 0.88, 'cadences');
    atLeast(f1(totals.phraseEnds), 0.92, 'phrase ends');
  });

const turn = (by: number, ...bars: string[]): Phrase => ({ close: 'PAC', bars, turn: [2, by] });
const away = (by: number, ...bars: string[]): Phrase => ({ close: 'PAC', bars, turn: [0, by] });
/** Two phrases away from home: one that goes there and one that stays. */
const TURNS: [name: string, mode: Plan['mode'], Phrase, Phrase][] = [
  ['major to its dominant', 'major', turn(1, 'I6', 'vi', 'ii6 V7', 'I'), away(1, 'I', 'IV', 'ii6 V7', 'I')],
  ['major to its relative', 'major', turn(3, 'I', 'vi', 'iio6 V7', 'i'), away(3, 'i', 'iv', 'V7', 'i')],
  ['minor to its relative', 'minor', turn(-3, 'i', 'iv', 'V7', 'I'), away(-3, 'I', 'IV', 'ii6 V7', 'I')],
  ['minor to its dominant', 'minor', turn(1, 'i', 'i', 'iio6 V7', 'i'), away(1, 'i', 'iv', 'V7', 'i')]
];
for (const [name, mode, going, staying] of TURNS)
  test(`keys over time, ${name} and back`, () => {
    const home = PHRASES[mode].find((p) => p.close === 'PAC' && p.bars.length === 4)!;
    const plans = TEXTURES.flatMap((texture) =>
      [1, 2].map((seed): Plan => {
        const meter = texture === 'waltz' ? '3/4' : '4/4';
        return { name: `${name} ${texture}`, mode, texture, tonic: seed, meter, phrases: [home, going, staying, home], seed };
      })
    );
    const totals = found(plans);
    atLeast(recall(totals.keys), 0.9, 'keys');
    atLeast(f1(totals.phraseEnds), 0.9, 'phrase ends');
    for (const plan of plans) {
      const { keys } = analyse(compose(plan).score());
      // A key is no chord: nothing is called a key for a bar or two on the way.
      assert.ok(keys.length <= 3, `${plan.name}: ${keys.map((k) => k.name).join(', ')}`);
    }
  });

/** What is told of a piece, without the names of its keys. */
function told(plan: Plan): string {
  const score = compose(plan).score();
  const facts = analyse(score);
  const where = (at: { n: number; d: number }): string => positionAt(score, at).number;
  return JSON.stringify([
    facts.chords.map((c) => `${where(c.start)} ${c.roman}`),
    facts.cadences.map((c) => `${where(c.start)} ${c.type}`),
    facts.phrases.map((p) => `${where(p.start)} ${where(p.last)}`),
    facts.sections.map((s) => `${where(s.start)} ${s.label}`)
  ]);
}

for (const texture of TEXTURES)
  test(`the same piece in every key has the same numerals, closes, phrases and sections: ${texture}`, () => {
    for (const mode of MODES)
      for (const seed of [3, 5]) {
        const plan = periodic(mode, texture, seed);
        const home = told({ ...plan, tonic: 0 });
        assert.match(home, /PAC/);
        // From five flats to six sharps, in minor by the signature.
        for (let tonic = -5; tonic <= 6; tonic++)
          assert.equal(told({ ...plan, tonic: mode === 'minor' ? tonic + 3 : tonic }), home, `${plan.name}, ${tonic}`);
      }
  });

test('a key that the instructor has set is kept, though its chords would go into the keys around it', () => {
  const [name, mode, going, staying] = TURNS[0];
  const home = PHRASES[mode][3];
  const plan: Plan = { name, mode, texture: 'chorale', tonic: 0, meter: '4/4', phrases: [home, going, staying, home], seed: 1 };
  const score = compose(plan).score();
  const [from, to] = [score.measures[5].start, score.measures[6].start];
  assert.ok(analyse(score).keys.every((k) => k.name !== 'A minor'));
  const { keys } = analyse(score, [{ id: 'pin', kind: 'key', start: from, end: to, key: 'A minor' }]);
  assert.ok(keys.some((k) => k.name === 'A minor' && k.pinned));
});

test('the composer writes what it says: chords are spelled in their keys', () => {
  const piece = compose({
    name: 'a check',
    mode: 'minor',
    texture: 'chorale',
    tonic: 2,
    meter: '4/4',
    phrases: [PHRASES.minor[4]],
    seed: 1
  });
  assert.match(piece.text, /K:Dm/);
  // viio7 of D minor: C sharp, E, G, B flat.
  for (const name of ['^c', '_B', '_e']) assert.ok(piece.text.toLowerCase().includes(name.toLowerCase()), name);
  assert.deepEqual(piece.chords!['3'].split(' ')[0], 'Eb');
  assert.deepEqual(piece.cadences, [['4', 'PAC']]);
});
