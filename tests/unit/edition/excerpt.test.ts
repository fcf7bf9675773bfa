import assert from 'node:assert/strict';
import { test } from 'node:test';
import { excerptDocument, inForceAt } from '../../../src/core/edition/excerpt.ts';
import { add, eq, ZERO } from '../../../src/core/score/fraction.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { countedNumbers, findBar, isRenumberable, renumbered } from '../../../src/core/score/numbering.ts';
import { barLabel } from '../../../src/core/score/position.ts';
import { keyForPlayer } from '../../../src/core/analysis/key-words.ts';
import { abc, demo, open, sampleFiles } from '../helpers.ts';

test('an excerpt knows meter, key, clef, tempo and dynamic in force where it begins', () => {
  const { text, score } = demo('etude.abc');
  const excerpt = readMusicXml(excerptDocument(text, score, { from: 9, to: 11 }));
  assert.equal(excerpt.title, 'Étude No. 7 "Harbour Light", bars 10–12');
  assert.deepEqual(
    excerpt.measures.map((m) => m.number),
    ['10', '11', '12']
  );
  assert.equal(excerpt.measures[0].time!.text, '4/4');
  assert.equal(excerpt.measures[0].key.fifths, 1);
  assert.deepEqual(excerpt.parts[0].transpose, score.parts[0].transpose);
  const first = excerpt.directions.filter((d) => eq(d.start, ZERO));
  assert.ok(first.some((d) => d.kind === 'dynamic' && d.value === 'mf'));
  assert.ok(first.some((d) => d.kind === 'words' && d.text === '[poco più mosso]'));
  assert.deepEqual(
    excerpt.notes.map((n) => n.pitch),
    score.notes.filter((n) => n.measure >= 9 && n.measure <= 11).map((n) => n.pitch)
  );
});

test('what the first bar says itself is not said twice, and an excerpt from the beginning needs nothing', () => {
  const { text, score } = demo('etude.abc');
  assert.deepEqual(
    inForceAt(score, 12).map((x) => `${x.kind} ${x.text}`),
    ['tempo Andante espressivo', 'tempo quarter = 72', 'tempo poco più mosso'],
    'bar 13 has its own f'
  );
  const opening = excerptDocument(text, score, { from: 0, to: 3 });
  assert.equal(opening.match(/In force since/g), null);
});

test('after fp the softer level stays, after sf the level before', () => {
  const dynamic = (music: string) => inForceAt(abc(`M:4/4\nL:1/4\nK:C\n${music}`), 1).find((x) => x.kind === 'dynamic')?.text;
  assert.equal(dynamic('!fp!CDEF|GABc|'), 'p');
  assert.equal(dynamic('!mf!C!sf!DEF|GABc|'), 'mf');
  assert.equal(dynamic('CDEF|!p!GABc|'), undefined);
});

test('every real score can be cut anywhere: same notes, same keys and meters', () => {
  for (const path of sampleFiles()) {
    const { text, score } = open(path);
    if (score.measures.length < 4) continue;
    const from = Math.floor(score.measures.length / 3);
    const to = Math.min(score.measures.length - 1, from + 4);
    const cut = readMusicXml(excerptDocument(text, score, { from, to }));
    const own = score.notes.filter((n) => n.measure >= from && n.measure <= to);
    const byPart = (notes: typeof own) => [...notes].sort((a, b) => a.part - b.part).map((n) => [n.pitch, n.duration, n.sounding]);
    assert.deepEqual(byPart(cut.notes), byPart(own), path);
    cut.measures.forEach((m, k) => {
      assert.equal(m.key.fifths, score.measures[from + k].key.fifths, path);
      assert.equal(m.time?.text, score.measures[from + k].time?.text, path);
    });
    const total = (measures: typeof score.measures) => measures.reduce((sum, m) => add(sum, m.length), ZERO);
    assert.deepEqual(total(cut.measures), total(score.measures.slice(from, to + 1)), path);
  }
});

test('a range outside the piece is refused', () => {
  const { text, score } = demo('corrente.abc');
  assert.throws(() => excerptDocument(text, score, { from: 5, to: 500 }), ScoreError);
  assert.throws(() => excerptDocument(text, score, { from: 5, to: 4 }), ScoreError);
});

test('bars are counted with the upbeat uncounted and split bars as one, and the printed number stays known', () => {
  const { score } = demo('corrente.abc');
  const numbers = countedNumbers(score.measures);
  assert.deepEqual(numbers.slice(0, 3), ['0', '1', '2']);
  const shifted = { ...score, measures: score.measures.map((m) => ({ ...m, number: String(Number(m.number) + 40) })) };
  assert.ok(isRenumberable(shifted));
  const again = renumbered(shifted);
  assert.equal(again.measures[5].number, '5');
  assert.equal(again.measures[5].printed, shifted.measures[5].number);
  assert.equal(barLabel(again.measures, again.measures[5]), 'bar 5');
  assert.equal(findBar(again, '5'), 5);
  assert.equal(findBar(again, 'Z'), null);
});

// Every theory book: a B flat instrument reads a tone higher than it sounds, an A instrument a minor third, an F instrument a fifth.
test('keys as a transposing player reads them', () => {
  const e = { tonic: 4, minor: true };
  assert.equal(keyForPlayer(e, { diatonic: -1, chromatic: -2 }), 'F♯ minor');
  assert.equal(keyForPlayer(e, { diatonic: -2, chromatic: -3 }), 'G minor');
  assert.equal(keyForPlayer({ tonic: -2, minor: false }, { diatonic: -4, chromatic: -7 }), 'F major');
  assert.equal(keyForPlayer(e, { diatonic: 0, chromatic: 0 }), 'E minor');
});
