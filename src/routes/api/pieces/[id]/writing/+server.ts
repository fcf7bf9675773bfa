import { json } from '@sveltejs/kit';
import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

/** Opens a piece that was written or typed in the writing room: `{"id": 3}`; status 409 where it came in as a file. */
export const POST: RequestHandler = async ({ params, locals }) =>
  json({ id: await locals.studio.openForWriting(idOf(params.id, 'The number of the piece')) });
