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
import { addPiece } from '../../../src/lib/server/repositories/pieces.ts';
import { writtenContent } from '../../../src/lib/server/schemas.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { withHead, withNewBar, withRhythm } from '../../../src/core/writing/edits.ts';
import { documentOf } from '../../../src/core/writing/to-tune.ts';
import { emptyWritten, type Written } from '../../../src/core/writing/written.ts';
import { demoPath, sample } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-writings-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const studio = new Studio(db, OWNER);

const EMPTY = emptyWritten(
  {
    title: 'Tide study',
    composer: '',
    instrument: 'Violin',
    transpose: 0,
    clefs: ['treble'],
    key: { fifths: 0, mode: 'major' },
    meter: '2/4',
    tempo: { words: '', unit: null, perMinute: null },
    upbeat: null
  },
  'bar-1'
);
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
  assert.deepEqual(await studio.saveWriting(id, 0, more), { revision: 1 });
  assert.deepEqual(await studio.saveWriting(id, 0, more), { revision: 1 }, 'the answer was lost, and it is sent again');
  const late = await studio.saveWriting(id, 0, withHead(EMPTY, { title: 'Another' }));
  assert.ok('conflict' in late);
  assert.deepEqual(late.conflict.content, JSON.parse(JSON.stringify(more)));
  assert.equal((await studio.writings())[0].title, 'Tide study');
});

test('nobody reaches what another writes', async () => {
  const id = await studio.beginWriting(EMPTY);
  const other = new Studio(db, 'somebody else');
  assert.equal((await refusedAs(other.writing(id)))[0], 404);
  assert.equal((await refusedAs(other.saveWriting(id, 0, EMPTY)))[0], 404);
  assert.equal((await refusedAs(other.removeWriting(id)))[0], 404);
  assert.deepEqual(await other.writings(), []);
});

test('a typed tune is opened again with the ids of its notes; a file is never altered', async () => {
  const bytes = readFileSync(demoPath('andantino.abc'));
  const piece = await take('andantino.abc', bytes);
  const id = await studio.openForWriting(piece.id);
  assert.equal(await studio.openForWriting(piece.id), id, 'the same writing once more');
  const { content } = await studio.writing(id);
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
  const { content, revision } = await studio.writing(id);
  const longer: Written = withRhythm(withNewBar(content, 3), 4, 0, [{ written: { n: 3, d: 1 }, rest: true }]);
  await studio.saveWriting(id, revision, longer);
  const [status, sentence] = await refusedAs(studio.correctPiece(id));
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
