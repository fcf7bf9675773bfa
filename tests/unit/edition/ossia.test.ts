import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { chunkWriter } from '../../../src/core/edition/chunk.ts';
import { Engraving } from '../../../src/core/edition/engraving.ts';
import { editionMeiFile } from '../../../src/core/edition/mei-file.ts';
import { withOssiaParts } from '../../../src/core/edition/ossia-musicxml.ts';
import { planSystems } from '../../../src/core/edition/systems.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { fittingOssias, ossiaFault, type Ossia } from '../../../src/core/reading/ossia.ts';
import { abcHead, abcLine } from '../../../src/core/score/abc/line.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { demo } from '../helpers.ts';
import { literal, playableOf, readingOf } from '../performance/play.ts';
import { schemaErrors } from './schema.ts';

const TUNE = 'X:1\nT:Tide\nM:3/4\nL:1/4\nK:G\nGAB|cBA|GFG|D3|]\n';
const document = readAbc(TUNE);
const score = readMusicXml(document);
const ossia = (rest: Partial<Ossia> = {}): Ossia => ({
  id: 'o1',
  ...{ part: 0, staff: 1, from: 1, to: 2, label: 'with runs', printed: true, played: false },
  music: { abc: 'X:1\nM:3/4\nL:1/8\nK:G\n(cd cB AG)|GF G2 z2|\n' },
  ...rest
});
const abc = (notes: string): Ossia['music'] => ({ abc: `X:1\nM:3/4\nL:1/8\nK:G\n${notes}\n` });

const module = await createVerovioModule();
enableLog(LOG_OFF, module);
const engraving = new Engraving(new VerovioToolkit(module) as never);
const frame = { measures: score.measures, parts: score.parts };

test('an ossia has to fit the bars that it stands for; what does not fit is named and left out', () => {
  assert.equal(ossiaFault(score, ossia()), null);
  assert.match(ossiaFault(score, ossia({ music: abc('c6|') }))!, /It has one bar, and stands for 2 bars/);
  assert.match(ossiaFault(score, ossia({ music: abc('c4|c6|') }))!, /In place of bar 2 it has 2 quarters, where 3 belong/);
  assert.match(ossiaFault(score, ossia({ music: abc('z6|z6|') }))!, /It has no note/);
  assert.match(ossiaFault(score, ossia({ music: abc('c!6|') }))!, /line 5/);
  assert.deepEqual(fittingOssias(score, [ossia({ music: abc('c6|') }), ossia({ from: 3, to: 4 }), ossia()]).length, 1);
});

test('it stands over its bars, small, with its own slurs and its name, in the picture and in MEI', () => {
  const [chunk] = planSystems(score, 60);
  const mei = engraving.mei(chunkWriter(document, score)(chunk));
  const look = { pageWidth: 2000, scale: 100, margin: 50, lastFills: 0 };
  const draw = (o: Ossia): string => engraving.chunk(mei, frame, chunk, [], [], look, false, [o])(1);
  const svg = draw(ossia());
  assert.match(svg, /<g id="o1" class="ossia"/);
  assert.equal((svg.match(/class="oStaff editorial ossia"/g) ?? []).length, 2, 'two bars');
  assert.match(svg, /with runs/);
  const notes = (picture: string): number => (picture.match(/class="note"/g) ?? []).length;
  assert.equal(notes(svg) - notes(draw(ossia({ printed: false }))), 9);
  assert.equal((svg.match(/class="slur"/g) ?? []).length, 1);
  const file = editionMeiFile(mei, score, [], engraving.ossias([ossia()], frame), 'A. Teacher', {
    name: 'The print',
    ...{ score, mei, others: [], choices: [] }
  });
  assert.match(
    file,
    /<measure[^>]*xml:id="m1"[\s\S]*<ossia xml:id="o1"[^>]*resp="#editor"[^>]*><oStaff n="1"[^>]*>[\s\S]*<\/oStaff><staff/
  );
});

test('in MusicXML it is a part whose staff is an ossia; the document is valid and its other parts are untouched', async () => {
  const text = withOssiaParts(document, score, [ossia()]);
  assert.deepEqual(await schemaErrors(text), []);
  const read = readMusicXml(text);
  assert.deepEqual(
    read.notes.filter((n) => n.part === 0).map((n) => n.id),
    score.notes.map((n) => n.id)
  );
  const own = read.notes.filter((n) => n.part === 1 && !n.rest);
  assert.deepEqual([...new Set(own.map((n) => n.measure))], [1, 2]);
  assert.match(text, /<staff-type>ossia<\/staff-type>/);
  assert.equal(withOssiaParts(document, score, [ossia({ printed: false })]), document);
  assert.equal(read.remarks.filter((r) => r.kind === 'not-understood').length, 0);
});

test('it is heard in place of its bars where that is wanted, at their time and pitch; the bare page never has it', () => {
  const playable = playableOf(score);
  const heard = (o: Ossia) => perform(playable, readingOf('classical', {}, { ossias: [o] })).notes;
  const plain = heard(ossia());
  const other = heard(ossia({ played: true }));
  assert.equal(plain.length, 10);
  assert.deepEqual(
    other.filter((n) => n.note.startsWith('o1-')).map((n) => n.midi),
    [72, 74, 72, 71, 69, 67, 67, 66, 67]
  );
  const firsts = (notes: typeof plain, bar: number): number => notes.find((n) => n.bar === bar)!.onset;
  for (const bar of [0, 1, 2, 3]) assert.ok(Math.abs(firsts(plain, bar) - firsts(other, bar)) < 1e-9, `bar ${bar}`);
  for (const n of other) assert.ok(n.end > n.onset);
  assert.deepEqual(literal(playable).notes.length, 10);
});

test('bars are handed out as ABC to go on from, and come back as they were', () => {
  const lines = (s: Score): string => {
    const last = s.measures.length - 1;
    return abcHead(s, 0, 1, 0) + abcLine(s, 0, 1, 0, last)!;
  };
  for (const text of [TUNE, 'X:1\nM:4/4\nL:1/8\nK:D clef=bass\n^A,,2 (B,,=C,) D,4-|D,6 z/ E,/ _F,|\n']) {
    const first = readMusicXml(readAbc(text));
    const again = readMusicXml(readAbc(lines(first)));
    const told = (s: Score): string[] =>
      s.notes.map((n) => `${n.pitch ? pitchName(n.pitch) : 'z'} ${n.duration.n}/${n.duration.d} ${n.tie?.start ?? ''}`);
    assert.deepEqual(told(again), told(first));
    assert.equal(again.slurs.length, first.slurs.length);
  }
  const { score: corrente } = demo('corrente.abc');
  assert.ok(corrente.measures.some((m) => abcLine(corrente, 0, 1, m.index, m.index)));
});
