import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse, openAnalysis } from '../../../src/core/analysis/analyse.ts';
import { closest, contentOf } from '../../../src/core/analysis/content.ts';
import { keyAsRead, toldKey } from '../../../src/core/analysis/key-words.ts';
import { noteRoles } from '../../../src/core/analysis/note-roles.ts';
import { soundingScore } from '../../../src/core/analysis/sounding-score.ts';
import { readChordSymbol } from '../../../src/core/score/chord-symbol.ts';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { abc } from '../helpers.ts';
import { AGREED } from './agreed.ts';
import { recall, scorePiece, type Tally } from './scorer.ts';
import { BLUES, FRESH, LEAD_SHEETS, MODAL, WITHOUT, type World } from './worlds.ts';

/** Shares of time in the right key and under the right chord, and of pieces called what they are; by half of the set. */
function reached(half: readonly World[]) {
  const total: Record<'keys' | 'chords', Tally> = {
    keys: { right: 0, wanted: 0, claimed: 0 },
    chords: { right: 0, wanted: 0, claimed: 0 }
  };
  let named = 0;
  for (const w of half) {
    const own = scorePiece(w);
    for (const kind of ['keys', 'chords'] as const) {
      total[kind].right += own[kind]?.right ?? 0;
      total[kind].wanted += own[kind]?.wanted ?? 0;
    }
    const facts = analyse(w.score());
    if (facts.keys.every((k) => (k.tonality ?? null) === w.tonality)) named++;
  }
  return { keys: recall(total.keys), chords: recall(total.chords), named: named / half.length };
}

for (const tuned of [true, false]) {
  const half = tuned ? 'tuned half' : 'other half';
  const of = (set: readonly World[]) => set.filter((w) => w.tuned === tuned);
  test(`chord symbols: roots, kinds and keys of lead sheets (${half})`, () => {
    const { keys, chords, named } = reached(of(LEAD_SHEETS));
    assert.ok(chords >= 0.98, `chords ${chords}`);
    assert.ok(keys >= 0.98, `keys ${keys}`);
    assert.equal(named, 1);
  });

  test(`twelve-bar blues on the printed tonic: I7 IV7 V7 (${half})`, () => {
    const { keys, chords, named } = reached(of(BLUES));
    assert.equal(keys, 1);
    assert.ok(chords >= 0.92, `chords ${chords}`);
    assert.equal(named, 1);
  });

  test(`modes with their final, and tunes on five notes (${half})`, () => {
    const { keys, named } = reached(of(MODAL));
    assert.ok(keys >= 0.98, `keys ${keys}`);
    assert.ok(named >= 0.98, `named ${named}`);
  });

  test(`music without a key is given none, no numerals and no cadences (${half})`, () => {
    const set = WITHOUT.filter((w) => w.tuned === tuned);
    let none = 0;
    for (const w of set) {
      const facts = analyse(w.score());
      if (!facts.keys.every((k) => k.tonality === 'none')) continue;
      none++;
      assert.ok(facts.keys.every((k) => k.confidence <= 0.5));
      assert.deepEqual([facts.chords, facts.cadences], [[], []], w.name);
    }
    assert.ok(none / set.length >= 0.9, `${none} of ${set.length}`);
  });
}

test('pieces made when all numbers stood: lead sheets, blues, modes, music without a key', () => {
  const sheets = reached(FRESH.leadSheets);
  assert.ok(sheets.chords >= 0.97 && sheets.keys >= 0.98, JSON.stringify(sheets));
  const blues = reached(FRESH.blues);
  assert.ok(blues.chords >= 0.95 && blues.keys === 1 && blues.named === 1, JSON.stringify(blues));
  const modal = reached(FRESH.modal);
  assert.ok(modal.keys === 1 && modal.named === 1, JSON.stringify(modal));
  // Single lines of few notes can be taken for tonal: three of the five are.
  const none = FRESH.without.filter((w) => analyse(w.score()).keys.every((k) => k.tonality === 'none'));
  assert.ok(none.length >= 12, `${none.length} of ${FRESH.without.length}`);
});

test('no tonal piece of the agreed set is called modal, blues or keyless', () => {
  for (const piece of AGREED)
    assert.ok(
      analyse(piece.score()).keys.every((k) => !k.tonality),
      piece.name
    );
});

test('a stretch without a key between tonal ones is told as such, and a key that the instructor sets there holds', () => {
  const tonal = '[C,EGc]4 [F,FAc]4|[G,FGB]4 [C,EGc]4|';
  const row = "e2_b2=b2_e2|^f2c'2^c2=a2|_A2=f2=d2^g2|=b2_e2=e2_b2|^f2=c2_a2=d2|_e2=b2^c2=g2|=f2_b2=e2^f2|=a2_d2_b2=e2|";
  const text = `M:4/4\nL:1/8\nK:C\n${tonal.repeat(6)}${row.repeat(2)}${tonal.repeat(6)}`;
  const score = abc(text);
  const facts = analyse(score);
  assert.deepEqual(
    facts.keys.map((k) => k.tonality ?? k.name),
    ['C major', 'none', 'C major']
  );
  const [, none] = facts.keys;
  assert.ok(toNumber(none.end) - toNumber(none.start) >= 40);
  assert.ok(facts.chords.every((c) => toNumber(c.end) <= toNumber(none.start) || toNumber(c.start) >= toNumber(none.end)));
  assert.match(none.evidence, /twelve notes/);
  const analysis = openAnalysis(score);
  const roles = new Map(noteRoles(analysis.sounding, facts).map((r) => [r.note, r.role]));
  const inside = score.notes.filter((n) => toNumber(n.start) > toNumber(none.start) + 8 && toNumber(n.start) < toNumber(none.end) - 8);
  assert.ok(inside.length > 20);
  assert.ok(
    inside.every((n) => roles.get(n.id) === 'free'),
    'no chord, so no chord tones'
  );
  const pinned = analyse(score, [{ id: 'p', kind: 'key', start: none.start, end: none.end, key: 'E minor' }]);
  assert.ok(pinned.keys.every((k) => k.tonality !== 'none'));
});

test('content in plain words: collections, centres, intervals and what sounds together', () => {
  const of = (text: string) => {
    const sounding = soundingScore(abc(`M:4/4\nL:1/4\nK:C\n${text}`));
    return contentOf(sounding.tones, sounding.slots);
  };
  assert.equal(of('C D E ^F|^G ^A c ^F|').collection, 'a whole-tone scale');
  assert.equal(of('C _D _E =E|_G =G =A _B|').collection, 'an octatonic scale, semitones and whole tones in turn');
  const fourths = of('[CF_B]2 [DGc]2|[EAd]4|');
  assert.deepEqual(fourths.sets[0], { name: 'two fourths', count: 3 });
  assert.equal(of('C4|c4|C4|_B2 C2|').centres[0], 'C');
  assert.equal(of('C _D C _D|C _D C _D|').intervals[0].name, 'semitones');
  // Normal order of C E G: Forte, The Structure of Atonal Music, 1973.
  assert.deepEqual(closest([7, 0, 4]), [4, 3]);
});

test('chord symbols are read in their usual spellings; the kind of MusicXML outweighs the text', () => {
  const kind = (text: string, value?: string) => readChordSymbol(text, value)?.kind;
  const spelled: [string, string][] = [
    ['C', 'maj'],
    ['Cm', 'min'],
    ['C-7', 'min7'],
    ['Cmin7b5', 'hdim7'],
    ['Cø', 'hdim7'],
    ['C△', 'maj7'],
    ['Cmaj9', 'maj7'],
    ['CmMaj7', 'min'],
    ['C°7', 'dim7'],
    ['Cdim', 'dim'],
    ['C13', 'dom7'],
    ['C7sus4', 'dom7'],
    ['C+', 'aug'],
    ['C6', 'maj'],
    ['Csus', 'maj']
  ];
  for (const [text, expected] of spelled) assert.equal(kind(text), expected, text);
  assert.equal(kind('C', 'minor-seventh'), 'min7');
  assert.equal(kind('N.C.'), undefined);
  assert.deepEqual(readChordSymbol('B♭7/D'), { root: -2, kind: 'dom7', bass: 2 });
});

test('a symbol decides root, kind, bass and boundary over the notes; it stands with its chord', () => {
  // The notes alone are C major throughout.
  const facts = analyse(abc('M:4/4\nL:1/4\nK:C\n"Am7"C E G E|"D7/F#"C E G E|"G"C E G E|"C"C4|]'));
  assert.deepEqual(
    facts.chords.map((c) => [c.symbol, c.roman, c.bass]),
    [
      ['Am7', 'vi7', 'A'],
      ['D7/F#', 'V65/V', 'F#'],
      ['G', 'V', 'G'],
      ['C', 'I', 'C']
    ]
  );
});

test('keys are named as musicians do, transposed for the player', () => {
  const key = { tonic: 2, minor: true };
  assert.equal(toldKey({ key, tonality: 'dorian' }), 'D dorian');
  assert.equal(toldKey({ key: { tonic: -1, minor: false }, tonality: 'blues' }), 'blues in F');
  assert.equal(toldKey({ key, tonality: 'none' }), 'no key');
  assert.equal(toldKey({ key }), 'D minor');
  assert.equal(keyAsRead({ key, tonality: 'dorian' }, { diatonic: -1, chromatic: -2 }), 'E dorian (sounding D dorian)');
});
