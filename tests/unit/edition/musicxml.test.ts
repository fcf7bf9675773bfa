import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { editionMusicXml } from '../../../src/core/edition/musicxml.ts';
import { isSpan, valuesOf } from '../../../src/core/markings/describe.ts';
import { MARKING_KINDS } from '../../../src/core/markings/marking-kind.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { placesIn } from '../../../src/core/reading/moments.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { frac, toNumber } from '../../../src/core/score/fraction.ts';
import { openScore } from '../../../src/core/score/read-file.ts';
import { demo, open, sample, sampleFiles } from '../helpers.ts';
import { schemaErrors } from './schema.ts';

/** One marking of every kind and value, spread over a score. */
function everyMarking(score: Score): Marking[] {
  const places = placesIn(score, 0, 0, score.measures.length - 1).filter((p) => p.note);
  const markings: Marking[] = [];
  for (const kind of MARKING_KINDS) {
    for (const value of valuesOf(kind) ?? [
      kind === 'metronome' ? 'quarter. = 96' : kind === 'fingering' ? '3' : kind === 'emendation' ? 'F#4' : 'più & <mosso>'
    ]) {
      const k = (markings.length * 2) % (places.length - 4);
      const place = places[k];
      const later = places[k + 3];
      const marking: Marking = {
        id: `m${markings.length}`,
        kind,
        value,
        part: 0,
        staff: place.staff,
        start: place.start,
        note: place.note,
        because: [{ text: 'A "reason" <here> & there.' }]
      };
      if (isSpan(kind))
        Object.assign(
          marking,
          later.staff === place.staff ? { end: later.start, endNote: later.note } : { end: place.start, endNote: place.note }
        );
      markings.push(marking);
    }
  }
  return markings;
}

/** What of a document stands in the source, markings taken away again by their level. */
const withoutEditorial = (text: string): string =>
  text
    .replace(/<direction\b[^>]*>(?:(?!<\/direction>).)*<level bracket="yes">editorial<\/level>(?:(?!<\/direction>).)*<\/direction>/gs, '')
    .replace(
      /<notations>(?:<footnote>[^<]*<\/footnote>)?<level bracket="yes">editorial<\/level>(?:(?!<\/notations>).)*<\/notations>/gs,
      ''
    );

const module = await createVerovioModule();
enableLog(LOG_OFF, module);

test('without markings the same document comes out, for every sample', () => {
  for (const file of sampleFiles()) {
    const { text, score } = open(file);
    assert.equal(editionMusicXml(text, score, []), text);
  }
});

test('every kind of marking: the source stays whole, and exactly the markings are added', () => {
  for (const name of ['Telemann.xml', 'BeetAnGeSample.xml', 'FaurReveSample.xml', 'MozartTrio.xml', 'Dichterliebe01.xml']) {
    const { text, score } = open(sample(name));
    const markings = everyMarking(score);
    const out = editionMusicXml(text, score, markings);
    assert.equal(withoutEditorial(out), text, name);
    const again = readMusicXml(out);
    assert.equal(again.notes.length, score.notes.length, name);
    assert.deepEqual(
      again.measures.map((m) => m.length),
      score.measures.map((m) => m.length),
      name
    );
    const levels = out.match(/<footnote>/g)!.length - (text.match(/<footnote>/g) ?? []).length;
    assert.equal(levels, markings.filter((m) => !isSpan(m.kind) || m.end !== m.start).length, name);
    const count = (s: Score, kind: string) => s.directions.filter((d) => d.kind === kind).length;
    assert.equal(count(again, 'dynamic') - count(score, 'dynamic'), valuesOf('dynamic')!.length, name);
    assert.equal(again.hairpins.length - score.hairpins.length, 2, name);
    assert.equal(again.slurs.length - score.slurs.length, 1, name);
  }
});

test('moved markings of every kind still make a document that is valid', async () => {
  const { text, score } = open(sample('Telemann.xml'));
  const moved = everyMarking(score).map((m, k): Marking => ({ ...m, placing: { side: k % 2 ? 'above' : 'below', right: 1.5, up: -2 } }));
  const out = editionMusicXml(text, score, moved);
  assert.deepEqual(await schemaErrors(out), []);
  const dynamic = moved.find((m) => m.kind === 'dynamic')!;
  assert.match(
    out,
    new RegExp(`<direction placement="${dynamic.placing!.side}"><direction-type><dynamics relative-x="15" relative-y="-20">`)
  );
  assert.ok(!/<wedge type="stop"[^>]*relative/.test(out));
});

test('markings come back at their moment with their reason', () => {
  const { text, score } = demo('etude.abc');
  const markings = propose(studyOf(score), 'romantic').map((p, k): Marking => ({ ...p.marking, id: `m${k}` }));
  const out = editionMusicXml(text, score, markings);
  const again = readMusicXml(out);
  for (const m of markings.filter((x) => x.kind === 'dynamic')) {
    assert.ok(again.directions.some((d) => d.kind === 'dynamic' && d.value === m.value && d.start.n * m.start.d === m.start.n * d.start.d));
  }
  for (const m of markings)
    assert.ok(
      out.includes(
        m.because[0].text
          .replace(/“|”/g, (c) => c)
          .split('.')[0]
          .replace(/&/g, '&amp;')
      ),
      m.because[0].text
    );
});

test('exports of the demo pieces in three periods validate and are loaded by Verovio', async () => {
  for (const name of ['corrente.abc', 'andantino.abc', 'etude.abc']) {
    const { text, score } = demo(name);
    assert.deepEqual(await schemaErrors(text), [], `${name}, the source`);
    const facts = analyse(score);
    // The periods whose proposals differ most in kind; a schema takes a second each time.
    for (const period of ['baroque', 'romantic', 'swing'] as const) {
      const markings = propose(studyOf(score, [], facts), period).map((p, k): Marking => ({ ...p.marking, id: `m${k}` }));
      const out = editionMusicXml(text, score, markings);
      assert.deepEqual(await schemaErrors(out), [], `${name}, ${period}`);
      assert.ok(new VerovioToolkit(module).loadData(out));
    }
  }
});

test('exports with every kind of marking validate where their source does', async () => {
  let checked = 0;
  for (const name of ['Telemann.xml', 'BeetAnGeSample.xml', 'Binchois.xml', 'MozaVeilSample.xml']) {
    const { text, score } = open(sample(name));
    if ((await schemaErrors(text)).length) continue;
    checked++;
    assert.deepEqual(await schemaErrors(editionMusicXml(text, score, everyMarking(score))), [], name);
  }
  assert.ok(checked >= 2, `${checked} sources validate`);
});

test('the encoding of the result is declared as UTF-8', () => {
  const { text, score } = demo('corrente.abc');
  const utf16 = text.replace('encoding="UTF-8"', 'encoding="UTF-16"');
  const out = editionMusicXml(utf16, readMusicXml(utf16), everyMarking(score).slice(0, 1));
  assert.match(out, /^<\?xml version="1.0" encoding="UTF-8"\?>/);
});

// MusicXML 4.0, element offset: the distance in divisions from the place in the document to where the direction belongs.
test('a marking inside a held note is written with its offset, and is read where it was put', () => {
  const { text, score } = openScore(new TextEncoder().encode('X:1\nM:4/4\nL:1/4\nK:C\nC4|D4|E4|]\n'), 'held.abc');
  const at = (n: number): Marking => ({ id: `m${n}`, kind: 'dynamic', value: 'p', part: 0, staff: 1, start: frac(n, 2), because: [] });
  const halves = Array.from({ length: 24 }, (_, k) => k);
  const again = readMusicXml(editionMusicXml(text, score, halves.map(at)));
  assert.deepEqual(
    again.directions.filter((d) => d.kind === 'dynamic').map((d) => toNumber(d.start) * 2),
    halves
  );
  const hairpin: Marking = { ...at(1), kind: 'hairpin', value: 'crescendo', end: frac(7, 2) };
  const [swell] = readMusicXml(editionMusicXml(text, score, [hairpin])).hairpins;
  assert.deepEqual([swell.start, swell.end].map(toNumber), [0.5, 3.5]);
});
