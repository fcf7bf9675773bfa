/** Creates the database and puts the demo studio on the shelf, unless the shelf already holds something. */
import { engineKey } from './engine-key.ts';

// What is studied here is known to the built server, which has the same engine.
Object.assign(globalThis, { __NUVELO_ENGINE__: await engineKey() });
const { openDatabase } = await import('../src/lib/server/db/open.ts');
const { listPieces } = await import('../src/lib/server/repositories/pieces.ts');
const { fillDemoStudio } = await import('../demo/studio.ts');

const db = await openDatabase(process.env.DATABASE_URL || undefined, process.env.DATA_DIR || 'data');
if ((await listPieces(db)).length === 0) {
  console.log('Filling in the demo studio …');
  await fillDemoStudio(db);
}
db.$client.close();
