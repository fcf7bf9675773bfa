import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { DRILL_KINDS, type DrillKind } from '../../../src/core/style/drills.ts';
import { METRONOME_SCALE } from '../../../src/core/style/tempo-words.ts';
import { demo, open, sample } from '../helpers.ts';
import { schemaErrors } from '../edition/schema.ts';
import { drillsIn, unfilled } from './made.ts';

const module = await createVerovioModule();
enableLog(LOG_OFF, module);
const toolkit = new VerovioToolkit(module);

/** Kinds seen in all the scores below. */
const seen = new Set<DrillKind>();
const SCORES = [
  ...['corrente.abc', 'etude.abc', 'andantino.abc', 'ferry.abc', 'last-boat.abc', 'rope-and-tar.abc'].map(
    (f) => [f, demo(f).score] as const
  ),
  ...['BWV_0773.xml', 'Telemann.xml', 'SchbAvMaSample.xml'].map((f) => [f, open(sample(f)).score] as const)
];

for (const [name, score] of SCORES)
  test(`${name}: every drill is a correct score: bars add up, the schema takes it, the engraver loads it`, async () => {
    const drills = drillsIn(score);
    assert.ok(drills.length > 0);
    for (const d of drills) {
      const what = `${d.kind} of ${d.from} to ${d.to}`;
      const read = readMusicXml(d.document);
      assert.ok(
        read.notes.some((n) => !n.rest),
        what
      );
      // Ornaments written out stand in bars without a meter.
      if (d.kind !== 'ornaments-exact') assert.deepEqual(unfilled(read), [], what);
      // The schema is slow: the first of each kind is enough for it.
      if (!seen.has(d.kind)) assert.deepEqual(await schemaErrors(d.document), [], what);
      seen.add(d.kind);
      assert.ok(toolkit.loadData(d.document) && toolkit.renderToSVG(1).includes('class="note"'), what);
      assert.ok(d.because.length > 5 && d.how.length > 20 && !/undefined|NaN/.test(d.because), what);
      assert.ok(d.tempo.start <= d.tempo.goal && METRONOME_SCALE.includes(d.tempo.start), what);
      assert.ok(d.from >= 0 && d.to >= d.from && d.to < score.measures.length, what);
      assert.equal(read.remarks.filter((r) => r.kind === 'repaired').length, 0, what);
    }
  });

test('most kinds are met in these scores', () => {
  const missing = DRILL_KINDS.filter((k) => !seen.has(k));
  assert.ok(missing.length <= 4, `not met: ${missing.join(', ')}`);
});
