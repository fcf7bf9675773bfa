import { json } from '@sveltejs/kit';
import { limitedBody } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { MOST_PAGE_BYTES } from '$lib/server/studio-writing';
import type { RequestHandler } from './$types';

const NUMBER = 'The number of the writing';

/** Pages of the paper that a score is written from, with their cuts. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json({ pages: await (await locals.studio.writing(idOf(params.id, NUMBER))).pages() });

/** Adds a page: the bytes of a picture, PNG or JPEG. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const writing = await locals.studio.writing(idOf(params.id, NUMBER));
  const bytes = await limitedBody(request, MOST_PAGE_BYTES);
  return json(await writing.addPage(bytes), { status: 201 });
};
