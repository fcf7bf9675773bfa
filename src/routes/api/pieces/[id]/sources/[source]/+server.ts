import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { removeSource } from '$lib/server/repositories/sources';
import { idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Takes a further source away from a piece; what was decided about it stays in the readings and counts again when it comes back. */
export const DELETE: RequestHandler = async ({ params }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const source = valid<number>(idSchema, params.source, 'The number of the source');
  if (!(await removeSource(await database(), id, source))) error(404, 'This source is not here any more.');
  return new Response(null, { status: 204 });
};
