import type { CutSystem } from '$core/writing/facsimile';
import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { cutsSchema } from '$lib/server/schemas';
import type { RequestEvent, RequestHandler } from './$types';

const writingOf = ({ params, locals }: Pick<RequestEvent, 'params' | 'locals'>) =>
  locals.studio.writing(idOf(params.id, 'The number of the writing'));
const pageOf = ({ page }: { page: string }): number => idOf(page, 'The number of the page');
/** A cut page of many systems is larger than most of what is sent as JSON. */
const MOST_CUT_BYTES = 200_000;

/** The picture of a page. */
export const GET: RequestHandler = async (event) => {
  const { mime, bytes } = await (await writingOf(event)).picture(pageOf(event.params));
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': mime, 'cache-control': 'private, max-age=86400', 'x-content-type-options': 'nosniff' }
  });
};

/** How it is cut into systems and bars: `{"cuts": [{"top": 0.1, "bottom": 0.2, "lines": [0.05, 0.5, 0.95]}]}`. */
export const PUT: RequestHandler = async (event) => {
  const { cuts } = valid<{ cuts: CutSystem[] }>(cutsSchema, await limitedJson(event.request, MOST_CUT_BYTES), 'The cut');
  await (await writingOf(event)).cut(pageOf(event.params), cuts);
  return new Response(null, { status: 204 });
};

export const DELETE: RequestHandler = async (event) => {
  await (await writingOf(event)).removePage(pageOf(event.params));
  return new Response(null, { status: 204 });
};
