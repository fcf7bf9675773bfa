import { valid, limitedBody } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { database } from '$lib/server/db/client';
import { addPiece } from '$lib/server/repositories/pieces';
import { fileNameSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { RequestHandler } from './$types';

const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Import: the body is the file, its name stands in the query. The answer is a stream of JSON lines:
 * {"stage": …} while the work goes on, then {"piece": id} or {"refused": sentence}.
 */
export const POST: RequestHandler = async ({ request, url }) => {
  const fileName = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const bytes = await limitedBody(request, MOST_BYTES);
  return streamed('Something went wrong here while the file was read; nothing was stored.', async (say, signal) => {
    const intake = await runTask('intake', { bytes, fileName }, (stage) => say({ stage }), signal);
    if (signal.aborted) return;
    const piece = await addPiece(await database(), fileName, bytes, intake);
    say({ piece: piece.id });
  });
};
