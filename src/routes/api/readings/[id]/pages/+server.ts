import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findEditionInput } from '$lib/server/repositories/readings';
import { idSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { RequestHandler } from './$types';

/** The pages of the edition as SVG in lines of JSON, each as soon as it is made: {"stage": …}, {"page": …}, then {"pages": count}. */
export const GET: RequestHandler = async ({ params }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const found = await findEditionInput(await database(), id);
  if (!found) error(404, 'This reading is not here any more.');
  return streamed('Something went wrong here while the pages were made.', async (say, signal) => {
    const { count } = await runTask('pages', found.input, (stage, page) => say(page ? { page } : { stage }), signal);
    say({ pages: count });
  });
};
