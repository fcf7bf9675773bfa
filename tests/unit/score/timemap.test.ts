import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { playedLength } from '../../../src/core/score/repeats.ts';
import { open, sample, demo } from '../helpers.ts';

// Reference: Verovio's time map, which unfolds repeats on its own and gives score time in quarters.
const module = await createVerovioModule();
enableLog(LOG_OFF, module);

function verovioEnd(text: string): number {
  const toolkit = new VerovioToolkit(module);
  toolkit.setOptions({ expand: '' });
  assert.ok(toolkit.loadData(text));
  return Math.max(...toolkit.renderToTimemap({ includeRests: true }).map((e) => e.qstamp));
}

test('lengths as written agree with Verovio on scores without repeats', () => {
  for (const name of ['BWV_0773.xml', 'FaurReveSample.xml', 'MahlFaGe4Sample.xml', 'BrahWiMeSample.xml', 'SchbAvMaSample.xml']) {
    const { text, score } = open(sample(name));
    assert.equal(toNumber(playedLength(score.measures)), verovioEnd(text), name);
  }
});

test('with repeats, too, both unfold to the same length', () => {
  const { text, score } = demo('corrente.abc');
  assert.equal(toNumber(playedLength(score.measures)), verovioEnd(text));
});
