import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import tonejs from '@tonejs/midi';
import { midiFile, MIDI_TICKS } from '../../../src/core/performance/midi.ts';
import { perform } from '../../../src/core/performance/perform.ts';
import { abc, demo, open, sample } from '../helpers.ts';
import { drafted, playableOf, literal, readingOf } from './play.ts';

// Reference: the reader of @tonejs/midi, another program's.
const { Midi } = tonejs;

test('read back, every note begins within a tick of the plan, in every demo piece', () => {
  for (const [name, period] of [
    ['corrente.abc', 'baroque'],
    ['etude.abc', 'romantic'],
    ['andantino.abc', 'classical']
  ] as const) {
    const { score } = demo(name);
    const playable = playableOf(score);
    for (const p of [perform(playable, drafted(playable, period)), literal(playable)]) {
      const midi = new Midi(midiFile(score, p));
      assert.equal(midi.header.ppq, MIDI_TICKS);
      const read = midi.tracks.flatMap((t) => t.notes).sort((a, b) => a.time - b.time || a.midi - b.midi);
      const planned = [...p.notes].sort((a, b) => a.onset - b.onset || a.midi! - b.midi!);
      assert.equal(read.length, planned.length);
      read.forEach((n, k) => {
        const tick = 60 / (midi.header.tempos.findLast((t) => t.ticks <= n.ticks)!.bpm * MIDI_TICKS);
        assert.ok(Math.abs(n.time - planned[k].onset) <= tick, `${name}: ${n.time} against ${planned[k].onset}`);
      });
      assert.deepEqual(
        read.map((n) => n.midi).sort((a, b) => a - b),
        planned.map((n) => n.midi!).sort((a, b) => a - b)
      );
    }
  }
});

test('the tempo map of the literal page is its metronome mark; the plan’s moves', () => {
  const { score } = demo('etude.abc');
  const playable = playableOf(score);
  const page = new Midi(midiFile(score, literal(playable)));
  assert.equal(page.header.tempos.length, 1);
  assert.ok(Math.abs(page.header.tempos[0].bpm - playable.marks[0].tempo) < 0.01);
  const planned = new Midi(midiFile(score, perform(playable, drafted(playable, 'romantic'))));
  assert.ok(planned.header.tempos.length > 20);
  assert.deepEqual(planned.header.timeSignatures[0].timeSignature, [score.measures[0].time!.groups[0], score.measures[0].time!.unit]);
});

test('velocities follow the plan, expression swells inside a held note, parts have their instruments', () => {
  const score = abc('M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Flute"\nK:C\n!p!CC!f!CC|!p!!<(!C4!<)!|!f!C4|');
  const playable = playableOf(score);
  const midi = new Midi(midiFile(score, perform(playable, readingOf('romantic'))));
  const track = midi.tracks.find((t) => t.notes.length)!;
  assert.equal(track.instrument.number, 73);
  assert.ok(track.notes[2].velocity > track.notes[1].velocity * 1.8);
  const swell = track.controlChanges[11].filter((c) => c.time > 4.05 && c.time < 7.95).map((c) => c.value);
  assert.ok(swell.length > 20 && swell.at(-1)! > swell[0] * 1.5);
});

test('a score of several parts has a track for each, and percussion its channel', () => {
  const { score } = open(sample('MahlFaGe4Sample.xml'));
  const midi = new Midi(midiFile(score, literal(playableOf(score))));
  assert.equal(midi.tracks.filter((t) => t.notes.length || t.name).length >= score.parts.length, true);
  const channels = midi.tracks.filter((t) => t.notes.length).map((t) => t.channel);
  assert.ok(channels.every((c) => c !== 9));
});

test('perform on the command line: literal and interpreted, and what is wrong with a call', () => {
  const folder = mkdtempSync(join(tmpdir(), 'nuvelo-'));
  const run = (...args: string[]) =>
    spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/nuvelo.ts', 'perform', ...args], {
      cwd: join(import.meta.dirname, '../../..'),
      encoding: 'utf8'
    });
  const [page, plan] = [join(folder, 'page.mid'), join(folder, 'plan.mid')];
  assert.equal(run('demo/scores/etude.abc', '--period', 'romantic', '--literal', '--out', page).status, 0);
  assert.equal(run('demo/scores/etude.abc', '--period', 'romantic', '--out', plan).status, 0);
  const [a, b] = [page, plan].map((f) => new Midi(readFileSync(f)));
  assert.ok(Math.abs(a.duration - 90) < 0.5);
  assert.ok(b.duration > a.duration + 2);
  assert.equal(run('demo/scores/etude.abc', '--out', page).status, 2);
  assert.equal(run('demo/scores/etude.abc', '--period', 'romantic').status, 2);
  assert.equal(run('demo/scores/none.abc', '--period', 'romantic', '--out', page).status, 3);
});
