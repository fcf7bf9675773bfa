import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { fillDemoStudio } from '../../../demo/studio.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { exportPiece, importPiece, type Archive } from '../../../src/lib/server/archive/archive.ts';
import { ArchiveError } from '../../../src/lib/server/archive/part.ts';
import { openDatabase } from '../../../src/lib/server/db/client.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { addEdition, findEdition, listEditions } from '../../../src/lib/server/repositories/editions.ts';
import { addPiece, listPieces } from '../../../src/lib/server/repositories/pieces.ts';
import { append, copyReading, findEditionInput, firstReading, logOf } from '../../../src/lib/server/repositories/readings.ts';
import { addSource, listSources, removeSource } from '../../../src/lib/server/repositories/sources.ts';
import { isArchive, readArchive } from '../../../src/lib/server/archive/read-archive.ts';

const folders = [0, 1].map(() => mkdtempSync(join(tmpdir(), 'nuvelo-')));
const [db, elsewhere] = await Promise.all(folders.map((folder) => openDatabase(undefined, folder)));
after(() => {
  db.$client.close();
  elsewhere.$client.close();
  folders.forEach((folder) => rmSync(folder, { recursive: true }));
});
await fillDemoStudio(db);
const piece = (await listPieces(db)).find((p) => p.title === 'Andantino grazioso')!;
const reading = (await firstReading(db, piece.id))!;

const freeze = async (note: string) => {
  const { input, row } = (await findEditionInput(db, reading.id))!;
  return addEdition(db, piece.id, { readingName: row.name, note, content: input, pdf: new TextEncoder().encode(`%PDF ${note}`) });
};
const studied = (archive: Archive) => TASKS.study({ document: archive.sources[0].document }, () => {});

test('the demo piece has its second source, compared, with what was decided', async () => {
  const { input } = (await findEditionInput(db, reading.id))!;
  assert.equal(input.others.length, 1);
  const { differences } = TASKS.collate({ document: input.document, other: input.others[0].document });
  assert.deepEqual(differences.map((d) => `${d.kind} ${d.measure + 1}`).sort(), [
    'articulation 13',
    'articulation 13',
    'articulation 13',
    'dynamic 9',
    'notes 12',
    'ornament 7',
    'rhythm 8',
    'slur 3',
    'tempo 1',
    'tempo 1'
  ]);
  assert.equal(input.reading.sourceChoices.length, 3);
  assert.ok(input.reading.sourceChoices.every((c) => differences.some((d) => d.id === c.difference)));
});

test('editions are numbered, and later changes do not touch them', async () => {
  const one = await freeze('for the jury');
  const before = JSON.stringify((await findEdition(db, one.id))!.content);
  const log = await logOf(db, reading.id);
  await append(db, reading.id, log.length, [{ origin: null, command: { type: 'set-period', period: 'modern' } }]);
  const two = await freeze('second thoughts');
  assert.deepEqual(
    (await listEditions(db, piece.id)).map((e) => [e.number, e.note, e.readingName]),
    [
      [1, 'for the jury', 'First reading'],
      [2, 'second thoughts', 'First reading']
    ]
  );
  assert.equal(JSON.stringify((await findEdition(db, one.id))!.content), before);
  assert.equal((await findEdition(db, two.id))!.content.reading.period, 'modern');
  assert.equal((await findEdition(db, one.id))!.pdf.toString(), '%PDF for the jury');
});

test('the archive of a piece comes back identical from another studio', async () => {
  await copyReading(db, reading.id, 'For the small hand');
  const archive = (await exportPiece(db, piece.id))!;
  assert.deepEqual([archive.sources.length, archive.readings.length, archive.editions.length], [2, 2, 2]);
  // Through the bytes of the file, as it is handed out, with the mark that some programs put before UTF-8.
  const sent = await TASKS.archive({ bytes: Buffer.from(`\uFEFF${JSON.stringify(archive)}`) }, () => {});
  const id = await importPiece(elsewhere, OWNER, sent.archive, sent.study);
  assert.deepEqual(await exportPiece(elsewhere, id), archive);
  const there = (await findEditionInput(elsewhere, (await firstReading(elsewhere, id))!.id))!;
  const here = (await findEditionInput(db, reading.id))!;
  assert.deepEqual(there.input.reading, here.input.reading);
  assert.deepEqual(there.input.others, here.input.others);
  // A second time it stands beside the first, with the same sources.
  await importPiece(elsewhere, OWNER, sent.archive, sent.study);
  assert.equal((await listPieces(elsewhere)).length, 2);
});

test('a damaged archive is refused with a sentence, and nothing of it is stored', async () => {
  const archive = (await exportPiece(db, piece.id))!;
  const count = (await listPieces(elsewhere)).length;
  const damaged = structuredClone(archive);
  damaged.sources[1].bytes = Buffer.from('other bytes').toString('base64');
  await assert.rejects(
    importPiece(elsewhere, OWNER, damaged, studied(archive)),
    (e: Error) => e instanceof ArchiveError && /fair copy.*damaged/.test(e.message)
  );
  const other = structuredClone(archive);
  other.sources[0].document += ' ';
  await assert.rejects(importPiece(elsewhere, OWNER, other, studied(archive)), /was read in another way/);
  const unknown = structuredClone(archive) as unknown as { readings: { acts: { command: object }[] }[] };
  unknown.readings[0].acts[0].command = { type: 'burn-the-score' };
  const refused = (text: string, why: RegExp) =>
    assert.throws(
      () => readArchive(Buffer.from(text)),
      (e: Error) => e instanceof ScoreError && why.test(e.message)
    );
  refused(JSON.stringify(unknown), /not the archive of a piece: readings\[0\]\.acts\[0\]\.command/);
  refused('{"format":"nuvelo-archive/1"}', /not the archive of a piece: piece is required/);
  refused('{"format":', /no valid JSON/);
  // A score is never taken for an archive.
  assert.deepEqual(
    [' {}', '\uFEFF{', '<score-partwise>', 'X:1', 'PK'].map((t) => isArchive(Buffer.from(t))),
    [true, true, false, false, false]
  );
  assert.equal((await listPieces(elsewhere)).length, count);
});

test('the same file is no second source; a source goes and what was decided about it stays', async () => {
  const bytes = readFileSync(join(import.meta.dirname, '../../../demo/scores/corrente.abc'));
  const intake = TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {});
  const own = await addPiece(db, 'corrente.abc', bytes, intake);
  assert.equal(await addSource(db, own.id, 'Again', 'corrente.abc', bytes, intake), false);
  const [copy] = await listSources(db, piece.id);
  assert.equal(await removeSource(db, own.id, copy.id), false);
  assert.equal(await removeSource(db, piece.id, copy.id), true);
  assert.deepEqual(await listSources(db, piece.id), []);
  assert.equal(replay(await logOf(db, reading.id)).sourceChoices.length, 3);
});
