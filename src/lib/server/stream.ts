import type { Refused } from '../shapes.ts';
import { TaskRefused } from './jobs/run.ts';

/** What a long request says meanwhile: lines of JSON. */
export type Say<L> = (line: L) => void;

/**
 * An answer in lines of JSON while work goes on; a refusal ends it as {"refused": sentence}. The work stops when the
 * browser goes away.
 * @param failure what is said when the fault is the program's own
 */
export function streamed<L extends object>(failure: string, work: (say: Say<L>, signal: AbortSignal) => Promise<void>): Response {
  const encoder = new TextEncoder();
  const stopped = new AbortController();
  const stream = new ReadableStream<Uint8Array>({
    cancel: () => stopped.abort(),
    async start(controller) {
      const say: Say<L | Refused> = (line) => {
        if (!stopped.signal.aborted) controller.enqueue(encoder.encode(JSON.stringify(line) + '\n'));
      };
      try {
        await work(say, stopped.signal);
      } catch (error) {
        if (stopped.signal.aborted) return;
        if (!(error instanceof TaskRefused)) console.error(error);
        say({ refused: error instanceof TaskRefused ? error.message : failure });
      }
      if (!stopped.signal.aborted) controller.close();
    }
  });
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } });
}
