import assert from 'node:assert/strict';
import { test } from 'node:test';
import { movementOf, movements, pipeLetter } from '../../../src/core/technique/pipes.ts';
import { playerLine, secondsAt } from '../../../src/core/technique/player-line.ts';
import { abc } from '../helpers.ts';

/** A march with each movement of the handbook once, and a throw whose low G is missing. */
const MARCH = `M:2/4
L:1/8
Q:1/4=72
K:HP
{g}A2 {d}B2|{e}A2 {gAd}A2|{gBd}B2 {gcd}c2|{gde}d2 {gef}e2|{gfg}f2 {gf}g2|{ag}a2 {Bd}B2|{aAd}A2 {Gdc}d2|e2 {GdGc}d2|
e2 {GdG}B2|d2 {GBG}B2|c2 {GdGe}A2|d2 {GBGe}A2|c2 {gAGAG}A2|c2 {GAG}A2|c2 {GBG}A2|A2 {G}A2|e2 {ged}c2|A2 {dc}d2|]`;
const NAMES =
  'g-grace d-grace e-grace doubling doubling doubling doubling doubling doubling doubling doubling half-doubling thumb-doubling throw heavy-throw grip grip taorluath taorluath birl birl rodin strike cadence throw';

test('every movement is named, and the low G that is missing', () => {
  // Handbook 19.1 [M].
  const score = abc(MARCH);
  const found = movements(playerLine(score, 0, secondsAt(score, 72)), false);
  assert.deepEqual(found.map((m) => m.name).join(' '), NAMES);
  assert.deepEqual(
    found.filter((m) => !m.complete).map((m) => [m.name, m.missing]),
    [['throw', ['G']]]
  );
  assert.equal(found.at(-1)!.complete, false);
});

test('the nine notes, and nothing else', () => {
  const score = abc('M:none\nL:1/4\nK:HP\nG A B c d e f g a|');
  assert.equal(score.notes.map((n) => pipeLetter(n.pitch!)).join(''), 'GABcdefga');
  assert.equal(pipeLetter({ step: 0, alter: 0, octave: 4 }), null);
});

test('the same graces are named by where they lead and come from', () => {
  assert.equal(movementOf('GBG', 'd', 'B')!.name, 'grip');
  assert.equal(movementOf('GBG', 'c', 'A')!.name, 'rodin');
  assert.equal(movementOf('G', 'A', 'A')!.name, 'strike');
  assert.equal(movementOf('fd', 'A', 'B'), null, 'no movement of that name');
  assert.deepEqual(movementOf('Gde', 'e', 'A'), { name: 'taorluath', missing: ['G'] });
});

test('a movement needs its time: the short note before it gives little', () => {
  const quick = abc('M:2/4\nL:1/16\nQ:1/4=100\nK:HP\nA{GdGe}A3 e4|');
  const [m] = movements(playerLine(quick, 0, secondsAt(quick, 100)), false);
  assert.ok(m.needs > m.has);
  const [tight] = movements(playerLine(quick, 0, secondsAt(quick, 100)), true);
  assert.ok(tight.needs < m.needs);
});
