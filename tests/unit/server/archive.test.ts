import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { strFromU8, unzipSync } from 'fflate';
import { fillDemoStudio } from '../../../demo/studio.ts';
import type { EditionInput } from '../../../src/core/edition/open-edition.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { exportPiece, importPiece, type Archive } from '../../../src/lib/server/archive/archive.ts';
import { ArchiveError } from '../../../src/lib/server/archive/part.ts';
import { openDatabase, type Database } from '../../../src/lib/server/db/open.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { openSource } from '../../../src/lib/server/jobs/edition-source.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { addEdition, findEdition, findPdf, listEditions } from '../../../src/lib/server/repositories/editions.ts';
import { addPiece, findDocument, findPiece, listPieces, removePiece } from '../../../src/lib/server/repositories/pieces.ts';
import { append, copyReading, findEditionSource, findReading, firstReading, logOf } from '../../../src/lib/server/repositories/readings.ts';
import { addSource, listSources, removeSource } from '../../../src/lib/server/repositories/sources.ts';
import { isArchive, readArchive } from '../../../src/lib/server/archive/read-archive.ts';

const folders = [0, 1, 2].map(() => mkdtempSync(join(tmpdir(), 'nuvelo-')));
const [db, elsewhere] = await Promise.all(folders.slice(0, 2).map((folder) => openDatabase(undefined, folder)));
after(() => {
  db.$client.close();
  elsewhere.$client.close();
  folders.forEach((folder) => rmSync(folder, { recursive: true }));
});
await fillDemoStudio(db);
const piece = (await listPieces(db)).find((p) => p.title === 'Andantino grazioso')!;
const reading = (await firstReading(db, piece.id))!;

/** Everything that a reading's edition is made of, in records. */
const inputOf = async (database: Database, id: number): Promise<EditionInput> => {
  const row = (await findReading(database, id))!;
  return openSource((await findEditionSource(database, (await findPiece(database, row.pieceId))!, id))!);
};
const freeze = async (note: string) =>
  addEdition(db, piece.id, {
    readingName: reading.name,
    note,
    content: await inputOf(db, reading.id),
    pdf: new TextEncoder().encode(`%PDF-1.4 ${note}`)
  });
/** An archive into which anything can be written. */
interface Loose {
  readings: { acts: { command: unknown }[] }[];
  editions: {
    pdf: string;
    createdAt: number;
    content: { document: string; reading: { markings: { kind: string; because: unknown }[] } };
  }[];
}
/** The bytes of an archive, as it is handed out. */
const exported = async (database: Database, id: number): Promise<Buffer> => {
  let text = '';
  for await (const part of exportPiece(database, (await findPiece(database, id))!)) text += part;
  return Buffer.from(text);
};
const archiveOf = async (database: Database, id: number): Promise<Archive> =>
  JSON.parse((await exported(database, id)).toString()) as Archive;
const readBack = (archive: Archive) => TASKS.archive({ bytes: Buffer.from(JSON.stringify(archive)) }, () => {});

test('the demo piece has its second source, compared, with what was decided', async () => {
  const input = await inputOf(db, reading.id);
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
  const before = (await findEdition(db, one.id))!.content;
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
  assert.equal((await findEdition(db, one.id))!.content, before);
  assert.equal((JSON.parse((await findEdition(db, two.id))!.content) as EditionInput).reading.period, 'modern');
  assert.equal((await findPdf(db, one.id))!.toString(), '%PDF-1.4 for the jury');
});

test('the archive of a piece comes back identical from another studio', async () => {
  await copyReading(db, reading.id, 'For the small hand');
  const archive = await archiveOf(db, piece.id);
  assert.deepEqual([archive.sources.length, archive.readings.length, archive.editions.length], [2, 2, 2]);
  // Through the bytes of the file, as it is handed out, with the mark that some programs put before UTF-8.
  const sent = await TASKS.archive({ bytes: Buffer.concat([Buffer.from('\uFEFF'), await exported(db, piece.id)]) }, () => {});
  const id = await importPiece(elsewhere, OWNER, sent);
  assert.deepEqual(await archiveOf(elsewhere, id), archive);
  const there = await inputOf(elsewhere, (await firstReading(elsewhere, id))!.id);
  const here = await inputOf(db, reading.id);
  assert.deepEqual(there.reading, here.reading);
  assert.deepEqual(there.others, here.others);
  // A second time it stands beside the first, with the same sources.
  await importPiece(elsewhere, OWNER, sent);
  assert.equal((await listPieces(elsewhere)).length, 2);
});

test('what an archive says of a source is not believed: it is read from its bytes, and later imports of them are what they are', async () => {
  const forged = await archiveOf(db, piece.id);
  const [own] = forged.sources;
  own.document = own.document.replace(/<step>[A-G]<\/step>/g, '<step>C</step>');
  own.format = 'musicxml';
  forged.piece.bars = 9999;
  forged.piece.createdAt = 4_000_000_000;
  const fresh = await openDatabase(undefined, folders[2]);
  try {
    const id = await importPiece(fresh, OWNER, await readBack(forged));
    const stored = (await findPiece(fresh, id))!;
    assert.equal(stored.bars, piece.bars);
    assert.ok(stored.createdAt <= Date.now() / 1000);
    assert.equal(await findDocument(fresh, stored.sourceHash), await findDocument(db, piece.sourceHash));
    const bytes = Buffer.from(own.bytes, 'base64');
    const again = await addPiece(
      fresh,
      own.fileName,
      bytes,
      TASKS.intake({ bytes, fileName: own.fileName }, () => {})
    );
    assert.equal(await findDocument(fresh, again.sourceHash), await findDocument(db, piece.sourceHash));
    // With the last piece its sources and studies go.
    await removePiece(fresh, id);
    assert.equal(Number((await fresh.$client.execute('select count(*) as n from sources')).rows[0].n), 1);
    await removePiece(fresh, again.id);
    for (const table of ['sources', 'studies', 'compared_sources', 'editions', 'commands', 'readings'])
      assert.equal(Number((await fresh.$client.execute(`select count(*) as n from ${table}`)).rows[0].n), 0, table);
  } finally {
    fresh.$client.close();
  }
});

test('a damaged archive is refused with a sentence, and nothing of it is stored', async () => {
  const archive = await archiveOf(db, piece.id);
  const count = (await listPieces(elsewhere)).length;
  const damaged = structuredClone(archive);
  damaged.sources[1].bytes = Buffer.from('other bytes').toString('base64');
  await assert.rejects(readBack(damaged), (e: Error) => e instanceof ArchiveError && /fair copy.*damaged/.test(e.message));
  const refused = (text: string, why: RegExp) =>
    assert.throws(
      () => readArchive(Buffer.from(text)),
      (e: Error) => e instanceof ScoreError && why.test(e.message)
    );
  /** The archive with something else in it. */
  const changed = (change: (a: Loose) => void): string => {
    const copy = structuredClone(archive);
    change(copy);
    return JSON.stringify(copy);
  };
  refused(
    changed((a) => (a.readings[0].acts[0].command = { type: 'burn-the-score' })),
    /not the archive of a piece: readings\[0\]\.acts\[0\]\.command/
  );
  refused(
    changed((a) => (a.editions[0].content.reading.markings[0].kind = 'burning')),
    /editions\[0\]\.content\.reading\.markings\[0\]/
  );
  refused(
    changed((a) => (a.editions[0].content.reading.markings[0].because = [{ text: 'So.', sources: ['nobody'] }])),
    /editions\[0\]\.content\.reading\.markings\[0\]\.because\[0\]\.sources/
  );
  refused(
    changed((a) => (a.editions[0].pdf = Buffer.from('<script>').toString('base64'))),
    /editions\[0\]\.pdf is no PDF/
  );
  refused(
    changed((a) => (a.editions[0].createdAt = 1e15)),
    /editions\[0\]\.createdAt/
  );
  refused('{"format":"nuvelo-archive/1"}', /not the archive of a piece: piece is required/);
  refused('{"format":', /no valid JSON/);
  const noScore = JSON.parse(changed((a) => (a.editions[0].content.document = '<html/>'))) as Archive;
  await assert.rejects(readBack(noScore), (e: Error) => e instanceof ScoreError && /begins with <html>/.test(e.message));
  // A score is never taken for an archive.
  assert.deepEqual(
    [' {}', '\uFEFF{', '<score-partwise>', 'X:1', 'PK'].map((t) => isArchive(Buffer.from(t))),
    [true, true, false, false, false]
  );
  assert.equal((await listPieces(elsewhere)).length, count);
});

test('all archives come in one compressed file, and each is taken in again', async () => {
  const studio = new Studio(db, OWNER);
  const parts: Uint8Array[] = [];
  for await (const part of studio.allArchives()) parts.push(part);
  const files = unzipSync(Buffer.concat(parts));
  assert.equal(Object.keys(files).length, (await listPieces(db)).length);
  const [name] = Object.keys(files).filter((f) => f.startsWith('andantino'));
  assert.deepEqual(JSON.parse(strFromU8(files[name])), await archiveOf(db, piece.id));
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
