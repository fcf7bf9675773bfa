import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { newPlayer, type Player } from '../../../src/core/players/player.ts';
import { valid } from '../../../src/lib/server/http.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { playerContent } from '../../../src/lib/server/schemas.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { refusedAs } from './refused.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-players-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const studio = new Studio(db, OWNER);

const check = (change: object): Promise<string> => refusedAs(() => valid(playerContent, { ...newPlayer('Nora'), ...change }, 'The player'));

test('a player is kept, changed under its key, taken away; another person has none of them', async () => {
  await studio.keepPlayer('nora', { ...newPlayer('Nora'), instrument: 'flute', breath: 6 });
  await studio.keepPlayer('ivo', newPlayer('Ivo'));
  await studio.keepPlayer('nora', { ...newPlayer('Nora'), breath: 7 });
  await studio.keepPlayer('nora', { ...newPlayer('Nora'), breath: 7 });
  assert.deepEqual(
    (await studio.players()).map((p: Player) => [p.key, p.name, p.breath]),
    [
      ['nora', 'Nora', 7],
      ['ivo', 'Ivo', null]
    ]
  );
  const other = new Studio(db, 'somebody else');
  assert.deepEqual(await other.players(), []);
  assert.match(await refusedAs(() => other.removePlayer('nora')), /^404 This player is not here/);
  await studio.removePlayer('nora');
  assert.deepEqual(
    (await studio.players()).map((p) => p.name),
    ['Ivo']
  );
});

test('what is said of a player is checked, and what is wrong is named', async () => {
  assert.equal(await check({ lowest: 'G3', highest: 'D6', reach: 15, fingerings: [{ pitch: 'F#5', fingering: 'TR1235' }] }), 'taken');
  assert.match(await check({ name: '  ' }), /name/);
  assert.match(await check({ breath: 0 }), /breath/);
  assert.match(await check({ reach: 90 }), /reach/);
  assert.match(await check({ lowest: 'H3' }), /lowest is a letter/);
  assert.match(await check({ lowest: 'D6', highest: 'G3' }), /the lowest note lies above the highest/);
  assert.match(await check({ instrument: 'kazoo' }), /instrument/);
  assert.match(await check({ fingerings: Array.from({ length: 201 }, () => ({ pitch: 'C4', fingering: '1' })) }), /fingerings/);
  assert.match(await check({ other: 1 }), /other/);
});
