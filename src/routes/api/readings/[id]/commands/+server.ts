import { json } from '@sveltejs/kit';
import type { Act } from '$core/reading/log';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { appendSchema, revisionSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Acts after `?after=revision`. */
export const GET: RequestHandler = async ({ params, url, locals }) => {
  const after = valid<number>(revisionSchema, url.searchParams.get('after') ?? 0, 'The revision');
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  return json({ acts: await reading.actsAfter(after) });
};

/** Appends acts; status 409 with what was missed when the reading has gone on elsewhere. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const id = idOf(params.id, 'The number of the reading');
  const { base, acts } = valid<{ base: number; acts: Act[] }>(appendSchema, await limitedJson(request, MOST_ACT_BYTES), 'The change');
  const reading = await locals.studio.reading(id);
  const result = await reading.append(base, acts);
  return json(result, { status: 'conflict' in result ? 409 : 200 });
};
