import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { SaxesParser } from 'saxes';
import { unzipSync } from 'fflate';
import { collate } from '../../../src/core/collation/collate.ts';
import type { SourceChoice } from '../../../src/core/collation/difference.ts';
import { criticalReport } from '../../../src/core/edition/text/critical-report.ts';
import { openEdition, type EditionInput } from '../../../src/core/edition/open-edition.ts';
import { openScore } from '../../../src/core/score/read-file.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { editionFile } from '../../../src/lib/server/jobs/edition-file.ts';
import { demoInput } from './input.ts';

const copy = openScore(readFileSync(join(import.meta.dirname, '../../../demo/scores/andantino-fair-copy.abc')), 'copy.abc');
const HASH = 'c'.repeat(64);
const base = demoInput('andantino.abc');
const { differences } = collate(readMusicXml(base.document), copy.score);

function input(take: SourceChoice['take'] | null, only: (kind: string) => boolean = () => true): EditionInput {
  const sourceChoices = take
    ? differences
        .filter((d) => only(d.kind))
        .map((d): SourceChoice => ({ source: HASH, difference: d.id, take, because: `the ${d.kind} is plain`, on: '2026-11-02' }))
    : [];
  return {
    ...base,
    others: [{ hash: HASH, name: 'The fair copy', document: copy.text }],
    reading: { ...base.reading, sourceChoices }
  };
}

interface Element {
  name: string;
  attributes: Record<string, string>;
  parent: Element | null;
  text: string;
}

function elements(mei: string): Element[] {
  const list: Element[] = [];
  let at: Element | null = null;
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => {
    at = { name, attributes, parent: at, text: '' };
    list.push(at);
  });
  parser.on('text', (t) => {
    for (let e = at; e; e = e.parent) e.text += t;
  });
  parser.on('closetag', () => (at = at!.parent));
  parser.write(mei).close();
  return list;
}

const module = await createVerovioModule();
enableLog(LOG_OFF, module);

/** No MEI schema comes with npm; these are rules of the MEI 5 guidelines that a validator would check first. */
function checkMei(mei: string): Element[] {
  const list = elements(mei);
  const ids = list.flatMap((e) => e.attributes['xml:id'] ?? []);
  assert.equal(new Set(ids).size, ids.length, 'ids are unique');
  const known = new Set(ids);
  for (const e of list)
    for (const name of ['startid', 'endid', 'source', 'resp', 'plist'])
      for (const to of e.attributes[name]?.split(/\s+/) ?? [])
        assert.ok(known.has(to.replace('#', '')), `${e.name} points by ${name} to ${to}`);
  for (const e of list) if (e.name === 'app') assert.ok(list.filter((c) => c.parent === e).every((c) => ['lem', 'rdg'].includes(c.name)));
  return list;
}

test('MEI: every difference between sources is an app with both readings, and Verovio draws the chosen one with all markings', async () => {
  for (const take of [null, 'ours', 'theirs'] as const) {
    const edition = input(take);
    const mei = (await editionFile(edition, 'mei', () => {})) as string;
    const list = checkMei(mei);
    const apps = list.filter((e) => e.name === 'app');
    assert.deepEqual(new Set(apps.map((e) => e.attributes.type)), new Set(differences.map((d) => d.kind)));
    const sources = list.filter((e) => e.name === 'source');
    assert.deepEqual(
      sources.map((e) => e.text.trim()),
      ['The print of the school', 'The fair copy']
    );
    for (const app of apps) {
      const [lem, rdg] = list.filter((e) => e.parent === app);
      assert.equal(lem.name, 'lem');
      assert.equal(rdg.name, 'rdg');
      assert.equal(lem.attributes.source, take === 'theirs' ? '#source-2' : '#source-1');
      assert.equal(rdg.attributes.source, take === 'theirs' ? '#source-1' : '#source-2');
      if (take) assert.match(lem.text, /is plain/);
    }
    const under = (e: Element, name: string): boolean => e.name === name || (e.parent !== null && under(e.parent, name));
    const dynamics = list.filter((e) => e.name === 'dynam' && under(e, 'app'));
    assert.deepEqual(
      dynamics.map((e) => [under(e, 'lem'), e.text.trim()]),
      take === 'theirs'
        ? [
            [true, 'mf'],
            [false, 'p']
          ]
        : [
            [true, 'p'],
            [false, 'mf']
          ]
    );
    const toolkit = new VerovioToolkit(module);
    toolkit.setOptions({ breaks: 'auto', scale: 40, pageWidth: 2100, pageHeight: 60000 });
    assert.ok(toolkit.loadData(mei));
    const drawn = Array.from({ length: toolkit.getPageCount() }, (_, k) => toolkit.renderToSVG(k + 1)).join('');
    for (const m of edition.reading.markings) assert.ok(drawn.includes(`id="${m.id}"`), `${m.kind} ${m.value}`);
  }
});

test('the choice shows in MusicXML, plain and compressed, which is the other source’s where it was taken', async () => {
  const xml = (await editionFile(input('theirs'), 'musicxml', () => {})) as string;
  const left = collate(readMusicXml(xml), copy.score).differences.filter((d) => d.kind !== 'dynamic');
  // What is editorial is added; what differed between the sources does no more.
  const editorial = new Set(base.reading.markings.map((m) => m.kind));
  assert.ok(editorial.has('text'));
  assert.deepEqual(
    left.filter((d) => ['notes', 'rhythm', 'slur', 'tempo', 'ornament'].includes(d.kind)).map((d) => `${d.kind} ${d.ours} ${d.theirs}`),
    []
  );
  assert.ok(!/ id="n\d/.test(xml));
  const mxl = (await editionFile(input('theirs'), 'mxl', () => {})) as Uint8Array;
  assert.equal(openScore(mxl, 'edition.mxl').text, xml);
  // The container format: the mimetype comes first and is stored, so that it can be read at a fixed place.
  assert.equal(Buffer.from(mxl.subarray(30, 38)).toString(), 'mimetype');
  assert.deepEqual(Object.keys(unzipSync(mxl)), ['mimetype', 'META-INF/container.xml', 'score.musicxml']);
  // Without a choice the source's own text goes out.
  assert.equal(
    (await editionFile({ ...input('ours'), reading: { ...input('ours').reading, markings: [] } }, 'musicxml', () => {})) as string,
    base.document
  );
});

test('the critical report: bar, part, source, reading, decision', async () => {
  const report = (edition: EditionInput) => criticalReport(openEdition(edition).edition);
  const [names, table] = report(input('theirs', (kind) => kind === 'notes'));
  assert.deepEqual(names, { type: 'paragraph', content: [{ type: 'text', text: 'A: The print of the school. B: The fair copy.' }] });
  assert.ok(table.type === 'table');
  assert.deepEqual(table.head, ['Bar', 'Part', 'Source', 'Reading', 'Decision']);
  assert.equal(table.rows.length, differences.length);
  const row = table.rows.find((r) => r[0] === '12')!;
  assert.deepEqual(row, ['12', 'Piano', 'B', 'note: E5; A has G5', 'B: the notes is plain']);
  assert.ok(table.rows.some((r) => r[4] === 'A; not decided yet'));
  const text = (await editionFile(input('ours'), 'md', () => {})) as string;
  assert.match(text, /## Critical report\n\nA: The print/);
  assert.match(text, /\| 8 \| Piano \| B \| rhythm: C5 dotted half; A has C5 half \| A: the rhythm is plain \|/);
  assert.deepEqual(report(base), []);
});

test('the choice shows on the pages', async () => {
  const pages = async (take: 'ours' | 'theirs') =>
    (await editionFile(
      { ...input(take), reading: { ...input(take).reading, pages: { ...base.reading.pages, variant: 'blank' } } },
      'svg.zip',
      () => {}
    )) as Uint8Array;
  const text = (zip: Uint8Array) =>
    Object.values(unzipSync(zip))
      .map((b) => Buffer.from(b).toString('utf8'))
      .join('');
  const [ours, theirs] = [text(await pages('ours')), text(await pages('theirs'))];
  const says = (pages: string, words: string): number => pages.split(words).length - 1;
  // The title stands over the first page in both; the tempo word only where the print's was kept.
  assert.ok(says(ours, '= 88') === 1 && says(theirs, '= 88') === 0 && says(theirs, '= 76') === 1);
  assert.equal(says(ours, 'Andantino grazioso') - says(theirs, 'Andantino grazioso'), 1);
});
