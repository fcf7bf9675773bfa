import { runTask } from '$lib/server/jobs/run';
import { idOf } from '$lib/server/params';
import { streamed } from '$lib/server/stream';
import type { PagesLine } from '$lib/shapes';
import type { RequestHandler } from './$types';

/** The pages of the edition as SVG, each as soon as it is made: a stream of PagesLines. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  const input = await reading.input();
  return streamed<PagesLine>('Something went wrong here while the pages were made.', async (say, signal) => {
    const { count } = await runTask('pages', input, (stage, page) => say(page ? { page } : { stage }), signal);
    say({ pages: count });
  });
};
