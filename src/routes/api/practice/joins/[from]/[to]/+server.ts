import { json } from '@sveltejs/kit';
import { runTask } from '$lib/server/jobs/run';
import { idOf } from '$lib/server/params';
import type { RequestHandler } from './$types';

/** How one tune of a set goes into the next, from their notes. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const document = async (id: string) => (await locals.studio.piece(idOf(id, 'The number of the piece'))).document();
  return json({ words: await runTask('join', { from: await document(params.from), to: await document(params.to) }) });
};
