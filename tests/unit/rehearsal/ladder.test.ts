import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tempoMarks } from '../../../src/core/score/tempo.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { atTempo, step } from '../../../src/core/rehearsal/ladder.ts';
import { METRONOME } from '../../../src/core/style/drills.ts';
import { demo } from '../helpers.ts';
import { drillsIn } from './made.ts';

test('steps go along the metronome’s scale and stop at its ends', () => {
  const scale: readonly number[] = METRONOME;
  scale.forEach((t, k) => {
    assert.equal(step(t, 1), scale[k + 1] ?? t);
    assert.equal(step(t, -1), scale[k - 1] ?? t);
  });
  assert.deepEqual([step(61, 1), step(61, -1)], [63, 60], 'from between two steps');
});

test('a drill at another tempo sounds so and is the same else', () => {
  const [drill] = drillsIn(demo('corrente.abc').score);
  const other = atTempo(drill.document, 144);
  assert.equal(tempoMarks(readMusicXml(other))[0].low, 144);
  assert.deepEqual(
    readMusicXml(other).notes.map((n) => n.pitch),
    readMusicXml(drill.document).notes.map((n) => n.pitch)
  );
});
