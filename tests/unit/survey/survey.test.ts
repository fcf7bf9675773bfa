import { format } from '../../../src/core/score/fraction.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { countLine, countText } from '../../../src/core/survey/count-line.ts';
import { survey } from '../../../src/core/survey/survey.ts';
import { lookUp, TERM_COUNT } from '../../../src/core/style/terms/lookup.ts';
import { clicks, METRONOME_SCALE, onScaleBelow } from '../../../src/core/style/tempo-words.ts';
import { abc, attributes, demo, note, open, sample, xml } from '../helpers.ts';

const lines = (score: Score, group: string) => survey(score, analyse(score)).groups.find((g) => g.title.startsWith(group))?.lines ?? [];
const line = (score: Score, group: string, label: string) => lines(score, group).find((l) => l.label === label);

test('the first look at the étude', () => {
  const { score } = demo('etude.abc');
  assert.equal(line(score, 'Range', 'Clarinet in B flat')?.value, 'D♯4 to C6 written: one octave and a seventh');
  assert.equal(line(score, 'Range', 'Clarinet in B flat, sounding')?.value, 'C♯4 to B♭5');
  assert.equal(line(score, 'Range', 'Clarinet in B flat, highest')?.value, 'C6');
  assert.equal(line(score, 'Dynamics', 'Range')?.value, 'pp to ff');
  assert.deepEqual(line(score, 'Dynamics', 'Loudest')?.bars, [15]);
  assert.ok(lines(score, 'Terms').some((l) => l.label === 'morendo' && l.value.includes('dying away') && l.bars[0] === 25));
  assert.deepEqual(line(score, 'Ornaments', 'turn')?.bars, [7, 21, 23]);
  assert.ok(lines(score, 'Plan').some((l) => l.label === 'Meter' && l.value === 'free meter' && l.bars[0] === 17));
});

test('a transposing player is told the key as it is written', () => {
  const key = line(demo('etude.abc').score, 'What it is', 'Key');
  assert.match(key!.value, /^D minor, which is E minor for this player/);
  const instrument = line(demo('etude.abc').score, 'What it is', 'Instrument');
  assert.match(instrument!.value, /sounds a major second lower than written/);
});

test('what is not printed is said to be missing, and what is carried is named', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n^F F G A|');
  assert.equal(line(score, 'Dynamics', 'Range')?.value, 'no dynamic is printed');
  assert.equal(line(score, 'Accidentals', 'Carried through the bar')?.value, 'F♯4');
  assert.ok(line(score, 'Unusual', 'No tempo'));
});

test('the ledger names what is likely to be missed, and not what is plain', () => {
  const far = abc('M:4/4\nL:1/8\nK:C\n^FGAB cdeF|F8|');
  assert.equal(line(far, 'Accidentals', 'Likely to be missed')?.value, 'F♯4, carried past 6 notes');
  assert.equal(line(far, 'Accidentals', 'Taken back by the bar line')?.value, 'F4');
  const near = abc('M:4/4\nL:1/8\nK:C\n^FF AB cde=f|=F8|');
  assert.equal(line(near, 'Accidentals', 'Likely to be missed'), undefined);
  assert.equal(line(near, 'Accidentals', 'Taken back by the bar line'), undefined);
  const odd = abc('M:4/4\nL:1/4\nK:C\n_c ^^f ^B d|');
  assert.deepEqual(
    lines(odd, 'Accidentals')
      .filter((l) => l.label === 'Likely to be missed')
      .map((l) => l.value),
    ['C♭5, C♭ is a white key under another name', 'F♯♯5, double accidental', 'B♯4, B♯ is a white key under another name']
  );
});

test('meters and how they are counted', () => {
  const of = (score: Score) => line(score, 'Plan', 'Meter')?.value;
  assert.match(of(abc('M:6/8\nL:1/8\nQ:3/8=80\nK:C\nCDE FGA|'))!, /felt in 2 dotted quarters/);
  assert.match(of(abc('M:2/4\nL:1/8\nQ:1/8=84\nK:C\nCD EF|'))!, /counted in 4 eighths, because the beat is slow/);
  assert.match(of(abc('M:4/4\nL:1/32\nQ:1/4=60\nK:C\nCDEFGABc CDEFGABc C8 D8|'))!, /counted in 8 eighths while it is learned/);
  assert.match(of(abc('M:C|\nL:1/4\nK:C\nCDEF|'))!, /alla breve/);
});

test('the groups of an additive meter are read bar by bar, or taken from the signature', () => {
  const score = abc('M:5/8\nL:1/8\nK:C\nC2 D3|C3 D2|C2 D3|');
  assert.deepEqual(
    lines(score, 'Plan')
      .filter((l) => l.label === '5/8 grouped')
      .map((l) => [l.value, l.bars]),
    [
      ['2+3, in 2 bars', [0, 2]],
      ['3+2, in 1 bar', [1]]
    ]
  );
  const written = xml(
    attributes('<time><beats>3+2</beats><beat-type>8</beat-type></time>', 2) +
      ['C4', 'D4', 'E4', 'F4', 'G4'].map((n) => note(n, 1)).join('')
  );
  assert.equal(line(written, 'Plan', '3+2/8 grouped')?.value, '3+2, in 1 bar');
  assert.equal(line(abc('M:4/4\nL:1/4\nK:C\nCDEF|'), 'Plan', '4/4 grouped'), undefined);
});

// Counting as teachers do it: handbook 1.6, common practice.
test('a count line marks entries, with ties undone', () => {
  const of = (score: Score, bar = 0) => countText(countLine(score, score.measures[bar], 0));
  assert.equal(of(abc('M:4/4\nL:1/8\nK:C\nC2 CC z2 C>C|')), '1 2 & (3) 4 (e) (&) a');
  assert.equal(of(abc('M:2/4\nL:1/16\nK:C\nCDEF (3G2A2B2|')), '1 e & a 2 trip let');
  assert.equal(of(abc('M:2/4\nL:1/4\nK:C\nC2-|C C|'), 1), '(1) 2');
  assert.equal(of(abc('M:3/4\nL:1/4\nK:C\nG|C D E|')), '3');
  assert.equal(of(abc('M:5/8\nL:1/8\nK:C\nC2 D3|')), '1 (2) 1 (2) (3)', 'groups count from one');
  assert.equal(of(abc('M:5/4\nL:1/4\nK:C\nC3 D2|')), '1 (2) (3) 1 (2)');
  assert.equal(of(abc('M:6/8\nL:1/8\nK:C\nC3 D2E|')), '1 (2) (3) 4 (5) 6', 'compound meters in the counts that players say');
  assert.equal(of(abc('M:4/4\nL:1/8\nK:C\nG|C2D2E2F2|')), '&', 'an upbeat by its place in the bar');
  // Handbook 1.7: the triplet begins exactly on the fourth eighth.
  const mixed = abc('M:2/4\nL:1/16\nK:C\nCDEF GA(3GAB|');
  assert.equal(of(mixed), '1 e & a 2 e & trip let');
  assert.equal(format(countLine(mixed, mixed.measures[0], 0)[6].onset), '3/2');
});

test('tempo marks on the scale, tempo words, and the playing time with repeats', () => {
  const score = abc('M:4/4\nL:1/4\nQ:"Allegro" 1/4=120\nK:C\n|:CDEF|CDEF:|');
  assert.equal(line(score, 'Tempo', 'quarter = 120')?.value, '120 quarters a minute');
  assert.match(line(score, 'Tempo', '“Allegro”')!.value, /usually 116 to 152/);
  assert.equal(line(score, 'Tempo', 'Playing time')?.value, '8 s');
  const range = xml(
    attributes() +
      '<direction><direction-type><metronome><beat-unit>half</beat-unit><per-minute>60-72</per-minute></metronome></direction-type></direction>' +
      note('C4', 16)
  );
  assert.match(line(range, 'Tempo', 'half = 60-72')!.value, /^120 to 144 quarters/);
});

// Handbook 1.2: three clicks under 120 is 108.
test('the metronome scale and its clicks', () => {
  assert.equal(clicks(120, -3), 108);
  assert.equal(onScaleBelow(107.1), 104);
  assert.equal(METRONOME_SCALE.length, 39);
  assert.ok(METRONOME_SCALE.every((r, k) => k === 0 || r > METRONOME_SCALE[k - 1]));
});

test('rhythms that need care are located, plain ones raise nothing', () => {
  const score = abc('M:4/4\nL:1/8\nK:C\nC>D E2 (3CDE F2|C D2 E2 F2 G|z C C2 C4-|C8|');
  const labels = Object.fromEntries(lines(score, 'Rhythms').map((l) => [l.label, l.bars]));
  assert.deepEqual(labels['dotted figures beside triplets: 3 to 1 against 2 to 1'], [0]);
  assert.deepEqual(labels['syncopations'], [1]);
  assert.deepEqual(labels['entries after rests off the beat'], [2]);
  assert.deepEqual(labels['ties into strong beats'], [3]);
  assert.deepEqual(lines(abc('M:4/4\nL:1/4\nK:C\nCDEF|C2D2|'), 'Rhythms'), []);
  const poly = abc('M:2/4\nL:1/8\n%%score {A B}\nV:A\nV:B\nK:C\nV:A\n(3CDE (3FGA|\nV:B\nCD EF|');
  assert.deepEqual(lines(poly, 'Rhythms').find((l) => l.label === 'different divisions at once')?.bars, [0]);
});

test('cautions come up for high brass, wide stretches and loudness, and the usual one always', () => {
  const brass = abc("M:4/4\nL:1/4\nK:C\nV:1 name=\"Trumpet\"\nV:1\n!fff!c'd'e'f'|");
  const labels = lines(brass, 'Care').map((l) => l.label);
  assert.deepEqual(labels, ['High for brass', 'Loud', 'Always']);
  const piano = abc('M:4/4\nL:1/1\nK:C\nV:1 name="Piano"\nV:1\n[Cf]|[Cc]|');
  assert.deepEqual(lines(piano, 'Care').find((l) => l.label.startsWith('More'))?.bars, [0]);
  assert.deepEqual(
    lines(abc('M:4/4\nL:1/4\nK:C\nCDEF|'), 'Care').map((l) => l.label),
    ['Always']
  );
});

test('real scores by other programs are surveyed whole, each line with an id of its own', () => {
  for (const name of ['BeetAnGeSample.xml', 'MozartTrio.xml', 'Chant.xml', 'Saltarello.xml']) {
    const { score } = open(sample(name));
    const all = survey(score, analyse(score)).groups.flatMap((g) => g.lines);
    assert.ok(all.length > 15, name);
    assert.equal(new Set(all.map((l) => l.id)).size, all.length, name);
    for (const l of all) for (const bar of l.bars) assert.ok(score.measures[bar], `${name}: ${l.id}`);
  }
});

test('the dictionary knows at least 400 terms in four languages, abbreviations and phrases', () => {
  assert.ok(TERM_COUNT >= 400, String(TERM_COUNT));
  const of = (text: string) => lookUp(text).terms.map((t) => t.term);
  assert.deepEqual(of('Allegro ma non troppo'), ['allegro', 'ma', 'non troppo']);
  assert.deepEqual(of('poco rit.'), ['poco', 'ritardando']);
  assert.deepEqual(of('Sehr langsam und zart'), ['sehr', 'langsam', 'zart']);
  assert.deepEqual(of('très lent, en dehors'), ['très', 'lent', 'en dehors']);
  assert.deepEqual(lookUp('wibbly dolce'), { terms: lookUp('dolce').terms, unknown: ['wibbly'] });
});

test('an unknown word is asked of the teacher', () => {
  const score = abc('M:4/4\nL:1/4\nK:C\n"^wibbly"C "^dolce"D E F|');
  assert.equal(line(score, 'Terms', 'wibbly')?.ask, true);
  assert.equal(line(score, 'Terms', 'dolce')?.ask, undefined);
});

test('names that a source sets in several lines are read as one, and a tempo over every part of a score is one tempo', () => {
  const marks =
    '<direction><direction-type><words>Moderato</words></direction-type></direction><direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>84</per-minute></metronome></direction-type></direction>';
  const part = (id: string) => `<part id="${id}"><measure number="1">${attributes()}${marks}${note('C4', 16)}</measure></part>`;
  const score = readMusicXml(
    `<score-partwise version="4.0"><work><work-title>A long\n  title</work-title></work><part-list><score-part id="A"><part-name>Horns\n1, 2</part-name></score-part><score-part id="B"><part-name>Tuba</part-name></score-part></part-list>${part('A')}${part('B')}</score-partwise>`
  );
  assert.deepEqual([score.title, score.parts[0].name], ['A long title', 'Horns 1, 2']);
  assert.deepEqual(
    lines(score, 'Tempo').map((l) => l.label),
    ['quarter = 84', '“Moderato”', 'Playing time', 'By the tempo word alone']
  );
});
