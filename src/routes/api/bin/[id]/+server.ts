import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

/** Takes a piece out of the bin, back on the shelf. */
export const POST: RequestHandler = async ({ params, locals }) => {
  await locals.studio.takeBack(idOf(params.id, 'The number of the piece'));
  return new Response(null, { status: 204 });
};

/** Removes a piece in the bin for good; `?editions` says that its frozen editions go with it. */
export const DELETE: RequestHandler = async ({ params, url, locals }) => {
  await locals.studio.removeForGood(idOf(params.id, 'The number of the piece'), url.searchParams.has('editions'));
  return new Response(null, { status: 204 });
};
