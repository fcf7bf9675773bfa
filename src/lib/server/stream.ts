import { error, json } from '@sveltejs/kit';
import type { Refused, Stage } from '../shapes.ts';
import { log } from './log.ts';
import { refusalOf } from './refusals.ts';

/** What a long request says meanwhile: lines of JSON. */
export type Say<L> = (line: L) => void;

const LINES = 'application/x-ndjson';

/** Whether who asks follows the work; others get its end alone, with a status of its own. */
export const follows = (request: Request): boolean => (request.headers.get('accept') ?? '').includes(LINES);

/**
 * Answers with what a long work says. To who follows it (Accept: application/x-ndjson) each line goes as it is said, and a
 * refusal ends them as {"refused": sentence}; all others get the last line as JSON, or a refusal with its status. The work
 * stops when who asked goes away.
 * @param failure what is said when the fault is the program's own
 */
export async function streamed<L extends object>(
  request: Request,
  failure: string,
  work: (say: Say<L | Stage>, signal: AbortSignal) => Promise<void>
): Promise<Response> {
  const told = (fault: unknown): { status: number; sentence: string } => {
    const refusal = refusalOf(fault);
    if (!refusal) log().error({ err: fault });
    return refusal ?? { status: 500, sentence: failure };
  };
  if (!follows(request)) {
    let last: object = {};
    try {
      await work((line) => void ('stage' in line || (last = line)), request.signal);
    } catch (fault) {
      const { status, sentence } = told(fault);
      error(status, sentence);
    }
    return json(last);
  }
  const encoder = new TextEncoder();
  const stopped = new AbortController();
  const stream = new ReadableStream<Uint8Array>({
    cancel: () => stopped.abort(),
    async start(controller) {
      const say: Say<L | Stage | Refused> = (line) => {
        if (!stopped.signal.aborted) controller.enqueue(encoder.encode(JSON.stringify(line) + '\n'));
      };
      try {
        await work(say, stopped.signal);
      } catch (fault) {
        if (stopped.signal.aborted) return;
        say({ refused: told(fault).sentence });
      }
      if (!stopped.signal.aborted) controller.close();
    }
  });
  return new Response(stream, { headers: { 'content-type': LINES, 'cache-control': 'no-store' } });
}
