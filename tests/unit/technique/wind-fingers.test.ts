import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parsePitch } from '../../../src/core/score/pitch.ts';
import { WIND_CHARTS } from '../../../src/core/style/wind-charts.ts';
import { instrumentByKey } from '../../../src/core/style/instruments/index.ts';
import { playerLine, secondsAt } from '../../../src/core/technique/player-line.ts';
import { readFingering, trillFingers, windFingerings, windWay, type WindWay } from '../../../src/core/technique/wind-fingers.ts';
import { abc } from '../helpers.ts';

function way(instrument: string, notes: string, pins = new Map<number, string>()): WindWay {
  const score = abc(`M:none\nL:1/4\nK:C\n${notes}|`);
  return windWay(playerLine(score, 0, secondsAt(score, 120, 120)), WIND_CHARTS[instrument], pins);
}
const keys = (w: WindWay): (string | undefined)[] => w.ways.map((x) => x?.keys);

test('a clarinet across the break: the little finger that is free takes the key', () => {
  // Handbook 16.2 [C]: the little finger needed on both sides in turn; then the other side is prepared before.
  assert.deepEqual(keys(way('clarinet', 'B c')), ['TR123456 lE', 'TR123456 rF']);
  assert.deepEqual(keys(way('clarinet', 'c _e')), ['TR123456 lF', 'TR123456 rG#'], 'E flat has the right little finger only');
  const over = way('clarinet', 'A B');
  assert.deepEqual(
    over.awkward.map((a) => a.at),
    [1]
  );
  assert.match(over.awkward[0].why.join(), /over the break/);
});

test('a step that no fingering makes easy is named, and an alternate that helps is taken', () => {
  const both = way('alto-sax', 'B, ^C');
  assert.match(both.awkward[0].why.join(), /the left little finger slides from B to C♯/);
  assert.deepEqual(keys(way('flute', 'F ^F', new Map([[1, 'T1235 rEb']]))).at(-1), 'T1235 rEb', 'a pin stays');
});

test('a trill takes the fingerings with the fewest fingers that move, and says which', () => {
  const trill = trillFingers(WIND_CHARTS.clarinet, parsePitch('F5')!, parsePitch('F#5')!)!;
  assert.deepEqual([trill.from.keys, trill.to.keys], ['TR1234', 'TR1234 f']);
  assert.deepEqual(trill.moving, ['the right third finger']);
  assert.equal(trillFingers(WIND_CHARTS.oboe, parsePitch('C2')!, parsePitch('D2')!), null);
});

test('charts: no two notes of one register alike, spelled alike, within the range of their instruments', () => {
  for (const [name, chart] of Object.entries(WIND_CHARTS)) {
    assert.ok(instrumentByKey(name), name);
    for (const [pitch, ways] of Object.entries(chart.ways)) {
      assert.ok(parsePitch(pitch), pitch);
      for (const w of ways.split('|'))
        assert.equal(
          [...readFingering(w.trim()).held.values()].join(' ').split(' ').length,
          new Set([...readFingering(w.trim()).held.values()].join(' ').split(' ')).size,
          `${name} ${pitch}`
        );
    }
  }
  assert.deepEqual(windFingerings(WIND_CHARTS.clarinet, parsePitch('D#5')!), windFingerings(WIND_CHARTS.clarinet, parsePitch('Eb5')!));
  assert.equal(windFingerings(WIND_CHARTS.clarinet, parsePitch('B#4')!)[0].keys, 'TR123456 rF');
});
