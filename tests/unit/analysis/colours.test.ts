import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse, factsOf, openAnalysis } from '../../../src/core/analysis/analyse.ts';
import { againstMeter, harmonicRhythmFacts } from '../../../src/core/analysis/harmonic-rhythm.ts';
import { plainChord } from '../../../src/core/analysis/plain-chord.ts';
import { findSuspects } from '../../../src/core/analysis/suspects.ts';
import { chordPair, midiOf } from '../../../src/core/edition/chord-pair.ts';
import { voiceRow } from '../../../src/core/edition/rows.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { measureAt, positionAt } from '../../../src/core/score/position.ts';
import { abc, demo } from '../helpers.ts';

const piano = (key: string, treble: string, bass: string) =>
  abc(`M:4/4\nL:1/4\n%%score {S B}\nV:S\nV:B clef=bass\nK:${key}\nV:S\n${treble}\nV:B\n${bass}`);
const cadences = (score: ReturnType<typeof abc>) => analyse(score).cadences.map((c) => `${positionAt(score, c.start).number} ${c.type}`);

// Caplin, Classical Form, 1998, ch. 1 and 8: what follows over a tonic pedal comes after the cadence.
test('a dominant over the tonic held below has its own position and makes no close', () => {
  const held = piano('C', '[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]4|[FAc]2[FGB]2|[EGc]2[DFB]2|[EGc]4|]', 'C,2F,2|G,2G,,2|C,4|C,4|C,4|C,4|]');
  assert.deepEqual(cadences(held), ['3 PAC']);
  const over = analyse(held).chords.filter((c) => c.pedal);
  assert.deepEqual([...new Set(over.map((c) => `${c.roman} ${c.bass}`))], ['V7 C']);
  assert.match(over[0].evidence, /over C held below/);
});

test('a bass that rises from the fifth to the root on a strong beat is no six-four', () => {
  const upbeat = piano('C', '[EGc]4|[DFB]2[EGc]2|[EGc]4|[DFB]4|[EGc]4|]', 'C,4|G,2G,2|C,4|G,4|C,4|]');
  assert.ok(!analyse(upbeat).chords.some((c) => c.roman === 'V64' && positionAt(upbeat, c.start).number === '2'));
});

// Definitions: Caplin, Classical Form, 1998, ch. 8.
test('an evaded cadence is said, and the close that makes it good', () => {
  const evaded = piano('C', '[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]4|]', 'C,2F,2|G,2G,2|E,2F,2|G,2G,2|C,4|]');
  assert.deepEqual(cadences(evaded), ['3 EC', '5 PAC']);
  const led = piano('C', '[EGc]2[FAd]2|[EGc]2[DFB][DFB]|[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]4|]', 'C,2F,2|G,2G,F,|E,2F,2|G,2G,2|C,4|]');
  assert.ok(cadences(led).includes('3 EC'), 'the dominant may pass through its seventh in the bass');
  // Without a close that follows, a dominant to a sixth chord is none.
  const none = piano('C', '[EGc]2[FAd]2|[EGc]2[DFB]2|[EGc]2[FAc]2|[EGc]2[FAc]2|[EGc]4|]', 'C,2F,2|G,2G,2|E,2F,2|C,2F,2|C,4|]');
  assert.ok(!cadences(none).some((c) => c.endsWith('EC')), cadences(none).join());
});

test('beside a chord of colour stands the plain one, named by what differs', () => {
  const facts = analyse(
    piano('Cm', '[EGc]2[FAc]2|[EGc]2[FA_d]2|[DG=B]4|[CEG]2[CE_A]2|[C^FA]2[=B,DG]2|[EGc]4|]', 'C,2F,2|C,2F,2|G,4|C,2_A,,2|_A,,2G,,2|C,4|]')
  );
  const plain = Object.fromEntries(facts.chords.map((c) => [c.roman, plainChord(c)]));
  assert.equal(plain.i, null);
  assert.equal(plain.V, null, 'the leading note of minor is at home');
  assert.equal(plain.N6?.words, 'D♭ where the scale has D');
  assert.equal(plain.N6?.roman, 'iio6');
  assert.deepEqual(
    [plain.N6?.coloured, plain.N6?.plain],
    [
      ['F', 'Ab', 'Db'],
      ['F', 'Ab', 'D']
    ]
  );
  assert.equal(plain.It6?.words, 'F♯ where the scale has F');
  assert.equal(plain.It6?.roman, 'iv6');
  const major = analyse(piano('C', '[EGc]2|[^FAd][FAc]|[GBd]2|[EGc]2|', 'C,2|D,D,|G,2|C,2|')).chords.find((c) => c.applied)!;
  assert.match(plainChord(major)!.words, /^F♯ where the scale has F$/);
  assert.match(plainChord(major)!.roman, /^ii/);
  assert.equal(plainChord(major, 'lydian'), null, 'in a mode those notes are the scale’s own');
});

test('the two chords are engraved as a score of two bars and sound as they are spelled', () => {
  const pair = { roman: 'iio6', plain: ['F', 'Ab', 'D'], coloured: ['F', 'Ab', 'Db'], words: '' };
  const score = readMusicXml(chordPair(pair));
  assert.deepEqual(score.measures.length, 2);
  assert.deepEqual(midiOf(pair.plain), [65, 68, 74]);
  assert.deepEqual(midiOf(pair.coloured), [65, 68, 73]);
  assert.deepEqual(
    score.notes.filter((n) => n.measure === 1).map((n) => n.accidental ?? ''),
    ['', 'flat', 'flat']
  );
});

test('harmony against the meter is one line for bars that do alike', () => {
  const score = piano('C', '[EGc]2[EGc][FAc]|[FAc]2[FAc][DGB]|[DGB]2[DGB][EGc]|[EGc]4|', 'C,2C,F,|F,2F,G,|G,2G,C,|C,4|');
  const facts = analyse(score);
  assert.deepEqual(againstMeter(score, harmonicRhythmFacts(score, facts), 0, 3), [
    'bars 1–2: the chord changes on the fourth beat and stays over the bar line'
  ]);
  assert.deepEqual(againstMeter(score, harmonicRhythmFacts(score, facts), 3, 3), []);
});

test('falling fifths of plain chords are a sequence without a motive; a close of four chords is none', () => {
  const falling = piano(
    'C',
    '[EGc]4|[FAc]3[FAf]|[FBd]2[dfb]2|[GBe]4|[Ace][ceA]2[Ace]|[Adf]4|[GBd]3[GBg]|[EGc]4|]',
    'C,4|F,2A,2|B,,3D,|E,4|A,,2C,2|D,3F,|G,,2B,,2|C,4|]'
  );
  const found = analyse(falling).sequences.filter((s) => s.kind === 'descending fifths');
  assert.equal(found.length, 1);
  assert.equal(measureAt(falling, found[0].start).number, '1');
  assert.match(found[0].evidence, /chords, each a fifth below/);
  const close = piano('C', '[EGc]4|[Ace]4|[Adf]4|[GBd]4|[EGc]4|]', 'C,4|A,,4|D,4|G,,4|C,4|]');
  assert.deepEqual(analyse(close).sequences, []);
});

test('a leading note that its own chord asks for is no suspect; the same note where nothing asks for it is', () => {
  const bars = (third: string) =>
    piano(
      'C',
      `c2e2|d2${third}2|g2f2|e2c2|c2e2|d2f2|g2f2|e4|`,
      `[C,E,G,]4|[D,${third === '^f' ? '^F,' : 'F,'}A,C]4|[G,,B,,D,]4|[C,E,G,]4|[C,E,G,]4|[D,F,A,C]4|[G,,B,,D,]4|[C,E,G,]4|`
    );
  const suspects = (score: ReturnType<typeof abc>) => {
    const analysis = openAnalysis(score);
    return findSuspects(score, analysis.sounding, factsOf(analysis));
  };
  assert.deepEqual(suspects(bars('^f')), []);
});

test('one note that differs among many that do not is a question, though it fits its key', () => {
  // A passing note, so that no chord speaks for either; both stand in the scale of the minor key.
  const theme = (passing: string) => `A2c2 e2c2|f2a${passing} f2c2|d2f2 a2f2|e2c2 A4|`;
  const score = abc(`M:4/4\nL:1/8\nK:Am\n${theme('g')}_B2d2 f2d2|c2e2 g4|E2^G2 B2d2|A8|${theme('^g')}`);
  const analysis = openAnalysis(score);
  const suspects = findSuspects(score, analysis.sounding, factsOf(analysis));
  assert.equal(suspects.length, 1);
  assert.match(suspects[0].evidence, /G♯5 where bar/);
});

test('voices of a line are told by a sign as well', () => {
  const { score } = demo('corrente.abc');
  const analysis = openAnalysis(score);
  const ids = analysis.sounding.tones.slice(0, 3).map((t) => t.note.id);
  const streams = [{ start: score.notes[0].start, end: score.notes[3].start, streams: [{ name: 'upper' as const, notes: ids }] }];
  const rows = voiceRow(score, streams as unknown as Parameters<typeof voiceRow>[1]);
  assert.deepEqual(
    rows.map((r) => r.text),
    ['˄', '˄', '˄']
  );
  assert.ok(rows.every((r) => r.row === 'voices'));
});

test('in a decorated return the half step that decorates is no misprint, the one that stands for a note is', () => {
  const suspectsWith = (bar: string) => {
    const score = abc(
      `M:4/4\nL:1/8\nK:G\nG2A2B2c2|d2B2G2B2|c2e2d2c2|B2A2A4|G2A2B2c2|d2B2G2d2|e2c2A2F2|G8|e2e2f2g2|a2f2d2f2|g2e2c2e2|d2c2B2A2|GAGA B2cB|dcBA G2B2|${bar}|B2A2A4|G2A2BAGB|d2B2G2d2|edcB A2F2|G8|]`
    );
    const analysis = openAnalysis(score);
    return findSuspects(score, analysis.sounding, factsOf(analysis)).map((s) => s.evidence);
  };
  assert.deepEqual(suspectsWith('cdef d^cdc'), []);
  assert.deepEqual(suspectsWith('cdef dc_dc'), []);
  assert.deepEqual(suspectsWith('^cdef d2c2'), ['bar 15 has C♯5 where bar 3, the same music, has C5']);
});
