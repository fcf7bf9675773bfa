import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { isHttpError } from '@sveltejs/kit';
import { valid } from '../../../src/lib/server/http.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { importPiece } from '../../../src/lib/server/archive/archive.ts';
import { addPiece } from '../../../src/lib/server/repositories/pieces.ts';
import { writtenContent } from '../../../src/lib/server/schemas.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { changeBetween } from '../../../src/core/writing/change.ts';
import { withHead, withNewBar, withRhythm, withVoice } from '../../../src/core/writing/edits.ts';
import { documentOf } from '../../../src/core/writing/to-tune.ts';
import { EMPTY_HEAD, emptyWritten, type Written } from '../../../src/core/writing/written.ts';
import { demoPath, sample } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-writings-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const studio = new Studio(db, OWNER);

const EMPTY = emptyWritten({ ...EMPTY_HEAD, title: 'Tide study', instrument: 'Violin', meter: '2/4' }, 'bar-1');
/** Saves what differs between two states, as a window does. */
const save = async (id: number, base: number, from: Written, to: Written, name = `save-${to.bars.length}-${base}`, by = studio) =>
  (await by.writing(id)).save(base, name, changeBetween(from, to));
const correct = async (id: number) => (await studio.writing(id)).correct();
const HALF = [{ written: { n: 2, d: 1 }, rest: false }];
const take = async (name: string, bytes: Buffer) =>
  addPiece(
    db,
    name,
    bytes,
    TASKS.intake({ bytes, fileName: name }, () => {})
  );
const refusedAs = async (act: Promise<unknown>): Promise<[number, string]> => {
  try {
    await act;
  } catch (error) {
    if (isHttpError(error)) return [error.status, error.body.message];
    throw error;
  }
  throw new Error('it was not refused');
};

test('what is written is kept by revisions; who comes late is told what stands there; what is sent twice stands once', async () => {
  const id = await studio.beginWriting(EMPTY);
  const more = withRhythm(EMPTY, 0, 0, HALF);
  assert.deepEqual(await save(id, 0, EMPTY, more, 'first'), { revision: 1 });
  assert.deepEqual(await save(id, 0, EMPTY, more, 'first'), { revision: 1 }, 'the answer was lost, and it is sent again');
  const late = await save(id, 0, EMPTY, withHead(EMPTY, { title: 'Another' }), 'another window');
  assert.ok('conflict' in late);
  assert.deepEqual(late.conflict.content, JSON.parse(JSON.stringify(more)));
  assert.equal(late.conflict.lastSave, 'first', 'by which a window knows its own');
  assert.deepEqual(await save(id, 1, more, withHead(more, { title: 'Renamed' })), { revision: 2 });
  assert.equal((await studio.writings())[0].title, 'Renamed');
  const [status, sentence] = await refusedAs((await studio.writing(id)).save(2, 'half', { lanes: withVoice(EMPTY, 1).lanes, bars: [] }));
  assert.equal(status, 400);
  assert.match(sentence, /bar 1 has another number of voices/);
  assert.match(
    (await refusedAs((await studio.writing(id)).save(2, 'odd', { bars: [{ id: 'elsewhere', lanes: [[]] }] })))[1],
    /does not belong/
  );
});

test('nobody reaches what another writes', async () => {
  const id = await studio.beginWriting(EMPTY);
  const other = new Studio(db, 'somebody else');
  assert.equal((await refusedAs(save(id, 0, EMPTY, withHead(EMPTY, { title: 'Mine now' }), 'theirs', other)))[0], 404);
  assert.equal((await refusedAs(other.writing(id)))[0], 404);
  assert.deepEqual(await other.writings(), []);
});

test('a typed tune is opened again with the ids of its notes; a file is never altered', async () => {
  const bytes = readFileSync(demoPath('andantino.abc'));
  const piece = await take('andantino.abc', bytes);
  const id = await studio.openForWriting(piece.id);
  assert.equal(await studio.openForWriting(piece.id), id, 'the same writing once more');
  const { content } = (await studio.writing(id)).state;
  const before = readMusicXml(await studio.document(piece.sourceHash));
  assert.deepEqual(
    readMusicXml(documentOf(content)).notes.map((n) => n.id),
    before.notes.map((n) => n.id)
  );
  const file = await take('mozart.xml', readFileSync(sample('MozartPianoSonata.xml')));
  const [status, sentence] = await refusedAs(studio.openForWriting(file.id));
  assert.equal(status, 409);
  assert.match(sentence, /never altered.*emendation/);
});

test('a correction that adds bars would move markings: it is refused, and nothing is changed', async () => {
  const piece = await take('corrente.abc', readFileSync(demoPath('corrente.abc')));
  const id = await studio.openForWriting(piece.id);
  const { content, revision } = (await studio.writing(id)).state;
  const longer: Written = withRhythm(withNewBar(content, 3), 4, 0, [{ written: { n: 3, d: 1 }, rest: true }]);
  await save(id, revision, content, longer);
  const [status, sentence] = await refusedAs(correct(id));
  assert.equal(status, 409);
  assert.match(sentence, /Bars were added or taken out/);
  assert.equal((await studio.piece(piece.id)).row.sourceHash, piece.sourceHash);
});

test('what is no written score is refused in a sentence that says where', () => {
  const wrong = (content: unknown): string => {
    try {
      valid(writtenContent, content, 'The score');
    } catch (error) {
      if (isHttpError(error)) return error.body.message;
    }
    return 'taken';
  };
  assert.equal(wrong(EMPTY), 'taken');
  assert.match(wrong({ ...EMPTY, bars: [{ id: 'x', lanes: [[], []] }] }), /bar 1 has another number of voices/);
  assert.match(wrong({ ...EMPTY, head: { ...EMPTY.head, meter: 'three' } }), /meter is no meter/);
  assert.match(wrong({ ...EMPTY, bars: [] }), /bars/);
  assert.match(wrong(withRhythm(EMPTY, 0, 0, [{ written: { n: 2, d: 0 }, rest: false }])), /duration/);
});

/** The smallest pictures that are taken: only their first bytes are looked at. */
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
const JPEG = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 4, 5, 6]);
const CUTS = [{ top: 0.1, bottom: 0.2, lines: [0.05, 0.5, 0.95] }];

async function onPaper(): Promise<{ piece: number; writing: number }> {
  const piece = await take('etude.abc', readFileSync(demoPath('etude.abc')));
  const writing = await studio.openForWriting(piece.id);
  const room = await studio.writing(writing);
  await room.cut((await room.addPage(PNG)).id, CUTS);
  await room.addPage(JPEG);
  return { piece: piece.id, writing };
}

test('pages of paper stay with the piece: in its archive, and gone with it; what is no picture is refused', async () => {
  const { piece, writing } = await onPaper();
  assert.match((await refusedAs((await studio.writing(writing)).addPage(Buffer.from('%PDF-1.7'))))[1], /no picture/);
  assert.equal((await refusedAs((await studio.writing(writing)).cut(999, CUTS)))[0], 404);
  let text = '';
  for await (const part of (await studio.piece(piece)).archive()) text += part;
  const back = await importPiece(db, OWNER, await TASKS.archive({ bytes: Buffer.from(text) }, () => {}));
  const paper = (await (await studio.piece(back)).paper())!;
  assert.notEqual(paper.writing, writing);
  assert.deepEqual(
    paper.pages.map((p) => p.cuts),
    [CUTS, []]
  );
  const copy = await studio.writing(paper.writing);
  assert.deepEqual((await copy.picture(paper.pages[1].id)).bytes, JPEG);
  assert.deepEqual(copy.state.content, (await studio.writing(writing)).state.content);
  assert.equal(await studio.openForWriting(back), paper.writing, 'it is opened again where it was written');
  const without = JSON.parse(text) as Record<string, unknown>;
  delete without.writing;
  delete without.paper;
  const older = await importPiece(db, OWNER, await TASKS.archive({ bytes: Buffer.from(JSON.stringify(without)) }, () => {}));
  assert.equal(await (await studio.piece(older)).paper(), null, 'archives of earlier versions have none');
  await assert.rejects(
    TASKS.archive({ bytes: Buffer.from(text.replace(PNG.toString('base64'), Buffer.from('no picture').toString('base64'))) }, () => {}),
    /no picture/
  );
  await (await studio.piece(back)).remove();
  await studio.removeForGood(back, false);
  assert.equal((await refusedAs(studio.writing(paper.writing)))[0], 404);
  assert.equal((await db.$client.execute(`select count(*) as n from facsimile_pages where writing_id = ${paper.writing}`)).rows[0].n, 0);
});

test('what stands on the shelf already and is put there once more is a copy: the first piece keeps its own', async () => {
  const { piece, writing } = await onPaper();
  const other = await take('copy.abc', Buffer.from(readFileSync(demoPath('etude.abc'), 'utf8').replace(/^T:.*$/m, 'T:Another étude')));
  await (await studio.writing(writing)).shelve(other.id);
  assert.equal(await studio.openForWriting(piece), writing);
  const copy = await studio.openForWriting(other.id);
  assert.notEqual(copy, writing);
  assert.deepEqual(
    (await (await studio.piece(other.id)).paper())!.pages.map((p) => p.cuts),
    [CUTS, []]
  );
});
