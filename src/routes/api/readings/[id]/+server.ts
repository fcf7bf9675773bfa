import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { limitedJson, valid } from '$lib/server/http';
import { removeReading, renameReading } from '$lib/server/repositories/readings';
import { idSchema, renameSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Gives a reading another name. */
export const PATCH: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const { name } = valid<{ name: string }>(renameSchema, await limitedJson(request, 4096), 'The name');
  if (!(await renameReading(await database(), id, name))) error(404, 'This reading is not here any more.');
  return new Response(null, { status: 204 });
};

/** Takes a reading away; the last one of a piece stays. */
export const DELETE: RequestHandler = async ({ params }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const result = await removeReading(await database(), id);
  if (result === 'missing') error(404, 'This reading is not here any more.');
  if (result === 'last') error(409, 'A piece keeps at least one reading.');
  return new Response(null, { status: 204 });
};
