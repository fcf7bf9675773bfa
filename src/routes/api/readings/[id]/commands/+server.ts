import { error, json } from '@sveltejs/kit';
import type { Act } from '$core/reading/log';
import { database } from '$lib/server/db/client';
import { limitedJson, valid } from '$lib/server/http';
import { actsAfter, append, findReading } from '$lib/server/repositories/readings';
import { appendSchema, idSchema, revisionSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Acts after `?after=revision`. */
export const GET: RequestHandler = async ({ params, url }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const after = valid<number>(revisionSchema, url.searchParams.get('after') ?? 0, 'The revision');
  return json({ acts: await actsAfter(await database(), id, after) });
};

/** Appends acts; status 409 with what was missed when the reading has gone on elsewhere. */
export const POST: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const { base, acts } = valid<{ base: number; acts: Act[] }>(appendSchema, await limitedJson(request, 4 * 1024 * 1024), 'The change');
  const db = await database();
  if (!(await findReading(db, id))) error(404, 'This reading is not here any more.');
  const result = await append(db, id, base, acts);
  return json(result, { status: 'conflict' in result ? 409 : 200 });
};
