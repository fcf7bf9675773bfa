import { json } from '@sveltejs/kit';
import type { Act } from '$core/reading/log';
import { countedActs, limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { appendSchema, historySchema, revisionSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Acts after `?after=revision` of `?history=`: a portion; status 410 when the server goes on from another history. */
export const GET: RequestHandler = async ({ params, url, locals }) => {
  const after = valid<number>(revisionSchema, url.searchParams.get('after') ?? 0, 'The revision');
  const history = valid<string | null>(historySchema, url.searchParams.get('history'), 'The history');
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  return json(await reading.actsAfter(after, history));
};

/** Appends acts; status 409 with what was missed when the reading has gone on elsewhere, 410 in another history. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const id = idOf(params.id, 'The number of the reading');
  const body = countedActs(await limitedJson(request, MOST_ACT_BYTES));
  const reading = await locals.studio.reading(id);
  const { base, acts, history } = valid<{ base: number; acts: Act[]; history: string | null }>(
    appendSchema,
    body,
    'The change',
    await reading.bounds()
  );
  const result = await reading.append(base, acts, history);
  return json(result, { status: 'conflict' in result ? 409 : 200 });
};
