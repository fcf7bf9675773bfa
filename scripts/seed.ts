/** Creates the database and puts the demo studio on the shelf, unless the shelf already holds something. */
import { openDatabase } from '../src/lib/server/db/client.ts';
import { listPieces } from '../src/lib/server/repositories/pieces.ts';
import { fillDemoStudio } from '../demo/studio.ts';

const db = await openDatabase(process.env.DATABASE_URL || undefined, process.env.DATA_DIR || 'data');
if ((await listPieces(db)).length === 0) {
  console.log('Filling in the demo studio …');
  await fillDemoStudio(db);
}
db.$client.close();
