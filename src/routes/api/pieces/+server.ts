import { valid, limitedBody } from '$lib/server/http';
import { database } from '$lib/server/db/client';
import { takeIn } from '$lib/server/intake';
import { fileNameSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { RequestHandler } from './$types';

const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Import of a score or of an archive: the body is the file, its name stands in the query. The answer is a stream of JSON lines:
 * {"stage": …} while the work goes on, then {"piece": id} or {"refused": sentence}.
 */
export const POST: RequestHandler = async ({ request, url }) => {
  const fileName = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const bytes = await limitedBody(request, MOST_BYTES);
  return streamed('Something went wrong here while the file was read; nothing was stored.', async (say, signal) => {
    const piece = await takeIn(await database(), fileName, bytes, (stage) => say({ stage }), signal);
    if (piece !== null) say({ piece });
  });
};
