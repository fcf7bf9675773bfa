import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { limitedJson, valid } from '$lib/server/http';
import { copyReading, findReading } from '$lib/server/repositories/readings';
import { copySchema, idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Copies a reading of this piece under a new name; the answer is its number. */
export const POST: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const { from, name } = valid<{ from: number; name: string }>(copySchema, await limitedJson(request, 4096), 'The copy');
  const db = await database();
  if ((await findReading(db, from))?.pieceId !== id) error(404, 'This reading is not one of the piece.');
  const copy = await copyReading(db, from, name);
  return json({ id: copy!.id }, { status: 201 });
};
