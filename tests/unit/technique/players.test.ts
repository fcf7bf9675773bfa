import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { newPlayer, type Player } from '../../../src/core/players/player.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { frac, toNumber } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { howItLies } from '../../../src/core/technique/how-it-lies.ts';
import { secondsPlayed } from '../../../src/core/technique/player-line.ts';
import { techniqueOf, type Technique } from '../../../src/core/technique/technique.ts';
import { abc, demo } from '../helpers.ts';
import { drafted, playableOf } from '../performance/play.ts';

const nora: Player = { ...newPlayer('Nora'), key: 'nora' };
const lies = (score: Score, player: Player | null): Technique =>
  techniqueOf(studyOf(score), { part: 0, instrument: null, period: 'classical', schools: {}, tempo: 60, pins: new Map(), player });
const said = (score: Score, player: Player): string[] => howItLies(studyOf(score), EMPTY_READING, { player }).findings.map((f) => f.what);

test('a player’s breath, span and range are what counts: handbook 15.1, 14.2', () => {
  const flute = abc('M:4/4\nL:1/4\nV:1 nm="Flute"\nK:C\ncdef|gfed|cdef|gfed|cdef|gfed|cdef|g4|');
  const count = (breath: number): number => lies(flute, { ...nora, breath }).breath!.breaths.length;
  assert.ok(count(4) > count(16));
  const piano = abc('M:4/4\nL:1/1\nV:1 nm="Piano"\nK:C\n[Cd]|');
  assert.equal(lies(piano, { ...nora, reach: 12 }).wide[0].possible, false);
  assert.equal(lies(piano, { ...nora, reach: 14 }).wide[0].possible, true);
  assert.deepEqual(said(flute, { ...nora, highest: 'F5' }).filter((w) => /higher than what Nora is sure of/.test(w)).length, 4);
  assert.deepEqual(
    said(flute, { ...nora, lowest: 'C5', highest: 'G5' }).filter((w) => /Nora/.test(w)),
    []
  );
});

test('own fingerings outrank ours; those for another instrument are not meant: handbook 16.1', () => {
  const clarinet = abc('M:4/4\nL:1/4\nV:1 nm="Clarinet in C"\nK:C\nE^FGA|');
  const own: Player = { ...nora, instrument: 'clarinet', fingerings: [{ pitch: 'F#4', fingering: 'T sF#' }] };
  const keys = (player: Player | null): string | undefined => lies(clarinet, player).winds!.ways[1]?.keys;
  assert.notEqual(keys(null), 'T sF#');
  assert.equal(keys(own), 'T sF#');
  assert.equal(keys({ ...own, instrument: 'flute' }), keys(null));
  const trumpet = abc('M:4/4\nL:1/4\nV:1 nm="Trumpet in C"\nK:C\nEGEG|');
  const valves = (player: Player | null): string[] => lies(trumpet, player).brass!.ways.map((w) => w!.valves!);
  const wanted = { ...nora, fingerings: [{ pitch: 'E4', fingering: '123' }] };
  assert.notDeepEqual(valves(wanted), valves(null));
  assert.deepEqual(valves(wanted).filter((v) => v === wanted.fingerings[0].fingering).length, 2);
});

test('seconds as they are played: each written place in order, and from breath to breath what the performance takes', () => {
  for (const [name, period] of [
    ['andantino.abc', 'classical'],
    ['etude.abc', 'romantic']
  ] as const) {
    const { score } = demo(name);
    const playable = playableOf(score);
    const performance = perform(playable, drafted(playable, period));
    const seconds = secondsPlayed(score, performance.beats);
    const firsts = performance.bars.filter((b) => b.pass === 0).sort((a, b) => a.measure - b.measure);
    let at = 0;
    for (const bar of firsts) {
      assert.ok(Math.abs(seconds(score.measures[bar.measure].start) - at) < 1e-6, `${name} bar ${bar.measure}`);
      at += bar.planned;
    }
    const end = score.measures.at(-1)!;
    assert.ok(Math.abs(seconds(frac(end.start.n, end.start.d)) + firsts.at(-1)!.planned - at) < 1e-6);
    const t = techniqueOf(playable.study, {
      part: 0,
      instrument: 'flute',
      period,
      schools: {},
      tempo: null,
      pins: new Map(),
      seconds
    });
    let since = t.line.attacks[0].from;
    for (const b of t.breath!.breaths) {
      const before = t.line.attacks[b.at - 1];
      assert.ok(Math.abs(b.secondsBefore - (before.to - since)) < 1e-9);
      assert.ok(Math.abs(before.from - seconds(before.start)) < 1e-9 && toNumber(before.start) >= 0);
      since = t.line.attacks[b.at].from;
    }
  }
});
