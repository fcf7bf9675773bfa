import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { DrillSettings } from '../../../src/core/rehearsal/context.ts';
import { makeDrill, settingsFor } from '../../../src/core/rehearsal/drills.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { CONTROLS_OF, DRILL_CONTROLS, DRILL_KINDS, TURNED, type DrillControl, type DrillKind } from '../../../src/core/style/drills.ts';
import { abc, demo } from '../helpers.ts';
import { contextOf, drillsIn, unfilled } from './made.ts';

const RUN = 'X:1\nM:4/4\nL:1/16\nQ:1/4=120\nK:C\nCDEFGABc defgfedc | BAGFEDCD EFGABcde | c16 |]';
const SEQUENCE = demo('corrente.abc').score;

function set(kind: DrillKind, settings: Partial<DrillSettings>, score: Score = abc(RUN), to = 1): Score {
  const drill = makeDrill(contextOf(score), kind, 0, to, settings);
  assert.ok(drill, kind);
  return readMusicXml(drill.document);
}
const struckIn = (s: Score): number => s.notes.filter((n) => !n.rest && !n.grace).length;

test('groups have as many notes as are set, and three where the beat is in three', () => {
  const inFives = set('groups', { group: 5 });
  // Thirty-two quick notes: six groups of five, each with its silence.
  assert.equal(struckIn(inFives), 30);
  assert.equal(inFives.measures.length, 6);
  assert.equal(settingsFor('groups', {}, false).group, 4);
  assert.equal(settingsFor('groups', {}, true).group, 3);
});

test('slurs grow from the size that is set to its double', () => {
  const words = set('slurs-grow', { slur: 4 }).directions.flatMap((d) => (d.kind === 'words' ? [d.text] : []));
  assert.deepEqual(words, ['each by itself', '4 in a slur', '8 in a slur']);
  // Every slur is whole, whatever the size.
  for (const slur of [2, 3, 4, 5, 6]) {
    const score = set('slurs-grow', { slur });
    assert.equal(struckIn(score) % (3 * 2 * slur), 0, `${slur}`);
    const sizes = [slur, 2 * slur];
    assert.equal(
      score.slurs.length,
      sizes.reduce((n, size) => n + struckIn(score) / 3 / size, 0),
      `${slur}`
    );
  }
});

test('accents move through a group of the size that is set', () => {
  const score = set('accents-moved', { group: 3 });
  const accents = score.measures.map((m) => score.notes.filter((n) => n.measure === m.index).findIndex((n) => n.marks?.length));
  assert.deepEqual(accents, [0, 1, 2]);
});

test('repeats play all so many times, with its words once', () => {
  const [once, thrice] = [1, 3].map((repeats) => set('long-short', { repeats }));
  assert.equal(struckIn(thrice), 3 * struckIn(once));
});

test('a chain grows by as many beats as are set and ends on the whole', () => {
  const context = contextOf(SEQUENCE);
  const spot = context.spots.find((s) => s.to - s.from < 4)!;
  const chain = (unit: number): Score => readMusicXml(makeDrill(context, 'from-the-end', spot.from, spot.to, { unit })!.document);
  const steps = (s: Score): string[] => s.directions.flatMap((d) => (d.kind === 'words' ? [d.text] : []));
  assert.ok(steps(chain(2)).length < steps(chain(1)).length);
  assert.equal(steps(chain(2)).at(-1), 'all');
});

test('what is set lies between its ends, and what a kind does not have says nothing', () => {
  for (const kind of DRILL_KINDS)
    for (const extreme of [-99, 0, 1, 3, 99]) {
      const all = Object.fromEntries(Object.keys(DRILL_CONTROLS).map((c) => [c, extreme])) as unknown as DrillSettings;
      const found = settingsFor(kind, all, false);
      for (const control of Object.keys(DRILL_CONTROLS) as DrillControl[]) {
        const { least, most } = DRILL_CONTROLS[control];
        assert.ok(found[control] >= least && found[control] <= most);
        if (CONTROLS_OF[kind]?.[control] === undefined) assert.equal(found[control], settingsFor(kind, {}, false)[control]);
      }
    }
  for (const [kind, other] of Object.entries(TURNED)) assert.equal(TURNED[other], kind);
});

test('at both ends of every control each kind is a correct score: its bars add up', () => {
  const context = contextOf(SEQUENCE);
  let made = 0;
  for (const drill of drillsIn(SEQUENCE))
    for (const control of Object.keys(CONTROLS_OF[drill.kind] ?? {}) as DrillControl[])
      for (const value of [DRILL_CONTROLS[control].least, DRILL_CONTROLS[control].most]) {
        const other = makeDrill(context, drill.kind, drill.from, drill.to, { [control]: value });
        if (!other) continue;
        made++;
        assert.deepEqual(unfilled(readMusicXml(other.document)), [], `${drill.kind} ${control} ${value}`);
      }
  assert.ok(made >= 8, `${made} drills`);
});
