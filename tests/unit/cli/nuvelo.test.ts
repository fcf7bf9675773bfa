import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import { attributes, documentOf, note, sample } from '../helpers.ts';

const root = join(import.meta.dirname, '../../..');
const run = (...args: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/nuvelo.ts', ...args], { cwd: root, encoding: 'utf8' });
const folder = mkdtempSync(join(tmpdir(), 'nuvelo-cli-'));
const file = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

test('analyze prints the documented JSON and nothing else', () => {
  const text = documentOf(
    attributes('<key><fifths>1</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time>') +
      note('G4', 4) +
      note('F#4', 4) +
      note('F4', 4, '<accidental>natural</accidental>'),
    note('G4', 12)
  );
  const result = run('analyze', file('a.musicxml', text.replace('<measure number="1">', '<measure number="1" implicit="no">')));
  assert.equal(result.status, 0, result.stderr);
  const json = JSON.parse(result.stdout);
  assert.deepEqual(Object.keys(json), [
    'format',
    'title',
    'composer',
    'parts',
    'measures',
    'totalQuarters',
    'playedQuarters',
    'keys',
    'chords',
    'cadences',
    'phrases',
    'sections',
    'parallels',
    'sequences',
    'accidentals'
  ]);
  assert.equal(json.format, 'nuvelo-analysis/1');
  assert.deepEqual(json.parts[0], {
    id: 'P1',
    name: 'Test',
    staves: 1,
    transpose: { diatonic: 0, chromatic: 0 },
    notes: 4,
    graceNotes: 0,
    rests: 0,
    lowest: 'F4',
    highest: 'G4'
  });
  assert.deepEqual(json.measures[1], { measure: 1, number: '2', implicit: false, time: '3/4', fifths: 1, quarters: '3', start: '3' });
  assert.equal(json.totalQuarters, '6');
  assert.deepEqual(json.accidentals, [{ at: { measure: 0, number: '1', beat: '3' }, part: 'P1', pitch: 'F4', printed: true }]);
});

test('an upbeat stands at the end of a full bar', () => {
  const text = documentOf(
    `<measure number="0" implicit="yes">${attributes('<time><beats>3</beats><beat-type>4</beat-type></time>')}${note('F#4', 4)}</measure>`,
    note('G4', 12)
  );
  const json = JSON.parse(run('analyze', file('b.musicxml', text)).stdout);
  assert.equal(json.accidentals[0].at.beat, '3');
});

test('exit status: 2 for a wrong call, 3 for what is no score, one line on stderr', () => {
  for (const args of [[], ['dance'], ['analyze'], ['analyze', 'a', 'b'], ['analyze', '--part']])
    assert.equal(run(...args).status, 2, args.join(' '));
  for (const [name, text] of [
    ['c.xml', '<html/>'],
    ['d.musicxml', documentOf('<note>').slice(0, -20)],
    ['e.abc', 'X:1\nK:C\nA?']
  ]) {
    const result = run('analyze', file(name, text));
    assert.equal(result.status, 3, name);
    assert.equal(result.stdout, '');
    assert.equal(result.stderr.trim().split('\n').length, 1, result.stderr);
  }
  assert.equal(run('analyze', join(folder, 'missing.xml')).status, 3);
});

test('one part of several', () => {
  const path = sample('MozartTrio.xml');
  assert.equal(JSON.parse(run('analyze', path, '--part', 'P2').stdout).parts.length, 1);
  assert.equal(run('analyze', path, '--part', 'P99').status, 2);
});

test('analyze tells tonality, chord symbols and confidence', () => {
  const analyse = (name: string, text: string) => JSON.parse(run('analyze', file(name, text)).stdout);
  const sheet = analyse('sheet.abc', 'X:1\nM:4/4\nL:1/4\nK:C\n"Dm7"F A c A|"G7"B d f d|"Cmaj7"e c G E|"Cmaj7"C4|]');
  assert.deepEqual(
    sheet.chords.map((c: { symbol: string; roman: string }) => [c.symbol, c.roman]),
    [
      ['Dm7', 'ii7'],
      ['G7', 'V7'],
      ['Cmaj7', 'I7']
    ]
  );
  for (const list of ['keys', 'chords', 'phrases', 'cadences'])
    for (const fact of sheet[list]) assert.ok(fact.confidence > 0 && fact.confidence < 1, list);
  assert.ok(sheet.keys.every((k: { tonality?: string }) => k.tonality === undefined));
  const tones = analyse('tones.abc', `X:1\nM:4/4\nL:1/4\nK:C\n${'C ^F D ^G|E ^A D ^F|^G E ^A C|'.repeat(4)}`);
  assert.deepEqual(
    tones.keys.map((k: { tonality?: string }) => k.tonality),
    ['none']
  );
  assert.ok(tones.keys[0].confidence <= 0.5);
  assert.deepEqual([tones.chords, tones.cadences], [[], []]);
});

test('values that no music has end with status 3 and their bar', () => {
  const bad = documentOf(attributes() + note('C4', 16), note('C4', 8) + '<backup><duration>12</duration></backup>' + note('E4', 8));
  const result = run('analyze', file('backup.musicxml', bad));
  assert.equal(result.status, 3);
  assert.equal(result.stdout, '');
  assert.match(result.stderr, /backup goes past .*measure 2/);
});
