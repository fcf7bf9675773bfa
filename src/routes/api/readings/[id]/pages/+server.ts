import { idOf } from '$lib/server/params';
import { streamed } from '$lib/server/stream';
import type { PagesLine } from '$lib/shapes';
import type { RequestHandler } from './$types';

/** The pages of the edition as SVG, each as soon as it is made: a stream of PagesLines. */
export const GET: RequestHandler = async ({ params, request, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  return streamed<PagesLine>(request, 'Something went wrong here while the pages were made.', async (say, signal) => {
    say({ pages: await reading.pages((stage, page) => say(page ? { page } : { stage }), signal) });
  });
};
