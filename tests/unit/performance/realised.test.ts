import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ornamentStaff } from '../../../src/core/edition/ornament-staff.ts';
import { ornamentsIn } from '../../../src/core/performance/realised.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { abc, demo } from '../helpers.ts';
import { playableOf, readingOf, spelledOut } from './play.ts';

const inPiece = (text: string, ...reading: Parameters<typeof readingOf>) => {
  const playable = playableOf(abc(text));
  return {
    score: playable.score,
    found: ornamentsIn(playable.score, playable.facts, readingOf(...reading), 0, playable.score.measures.length - 1)
  };
};

test('ornaments are written out with the schools of the reading, and with what it says at one place', () => {
  const text = 'M:4/4\nL:1/4\nQ:1/4=60\nK:C\n!trill!c2 d2|{d}c2 B2|';
  const classical = inPiece(text, 'classical').found;
  assert.equal(classical.length, 2);
  assert.match(classical[0].says, /^trill from above, with an ending: \d+ notes, the shortest \d+ ms at ♩ = 60$/);
  assert.equal(spelledOut(classical[1].realisation), 'D5 1/1, C5 1/1');
  const romantic = inPiece(text, 'romantic').found;
  assert.match(romantic[0].says, /from the main note/);
  assert.match(romantic[1].says, /before the beat/);
  const here = readingOf(
    'classical',
    {},
    { localAnswers: [{ key: 'trill-start', option: 'main', from: { n: 0, d: 1 }, to: { n: 4, d: 1 }, on: '2026-11-25' }] }
  );
  const playable = playableOf(abc(text));
  assert.match(ornamentsIn(playable.score, playable.facts, here, 0, 0)[0].says, /from the main note/);
});

test('a turn that has no time is told; bars without ornaments have none', () => {
  assert.equal(inPiece('M:4/4\nL:1/4\nQ:1/4=60\nK:C\nCDEF|', 'classical').found.length, 0);
  const quick = inPiece('M:4/4\nL:1/16\nQ:1/4=160\nK:C\n!turn!c4 e4 !turn!cdef gfed|', 'classical').found;
  assert.equal(quick[1].fits, false);
  assert.match(quick[1].says, /too quick to be heard apart/);
});

test('the small staff holds every note with its exact value: read back, the bars are as long as the notes', () => {
  for (const text of [
    'M:4/4\nL:1/4\nQ:1/4=72\nK:C\n!trill!c2 d2|{d}c2 B2|!turn!e2 f2|',
    'M:3/4\nL:1/4\nQ:1/4=60\nK:G\n!trill!c3|{d}c3|!mordent!B3|'
  ]) {
    const { score, found } = inPiece(text, 'classical');
    const staff = readMusicXml(ornamentStaff(score, found));
    assert.equal(staff.measures.length, found.length);
    found.forEach((o, k) => {
      const own = staff.notes.filter((n) => n.measure === k && !n.grace);
      const sounds = o.realisation.before ? o.realisation.notes.filter((n) => n.main) : o.realisation.notes;
      assert.ok(Math.abs(toNumber(staff.measures[k].length) - sounds.reduce((s, n) => s + toNumber(n.length), 0)) < 1e-9);
      assert.deepEqual(
        own.filter((n) => !n.tie?.stop).map((n) => [n.pitch!.step, n.pitch!.alter, n.pitch!.octave]),
        sounds.map((n) => [n.pitch.step, n.pitch.alter, n.pitch.octave])
      );
    });
  }
});

test('a long written-out ornament can be read: beamed in groups, its brackets say what they hold, its notes are counted', () => {
  const { score, found } = inPiece('M:6/4\nL:1/4\nQ:1/4=60\nK:C\n!trill!c3 d3|', 'classical');
  const document = ornamentStaff(score, found);
  const staff = readMusicXml(document);
  const written = staff.notes.filter((n) => !n.rest);
  assert.ok(written.length > 12);
  assert.match(document, new RegExp(`${found[0].place}: ${found[0].realisation.notes.length} notes`));
  // No beam and no bracket holds more than eight notes.
  const longest = (start: RegExp): number =>
    document
      .split(start)
      .slice(1)
      .reduce((most, piece) => Math.max(most, piece.split(/<beam number="1">end|<tuplet type="stop"/)[0].split('<note>').length), 0);
  assert.ok(longest(/<beam number="1">begin/) <= 8);
  for (const [, actual] of document.matchAll(/<actual-notes>(\d+)</g)) assert.ok(['3', '6'].includes(actual));
});

test('every ornament of the demo pieces is written out', () => {
  for (const name of ['etude.abc', 'andantino.abc', 'corrente.abc']) {
    const playable = playableOf(demo(name).score);
    const marked = playable.tones.filter((t) => t.graces.length || t.tone.note.marks?.some((m) => m.group === 'ornament')).length;
    assert.equal(ornamentsIn(playable.score, playable.facts, readingOf('classical'), 0, playable.score.measures.length - 1).length, marked);
  }
});
