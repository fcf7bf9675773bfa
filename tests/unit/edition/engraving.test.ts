import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { chunkWriter } from '../../../src/core/edition/chunk.ts';
import { commentary } from '../../../src/core/edition/text/commentary.ts';
import { legend } from '../../../src/core/edition/text/legend.ts';
import { preface } from '../../../src/core/edition/text/preface.ts';
import { openEdition } from '../../../src/core/edition/open-edition.ts';
import type { Chunk } from '../../../src/core/edition/chunk.ts';
import { editionMei } from '../../../src/core/edition/mei.ts';
import { add, frac, toNumber, type Fraction } from '../../../src/core/score/fraction.ts';
import { editionMeiFile } from '../../../src/core/edition/mei-file.ts';
import { Engraving } from '../../../src/core/edition/engraving.ts';
import { planSystems } from '../../../src/core/edition/systems.ts';
import { replay } from '../../../src/core/reading/log.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { demo, open, sample } from '../helpers.ts';
import { demoInput } from './input.ts';
import { plainBlock } from './plain.ts';

const module = await createVerovioModule();
enableLog(LOG_OFF, module);

test('systems and chunks cover every bar once, in order, and break where sections end', () => {
  for (const name of ['BWV_0773.xml', 'SchbAvMaSample.xml', 'Telemann.xml']) {
    const { score } = open(sample(name));
    const chunks = planSystems(score, 45);
    assert.equal(chunks[0].from, 0);
    assert.equal(chunks.at(-1)!.to, score.measures.length);
    chunks.slice(1).forEach((c, k) => assert.equal(c.from, chunks[k].to));
    for (const c of chunks) assert.ok(c.systems[0] === c.from && c.systems.every((s) => s < c.to));
  }
  const { score } = demo('corrente.abc');
  assert.ok(
    planSystems(score, 48).some((c) => c.systems.includes(13)),
    'the second half begins a line'
  );
});

test('a chunk is a score of its own: same notes, meter, key and clef in force, ids kept', () => {
  const { text, score } = open(sample('MozaVeilSample.xml'));
  const chunk = readMusicXml(chunkWriter(text, score)({ from: 5, to: 9 }));
  const expected = score.notes.filter((n) => n.measure >= 5 && n.measure < 9);
  assert.deepEqual(
    chunk.notes.map((n) => n.id),
    expected.map((n) => n.id)
  );
  assert.deepEqual(
    chunk.notes.map((n) => n.duration),
    expected.map((n) => n.duration)
  );
  assert.equal(chunk.measures[0].time!.text, score.measures[5].time!.text);
  assert.equal(chunk.measures[0].key.fifths, score.measures[5].key.fifths);
});

test('Verovio draws every proposed marking of every demo piece, found again by its id and class', () => {
  for (const name of ['corrente.abc', 'andantino.abc', 'etude.abc']) {
    const { text, score } = demo(name);
    const facts = analyse(score);
    const drawable = propose(studyOf(score, [], facts), 'classical').filter((p) => p.marking.kind !== 'advice');
    const markings = drawable.map((p, k): Marking => ({ ...p.marking, id: `mark-${k}` }));
    const rows = facts.chords.map((c) => ({ id: c.id, start: c.start, text: c.roman, row: 'chords' as const }));
    // As on the screen and as on paper: one way from score and markings to pictures.
    const engraving = new Engraving(new VerovioToolkit(module));
    const write = chunkWriter(text, score);
    const look = { pageWidth: 2100, scale: 40, margin: 30, lastFills: 0.5 };
    let drawn = '';
    for (const chunk of planSystems(score, 48)) {
      const mei = engraving.mei(write(chunk));
      drawn += engraving.chunk(mei, score, chunk, markings, rows, look, false)(1);
      const onPaper = engraving.chunk(mei, score, chunk, markings, rows, { ...look, raw: true, margin: 4 }, true);
      for (const m of markings) if (drawn.includes(`id="${m.id}"`) && chunk.from === 0) assert.ok(onPaper(1).includes('editorial'), m.id);
    }
    for (const m of markings) assert.match(drawn, new RegExp(`id="${m.id}"[^>]*class="[^"]*editorial`), `${name}: ${m.kind} ${m.value}`);
    for (const c of facts.chords) assert.ok(drawn.includes(`id="${c.id}"`), `${name}: ${c.roman}`);
  }
});

test('the MEI file: every marking with its editor and an annotation of its reasons, and Verovio draws it', () => {
  const { text, score } = demo('andantino.abc');
  const markings = propose(studyOf(score), 'romantic').map((p, k): Marking => ({ ...p.marking, id: `mark-${k}` }));
  const toolkit = new VerovioToolkit(module);
  toolkit.setOptions({ pageWidth: 2100, pageHeight: 60000, adjustPageHeight: true, breaks: 'auto', scale: 40 });
  toolkit.loadData(chunkWriter(text, score)({ from: 0, to: score.measures.length }));
  const mei = editionMeiFile(toolkit.getMEI(), score, markings, [], 'A. Teacher', {
    name: 'The print',
    score,
    mei: '',
    others: [],
    choices: []
  });
  assert.match(mei, /<persName xml:id="editor">A\. Teacher<\/persName>/);
  for (const m of markings) {
    assert.match(mei, new RegExp(`xml:id="${m.id}"[^>]*resp="#editor"`));
    const own = m.kind === 'advice' ? `xml:id="${m.id}"` : `plist="#${m.id}"`;
    const annot = new RegExp(`<annot[^>]*${own}[^>]*>([^<]*)</annot>`).exec(mei);
    assert.ok(annot && annot[1].length > 10, m.id);
  }
  assert.ok(toolkit.loadData(mei));
  const drawn = Array.from({ length: toolkit.getPageCount() }, (_, k) => toolkit.renderToSVG(k + 1)).join('');
  for (const m of markings) if (m.kind !== 'advice') assert.ok(drawn.includes(`id="${m.id}"`), `${m.kind} ${m.value}`);
  assert.ok(
    markings.every((m) => m.kind !== 'advice' || !new RegExp(`id="${m.id}"[^>]*>\\s*<text`).test(drawn)),
    'advice is not written over the music'
  );
  // The same notes come back as went in.
  for (const n of score.notes.filter((x) => !x.rest)) assert.ok(mei.includes(`xml:id="${n.id}"`), n.id);
});

test('preface, legend and commentary say what was decided, why, and what was not taken', () => {
  const { score } = demo('corrente.abc');
  const facts = analyse(score);
  const proposals = propose(studyOf(score, [], facts), 'baroque');
  const [kept, aside] = [proposals.find((p) => p.rule === 'bring-out-the-colour')!, proposals.find((p) => p.rule === 'part-the-phrases')!];
  const reading = replay([
    { type: 'set-period', period: 'baroque' },
    { type: 'keep', key: kept.key, marking: { ...kept.marking, id: 'a', remark: 'lean' } },
    { type: 'set-aside', key: aside.key }
  ]);
  const { edition } = openEdition({ ...demoInput('corrente.abc'), reading });
  const entries = commentary(edition);
  const entry = entries.find((e) => e.bar === 'Bar 26')!;
  assert.match(entry.lines[0].because, /[Nn]eapolitan.*C\. P\. E\. Bach 1753/);
  assert.equal(entry.lines[0].remark, 'lean');
  assert.ok(entries.some((e) => e.notTaken[0]?.includes('not taken')));
  assert.match(preface(edition).content.map(plainBlock).join(' '), /30 bars.*D minor.*baroque.*The print of the school/s);
  assert.ok(legend(reading.markings).some((l) => l.meaning.includes('accents')));
});

// MEI 5, att.timestamp2.logical: bars ahead and the beat there.
test('a hairpin that ends with a bar ends in it, not on the first beat of the next', () => {
  const { score } = demo('andantino.abc');
  const [first, second, third] = score.measures;
  const mei = '<music><measure xml:id="m0"></measure><measure xml:id="m1"></measure><measure xml:id="m2"></measure></music>';
  const until = (end: Fraction): string => {
    const hairpin: Marking = { id: 'x', kind: 'hairpin', value: 'crescendo', part: 0, staff: 1, start: first.start, end, because: [] };
    return /tstamp2="([^"]*)"/.exec(editionMei(mei, score, { from: 0, to: 3 } as Chunk, [hairpin]))![1];
  };
  const beats = toNumber(first.length);
  assert.equal(until(second.start), `0m+${beats + 1}`);
  assert.equal(until(third.start), `1m+${beats + 1}`);
  assert.equal(until(add(second.start, frac(1))), '1m+2');
});
