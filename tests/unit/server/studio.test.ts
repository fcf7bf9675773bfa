import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { editions } from '../../../src/lib/server/db/schema.ts';
import { TASKS } from '../../../src/lib/server/jobs/tasks.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { addPiece } from '../../../src/lib/server/repositories/pieces.ts';
import { firstReading } from '../../../src/lib/server/repositories/readings.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { demoPath } from '../helpers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-studio-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const bytes = readFileSync(demoPath('corrente.abc'));
const intake = TASKS.intake({ bytes, fileName: 'corrente.abc' }, () => {});
const mine = await addPiece(db, 'corrente.abc', bytes, intake);
const theirs = await addPiece(db, 'corrente.abc', bytes, intake, 'somebody else');
const reading = async (piece: number): Promise<number> => (await firstReading(db, piece))!.id;

test('one reaches one’s own pieces and readings, and is told of others’ as of what is not there', async () => {
  const studio = new Studio(db, OWNER);
  assert.deepEqual(
    (await studio.shelf()).pieces.map((p) => p.id),
    [mine.id]
  );
  assert.equal((await studio.piece(mine.id)).row.title, 'Corrente in D minor');
  assert.ok(await studio.reading(await reading(mine.id)));
  const gone = { status: 404, body: { message: 'This piece is not on the shelf.' } };
  await assert.rejects(studio.piece(theirs.id), gone);
  await assert.rejects(studio.piece(9999), gone);
  await assert.rejects(studio.reading(await reading(theirs.id)), { status: 404 });
  await assert.rejects(studio.reading(9999), { status: 404 });
  await assert.rejects(studio.document('no such sum'), { status: 404 });
  assert.equal((await new Studio(db, 'somebody else').piece(theirs.id)).row.id, theirs.id);
});

test('a frozen edition is reached by whose piece it is of', async () => {
  const [{ id }] = await db
    .insert(editions)
    .values({ pieceId: theirs.id, number: 1, readingName: 'A reading', note: '', content: {}, pdf: Buffer.from('') })
    .returning();
  await assert.rejects(new Studio(db, OWNER).edition(id), { status: 404 });
  assert.equal((await new Studio(db, 'somebody else').edition(id)).number, 1);
  await assert.rejects(new Studio(db, OWNER).edition(9999), { status: 404 });
});
