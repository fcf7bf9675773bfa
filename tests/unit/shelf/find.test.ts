import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALL, found, nextOf, NONE, stageOf, valuesOf, whenSaid } from '../../../src/lib/shelf/find.ts';
import type { ShelfPiece } from '../../../src/lib/shapes.ts';

const piece = (id: number, rest: Partial<ShelfPiece>): ShelfPiece => ({
  id,
  title: `Piece ${id}`,
  composer: '',
  instrument: '',
  bars: 8,
  group: null,
  period: null,
  openedAt: null,
  createdAt: id,
  acts: 0,
  editions: 0,
  ...rest
});
const SHELF = [
  piece(1, { title: 'Étude 10', composer: 'Ilse Marten', instrument: 'Viola', acts: 3, period: 'romantic' }),
  piece(2, { title: 'Étude 9', composer: 'Ilse Marten', instrument: 'Viola', editions: 1, acts: 9, openedAt: 500 }),
  piece(3, { title: 'March', composer: 'A. Holm', instrument: 'Pipes', group: 'Band', bars: 32 })
];
const ids = (wanted: Partial<typeof ALL>): number[] => found(SHELF, { ...ALL, ...wanted }).map((p) => p.id);

test('words are found in title, composer, instrument and group, without accents and capitals; every word counts', () => {
  assert.deepEqual(ids({ words: 'etude MARTEN', order: 'added' }), [2, 1]);
  assert.deepEqual(ids({ words: 'band march' }), [3]);
  assert.deepEqual(ids({ words: 'band etude' }), []);
});

test('the shelf is ordered as one asks, numbers in titles by their size', () => {
  assert.deepEqual(ids({ order: 'title' }), [2, 1, 3]);
  assert.deepEqual(ids({ order: 'opened' }), [2, 3, 1]);
  assert.deepEqual(ids({ order: 'bars' }), [2, 1, 3]);
});

test('choices narrow it, “none” too', () => {
  assert.deepEqual(ids({ instrument: 'Viola', stage: 'reading' }), [1]);
  assert.deepEqual(ids({ period: NONE }).sort(), [2, 3]);
  assert.deepEqual(
    valuesOf(SHELF, (p) => p.period),
    ['romantic', NONE]
  );
});

test('what is next follows from how far it has come', () => {
  assert.deepEqual(SHELF.map(stageOf), ['reading', 'frozen', 'new']);
  assert.deepEqual(
    SHELF.map((p) => nextOf(p).room),
    ['reading', 'press', 'survey']
  );
});

test('days are said as one says them', () => {
  const day = 86_400;
  assert.deepEqual(
    [0, 1, 5].map((d) => whenSaid(1000 * day - d * day, 1000 * day + 5)),
    ['today', 'yesterday', '5 days ago']
  );
  assert.match(whenSaid(900 * day, 1000 * day), /^on \d+ \w+ 1972$/);
});
