import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { tempoMarks } from '../../../src/core/score/tempo.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { atStep, atTempo, beginLadder, cleanRun, missedRun, type Ladder } from '../../../src/core/rehearsal/ladder.ts';
import { clicks, METRONOME_SCALE } from '../../../src/core/style/tempo-words.ts';
import { LADDER } from '../../../src/core/style/practice.ts';
import { demo } from '../helpers.ts';
import { drillsIn } from './made.ts';

const times = (n: number, act: (l: Ladder) => Ladder, l: Ladder): Ladder => Array.from({ length: n }).reduce<Ladder>((x) => act(x), l);

test('three clean runs in a row lead one step up, two failures two steps back (handbook 21.3)', () => {
  const l = beginLadder({ start: 60, goal: 100 }, null);
  assert.equal(l.at, 60);
  const two = times(2, cleanRun, l);
  assert.deepEqual([two.at, two.best], [60, null]);
  const up = cleanRun(two);
  assert.deepEqual([up.at, up.best, up.clean], [63, 60, 0]);
  // A failure breaks the row.
  const broken = times(2, cleanRun, missedRun(two));
  assert.equal(broken.at, 60);
  const back = missedRun(missedRun(up));
  assert.equal(back.at, 58);
  assert.equal(back.best, 60, 'what was clean stays so');
  assert.deepEqual(back.runs, { clean: 3, missed: 2 });
});

test('a day begins three steps under the best of before, not under the first start and not over the goal', () => {
  assert.equal(beginLadder({ start: 60, goal: 100 }, 92).start, 80);
  assert.equal(beginLadder({ start: 60, goal: 100 }, 63).start, 60);
  assert.equal(beginLadder({ start: 60, goal: 66 }, 92).start, 66);
  assert.equal(LADDER.under, 3);
});

test('a ladder stays on the scale and never goes over its goal', () => {
  const act = fc.constantFrom('clean', 'missed', 'up', 'down');
  fc.assert(
    fc.property(fc.nat(METRONOME_SCALE.length - 1), fc.nat(METRONOME_SCALE.length - 1), fc.array(act, { maxLength: 60 }), (a, b, acts) => {
      const [start, goal] = [METRONOME_SCALE[Math.min(a, b)], METRONOME_SCALE[Math.max(a, b)]];
      let l = beginLadder({ start, goal }, null);
      for (const x of acts) {
        l = x === 'clean' ? cleanRun(l) : x === 'missed' ? missedRun(l) : atStep(l, x === 'up' ? 1 : -1);
        assert.ok(METRONOME_SCALE.includes(l.at) && l.at <= goal);
        assert.ok(l.best === null || l.best <= goal);
      }
      assert.equal(l.runs.clean + l.runs.missed, acts.filter((x) => x === 'clean' || x === 'missed').length);
    })
  );
});

test('a drill at another tempo sounds so and is the same else', () => {
  const [drill] = drillsIn(demo('corrente.abc').score);
  const other = atTempo(drill.document, clicks(144, 0));
  assert.equal(tempoMarks(readMusicXml(other))[0].low, 144);
  assert.deepEqual(
    readMusicXml(other).notes.map((n) => n.pitch),
    readMusicXml(drill.document).notes.map((n) => n.pitch)
  );
});
