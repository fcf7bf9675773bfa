import assert from 'node:assert/strict';
import { test } from 'node:test';
import createVerovioModule from 'verovio/wasm';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { chunkWriter } from '../../../src/core/edition/chunk.ts';
import { editionMei } from '../../../src/core/edition/mei.ts';
import { editionMeiFile } from '../../../src/core/edition/mei-file.ts';
import { Engraving } from '../../../src/core/edition/engraving.ts';
import { isOnNote, isSpan, kindOf, valuesOf } from '../../../src/core/markings/describe.ts';
import { MARKING_KINDS } from '../../../src/core/markings/marking-kind.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { frac } from '../../../src/core/score/fraction.ts';
import { demo, markingAt } from '../helpers.ts';

const module = await createVerovioModule();
enableLog(LOG_OFF, module);
const engraving = new Engraving(new VerovioToolkit(module));

const { text, score } = demo('andantino.abc');
const notes = score.notes.filter((n) => n.part === 0 && !n.rest && !n.grace && n.measure < 4);
const [first, , third] = notes;
const chunk = { from: 0, to: 4, systems: [0] };
const source = engraving.mei(chunkWriter(text, score)(chunk));
const look = { pageWidth: 4000, scale: 40, margin: 30, lastFills: 0 };
const drawn = (...markings: Marking[]): string => engraving.chunk(source, score, chunk, markings, [], look, false)(1);
/** The picture of one sign. */
const signOf = (svg: string, id: string): string => new RegExp(`<g id="${id}"[\\s\\S]*?</g>`).exec(svg)?.[0] ?? '';
const heights = (sign: string): number[] => [...sign.matchAll(/(?:translate\([\d.-]+, |y="|,)(-?\d+)/g)].map((m) => Number(m[1]));

test('every kind and value is engraved under its own id', () => {
  for (const kind of MARKING_KINDS.filter((k) => k !== 'advice' && k !== 'emendation'))
    for (const value of valuesOf(kind) ?? [kind === 'metronome' ? '60' : '3']) {
      const m = markingAt(kind, value, first.start.n / first.start.d, { id: 'own', staff: first.staff });
      if (isOnNote(kind)) m.note = first.id;
      if (isSpan(kind)) m.end = kindOf(kind).hangs === 'notes' ? third.start : frac(3);
      if (kindOf(kind).hangs === 'notes') m.endNote = third.id;
      assert.ok(/<g id="own" class="[^"]*editorial/.test(drawn({ ...m, start: first.start })), `${kind} ${value}`);
    }
});

test('a marking that was moved stands two spaces higher, or on the other side; alone it stands where the engraver puts it', () => {
  const p = markingAt('dynamic', 'p', 0, { id: 'own', start: first.start });
  const y = (m: Marking): number => heights(signOf(drawn(m), 'own'))[0];
  // 180 units are a staff space.
  assert.ok(Math.abs(y(p) - y({ ...p, placing: { up: 2 } }) - 360) < 2);
  assert.ok(y({ ...p, placing: { side: 'above' } }) < y(p) - 5 * 180);
  const hairpin = markingAt('hairpin', 'crescendo', 0, { id: 'own', start: first.start, end: frac(3) });
  const middle = (m: Marking): number => Number(/points="[^ ]+ [\d.]+,(-?\d+)/.exec(signOf(drawn(m), 'own'))![1]);
  assert.ok(Math.abs(middle({ ...hairpin, placing: { up: -1.5 } }) - middle(hairpin) - 270) < 2);
  const slur = markingAt('slur', 'slur', 0, { id: 'own', start: first.start, end: third.start, note: first.id, endNote: third.id });
  assert.notEqual(
    signOf(drawn({ ...slur, placing: { side: 'below' } }), 'own'),
    signOf(drawn({ ...slur, placing: { side: 'above' } }), 'own')
  );
});

test('an emended note stands small in the place of the printed one; an encoding has both', () => {
  const printed = first.pitch!;
  const meant = `${'CDEFGAB'[(printed.step + 1) % 7]}${printed.octave}`;
  const m = markingAt('emendation', meant, 0, { id: 'own', start: first.start, note: first.id });
  const mei = editionMei(source, score, chunk, [m]);
  const tag = new RegExp(`<note[^>]*xml:id="${first.id}"[^>]*>`).exec(mei)![0];
  assert.match(tag, new RegExp(`cue="true".*pname="${meant[0].toLowerCase()}"`));
  assert.equal(tag.match(/pname=/g)!.length, 1);
  assert.ok(new RegExp(`id="${first.id}" class="note editorial emendation"`).test(drawn(m)));
  const file = editionMeiFile(source, score, [m], [], 'A. Teacher', { name: 'A', score, mei: source, others: [], choices: [] });
  const both = new RegExp(
    `<choice xml:id="own"><sic><note[^>]*xml:id="${first.id}"[\\s\\S]*?</sic><corr resp="#editor"><note[^>]*xml:id="${first.id}-meant"`
  );
  assert.ok(both.test(file));
  const ids = [...file.matchAll(/xml:id="([^"]+)"/g)].map((x) => x[1]);
  assert.equal(new Set(ids).size, ids.length, 'no id twice');
});
