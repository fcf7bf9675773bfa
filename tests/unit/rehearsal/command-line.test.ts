import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { DRILL_KINDS } from '../../../src/core/style/drills.ts';
import { DIFFICULTY_PARTS } from '../../../src/core/rehearsal/difficulty.ts';
import { demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-drills-'));
after(() => rmSync(folder, { recursive: true }));
const root = join(import.meta.dirname, '../../..');
const nuvelo = (...args: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/nuvelo.ts', 'drills', ...args], { encoding: 'utf8', cwd: root });

interface Told {
  format: string;
  difficulty: { measure: number; number: string; value: number; parts: Record<string, number> }[];
  hotSpots: { from: { measure: number }; to: { measure: number }; why: string }[];
  drills: {
    file: string;
    kind: string;
    from: { number: string };
    to: { number: string };
    because: string;
    how: string;
    tempo: { start: number; goal: number };
  }[];
}

test('drills: each is written as a file, and told as the format says', () => {
  const out = join(folder, 'corrente');
  const run = nuvelo(demoPath('corrente.abc'), '--out', out);
  assert.equal(run.status, 0, run.stderr);
  const told = JSON.parse(run.stdout) as Told;
  assert.equal(told.format, 'nuvelo-drills/1');
  assert.equal(told.difficulty.length, 30);
  for (const bar of told.difficulty) {
    assert.ok(bar.value >= 0 && bar.value <= 1);
    assert.deepEqual(Object.keys(bar.parts), [...DIFFICULTY_PARTS]);
    for (const part of Object.values(bar.parts)) assert.ok(part >= 0 && part <= 1);
  }
  assert.ok(told.hotSpots.length > 0 && told.hotSpots.every((h) => h.from.measure <= h.to.measure && h.why.length > 3));
  assert.deepEqual(readdirSync(out).sort(), told.drills.map((d) => d.file).sort());
  told.drills.forEach((d, k) => {
    assert.equal(d.file, `${String(k + 1).padStart(2, '0')}-${d.kind}.musicxml`);
    assert.ok((DRILL_KINDS as string[]).includes(d.kind) && d.tempo.start <= d.tempo.goal);
    assert.ok(readMusicXml(readFileSync(join(out, d.file), 'utf8')).notes.length > 0);
  });
  // The most useful of each kind comes before the second of any.
  const kinds = told.drills.map((d) => d.kind);
  const firstAgain = kinds.findIndex((k, at) => kinds.indexOf(k) < at);
  assert.ok(firstAgain < 0 || new Set(kinds.slice(firstAgain)).size <= new Set(kinds.slice(0, firstAgain)).size);
});

test('one kind in some bars; where there is no reason nothing is written', () => {
  const some = JSON.parse(
    nuvelo(demoPath('corrente.abc'), '--kind', 'bow-alone', '--from', '5', '--to', '8', '--out', join(folder, 'bow')).stdout
  ) as Told;
  assert.ok(some.drills.length > 0);
  for (const d of some.drills) assert.ok(d.kind === 'bow-alone' && Number(d.from.number) >= 5 && Number(d.to.number) <= 8);
  const none = JSON.parse(nuvelo(demoPath('etude.abc'), '--kind', 'hands-alone', '--out', join(folder, 'none')).stdout) as Told;
  assert.deepEqual([none.drills, readdirSync(join(folder, 'none'))], [[], []]);
});

test('a wrong call is told in one sentence', () => {
  const wrong = (...args: string[]): [number | null, string] => {
    const { status, stderr } = nuvelo(...args);
    return [status, stderr.split('\n')[0]];
  };
  const file = demoPath('corrente.abc');
  assert.deepEqual(wrong(file), [2, 'nuvelo: --out is needed']);
  assert.match(wrong(file, '--kind', 'scales', '--out', folder)[1], /there is no drill scales; the kinds are strong-beats, /);
  assert.match(wrong(file, '--from', '99', '--out', folder)[1], /there is no bar 99; the bars are 0 to 28/);
  assert.deepEqual(wrong(file, '--from', '9', '--to', '3', '--out', folder), [2, 'nuvelo: --to comes before --from']);
});
