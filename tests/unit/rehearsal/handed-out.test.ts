import assert from 'node:assert/strict';
import { test } from 'node:test';
import { barsAsTask, drillAsTask, editedBars, startOf } from '../../../src/core/rehearsal/plan/sheets.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { schemaErrors } from '../edition/schema.ts';
import { demo, markingAt, open, sample } from '../helpers.ts';
import { contextOf, drillsIn } from './made.ts';

const edited = (path: string, reading: Partial<Reading> = {}) => {
  const { text, score } = open(path);
  return { document: text, score, reading: { ...EMPTY_READING, ...reading } };
};
const SONG = sample('BeetAnGeSample.xml');

test('a sheet of a passage is the edition’s own text of its bars, for the part that is played, and a correct score', async () => {
  for (const part of [0, 1]) {
    const document = editedBars(edited(SONG, { part }))({ from: 2, to: 5 });
    const sheet = readMusicXml(document);
    const { score } = open(SONG);
    assert.equal(sheet.parts.length, 1);
    assert.equal(sheet.parts[0].name, score.parts[part].name);
    assert.deepEqual(
      sheet.measures.map((m) => m.number),
      ['3', '4', '5', '6']
    );
    const own = score.notes.filter((n) => n.part === part && n.measure >= 2 && n.measure <= 5);
    assert.deepEqual(
      sheet.notes.map((n) => [n.pitch, n.duration, n.measure + 2]),
      own.map((n) => [n.pitch, n.duration, n.measure])
    );
    assert.deepEqual(await schemaErrors(document), []);
  }
});

test('what the teacher marked stands on the sheet, what is marked for another part does not', () => {
  const markings = [
    { ...markingAt('text', 'sempre dolce', 8), id: 'a', part: 0 },
    { ...markingAt('text', 'not for the singer', 8), id: 'b', part: 1 }
  ];
  const document = editedBars(edited(SONG, { markings }))(null);
  assert.match(document, /sempre dolce/);
  assert.doesNotMatch(document, /not for the singer/);
});

test('a plan begins with notes for all that is played, and none for what is only heard', () => {
  const { text, score } = demo('corrente.abc');
  const context = contextOf(score);
  const piece = { id: 1, reading: 1, title: 'Corrente', seconds: 60, tempo: null, cuts: '' };
  const whole = { document: text, score, reading: EMPTY_READING };
  for (const { task, document } of startOf(context, whole, piece)) {
    assert.equal(document === null, task.kind === 'listen', task.title);
    if (document === null) continue;
    const { from, to } = task.bars ?? { from: 0, to: score.measures.length - 1 };
    assert.equal(readMusicXml(document).measures.length, to - from + 1, task.title);
  }
  const own = barsAsTask(context, whole, 1, { from: 4, to: 5 }, { title: 'trill', how: 'from above' });
  assert.deepEqual([own.task.kind, own.task.how, own.task.bars], ['own', 'from above', { from: 4, to: 5 }]);
  const [drill] = drillsIn(score);
  assert.equal(drillAsTask(context, 1, drill).document, drill.document);
});
