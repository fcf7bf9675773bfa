import assert from 'node:assert/strict';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-technique-'));
after(() => rmSync(folder, { recursive: true }));

interface Json {
  instrument: string;
  strokes: { at: { number: string; beat: string }; direction: string; way: string }[];
  fingers: {
    pitch: string;
    string: string | null;
    finger: string | null;
    valves: string | null;
    slide: number | null;
    hand: string | null;
  }[];
  breaths: { at: { number: string }; kind: string; secondsBefore: number }[];
  movements: { name: string; complete: boolean; missing: string[] }[];
  load: { value: number }[];
  findings: unknown[];
  alternatives: { price: string }[];
}
const args = (...words: string[]): string[] => ['--import', 'tsx', 'src/cli/nuvelo.ts', 'technique', ...words];
const technique = (...words: string[]): Json =>
  JSON.parse(execFileSync(process.execPath, args(...words), { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })) as Json;
const file = (name: string, text: string): string => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};

test('bows, strings and pins of a violin; lists that do not apply are empty', () => {
  const path = file('violin.abc', 'X:1\nT:Two bars\nM:4/4\nL:1/4\nV:1 name="Violin"\nK:G\nG, A, B, C|D E z2|\n');
  const free = technique(path);
  assert.equal(free.instrument, 'violin');
  assert.deepEqual(
    free.strokes.map((s) => s.direction),
    ['down', 'up', 'down', 'up', 'down', 'up']
  );
  assert.deepEqual(
    free.fingers.map((f) => `${f.string}${f.finger}`),
    ['G0', 'G1', 'G2', 'G3', 'D0', 'D1']
  );
  assert.deepEqual([free.breaths, free.movements, free.load], [[], [], []]);
  const pinned = technique(path, '--pin', '1:1=up', '--pin', '2:1=finger=4');
  assert.equal(pinned.strokes[0].direction, 'up');
  assert.equal(pinned.fingers.at(-2)!.finger, '4');
  assert.equal(pinned.fingers.at(-2)!.string, 'G');
});

test('another instrument and a tempo: valves, load and breaths', () => {
  const scale = file('scale.abc', 'X:1\nT:Scale\nM:4/4\nL:1/4\nK:Bb\nB, C D E|F G A B|\n');
  const trumpet = technique(scale, '--instrument', 'trumpet', '--tempo', '60');
  assert.deepEqual(
    trumpet.fingers.map((f) => f.valves),
    ['0', '13', '12', '1', '0', '12', '2', '0']
  );
  assert.equal(trumpet.load.length, 2);
  const etude = technique(demoPath('etude.abc'), '--tempo', '30');
  assert.ok(etude.breaths.length > technique(demoPath('etude.abc'), '--tempo', '120').breaths.length);
});

test('wrong calls are told in one sentence with status 2', () => {
  for (const [words, says] of [
    [['--instrument', 'serpent'], /there is no instrument serpent; the instruments are violin/],
    [['--tempo', 'fast'], /“fast” is no tempo/],
    [['--pin', '1:1=sideways'], /is no pin; it is BAR:BEAT=VALUE/],
    [['--pin', '99:1=up'], /no note of the part begins in bar 99 on beat 1/],
    [['--part', 'P9'], /there is no part P9/]
  ] as const) {
    const { status, stderr } = spawnSync(process.execPath, args(demoPath('corrente.abc'), ...words), { encoding: 'utf8' });
    assert.equal(status, 2);
    assert.match(stderr, says);
  }
});
