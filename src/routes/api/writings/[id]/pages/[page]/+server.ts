import type { CutSystem } from '$core/writing/facsimile';
import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { cutsSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const ids = (params: { id: string; page: string }): [number, number] => [
  idOf(params.id, 'The number of the writing'),
  idOf(params.page, 'The number of the page')
];
/** A cut page of many systems is larger than most of what is sent as JSON. */
const MOST_CUT_BYTES = 200_000;

/** The picture of a page. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { mime, bytes } = await locals.studio.facsimilePicture(...ids(params));
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': mime, 'cache-control': 'private, max-age=86400', 'x-content-type-options': 'nosniff' }
  });
};

/** How it is cut into systems and bars: `{"cuts": [{"top": 0.1, "bottom": 0.2, "lines": [0.05, 0.5, 0.95]}]}`. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const { cuts } = valid<{ cuts: CutSystem[] }>(cutsSchema, await limitedJson(request, MOST_CUT_BYTES), 'The cut');
  await locals.studio.cutFacsimile(...ids(params), cuts);
  return new Response(null, { status: 204 });
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  await locals.studio.removeFacsimilePage(...ids(params));
  return new Response(null, { status: 204 });
};
