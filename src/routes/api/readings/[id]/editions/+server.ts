import { limitedJson, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { freezeSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { EditionLine } from '$lib/shapes';
import type { RequestHandler } from './$types';

/** Freezes the reading as the piece's next edition. The answer is a stream of EditionLines. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  const { note } = valid<{ note: string }>(freezeSchema, await limitedJson(request), 'The note');
  return streamed<EditionLine>(
    request,
    'Something went wrong here while the edition was made; nothing was frozen.',
    async (say, signal) => {
      const edition = await reading.freeze(note, (stage) => say({ stage }), signal);
      if (edition) say({ edition });
    }
  );
};
