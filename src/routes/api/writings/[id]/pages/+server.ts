import { json } from '@sveltejs/kit';
import { limitedBody, MOST_FILE_BYTES } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

const NUMBER = 'The number of the writing';

/** Pages of the paper that a score is written from, with their cuts. */
export const GET: RequestHandler = async ({ params, locals }) => json({ pages: await locals.studio.facsimile(idOf(params.id, NUMBER)) });

/** Adds a page: the bytes of a picture, PNG or JPEG. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const id = idOf(params.id, NUMBER);
  const bytes = await limitedBody(request, MOST_FILE_BYTES);
  return json(await locals.studio.addFacsimilePage(id, bytes), { status: 201 });
};
