import { valid, limitedBody } from '$lib/server/http';
import { runTask, TaskRefused } from '$lib/server/jobs/run';
import { database } from '$lib/server/db/client';
import { addPiece } from '$lib/server/repositories/pieces';
import { fileNameSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Import: the body is the file, its name stands in the query. The answer is a stream of JSON lines:
 * {"stage": …} while the work goes on, then {"piece": id} or {"refused": sentence}.
 */
export const POST: RequestHandler = async ({ request, url }) => {
  const fileName = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const bytes = await limitedBody(request, MOST_BYTES);
  const encoder = new TextEncoder();
  const stopped = new AbortController();
  const stream = new ReadableStream<Uint8Array>({
    cancel: () => stopped.abort(),
    async start(controller) {
      const say = (line: object) => controller.enqueue(encoder.encode(JSON.stringify(line) + '\n'));
      try {
        const intake = await runTask('intake', { bytes, fileName }, (stage) => say({ stage }), stopped.signal);
        if (stopped.signal.aborted) return;
        const piece = await addPiece(await database(), fileName, bytes, intake);
        say({ piece: piece.id });
      } catch (error) {
        if (stopped.signal.aborted) return;
        if (!(error instanceof TaskRefused)) console.error(error);
        say({
          refused: error instanceof TaskRefused ? error.message : 'Something went wrong here while the file was read; nothing was stored.'
        });
      }
      controller.close();
    }
  });
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } });
};
