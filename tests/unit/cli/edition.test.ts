import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { demo } from '../helpers.ts';

const ROOT = join(import.meta.dirname, '../../..');
const run = (...args: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/nuvelo.ts', ...args], { cwd: ROOT, encoding: 'utf8' });
const out = () => join(mkdtempSync(join(tmpdir(), 'nuvelo-')), 'edition.musicxml');

test('edition writes the source with its markings, and the school changes them', () => {
  const [plain, echo] = [out(), out()];
  assert.equal(run('edition', 'demo/scores/corrente.abc', '--period', 'baroque', '--out', plain).status, 0);
  assert.equal(
    run(
      'edition',
      'demo/scores/corrente.abc',
      '--period',
      'baroque',
      '--school',
      'appoggiatura=short',
      '--school',
      'repeats=same',
      '--out',
      echo
    ).status,
    0
  );
  const text = readFileSync(plain, 'utf8');
  assert.match(text, /<level bracket="yes">editorial<\/level>/);
  assert.notEqual(text, readFileSync(echo, 'utf8'));
  const [source, edition] = [demo('corrente.abc').score, readMusicXml(text)];
  assert.deepEqual(
    edition.notes.map((n) => [n.pitch, n.duration, n.start]),
    source.notes.map((n) => [n.pitch, n.duration, n.start])
  );
});

test('a wrong period, school or answer, or none at all, is a wrong call and says what there is', () => {
  for (const [args, sentence] of [
    [['--period', 'medieval', '--out', 'x'], /the periods are baroque/],
    [['--out', 'x'], /--period is needed/],
    [['--period', 'baroque'], /--out is needed/],
    [['--period', 'baroque', '--school', 'mood=good', '--out', 'x'], /the schools are text/],
    [['--period', 'baroque', '--school', 'text=loose', '--out', 'x'], /the answers are as-printed, free/]
  ] as const) {
    const { status, stderr } = run('edition', 'demo/scores/corrente.abc', ...args);
    assert.equal(status, 2);
    assert.match(stderr, sentence);
  }
  assert.equal(run('edition', 'README.md', '--period', 'baroque', '--out', out()).status, 3);
});
