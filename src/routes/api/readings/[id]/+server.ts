import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { renameSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Gives a reading another name. */
export const PATCH: RequestHandler = async ({ params, request, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  await reading.rename(valid<{ name: string }>(renameSchema, await limitedJson(request), 'The name').name);
  return new Response(null, { status: 204 });
};

/** Takes a reading away; the last one of a piece stays. */
export const DELETE: RequestHandler = async ({ params, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  await reading.remove();
  return new Response(null, { status: 204 });
};
