import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import Tinypool from 'tinypool';
import { OWNER } from '../owner.ts';
import type { Progress } from './progress.ts';
import { FairQueue, MOST_WAITING, type Waiting } from './queue.ts';
import type { TaskInput, TaskName, TaskResult } from './tasks.ts';
import type { Said, WorkerRequest } from './worker.ts';

/** A task that cannot be done, in a sentence for the user; `status` says of which sort the refusal is. */
export class TaskRefused extends Error {
  constructor(
    sentence: string,
    readonly status: 408 | 409 | 422 | 429 | 503 = 422
  ) {
    super(sentence);
  }
}

const TIME_LIMIT_MS = 60_000;
const MEMORY_LIMIT_MB = 1200;
/** Two at a time: one may be long, and the machine has few cores. */
const MOST_AT_ONCE = Math.min(2, Math.max(1, availableParallelism()));

/** Of which sort a task is, for taking turns; files of editions are what may take long. */
const KINDS: Record<TaskName, string> = {
  intake: 'import',
  tunes: 'import',
  archive: 'import',
  excerpt: 'import',
  written: 'import',
  correction: 'import',
  study: 'study',
  standing: 'study',
  picture: 'picture',
  pages: 'pages',
  chosen: 'pages',
  compare: 'comparison',
  collate: 'comparison',
  file: 'file',
  book: 'file',
  sheet: 'import',
  join: 'study',
  backup: 'backup'
};

let opened: Tinypool | null = null;

/** The workers. One always waits, so that the next task need not wait for it; what it read it still has. */
const pool = (): Tinypool =>
  (opened ??= new Tinypool({
    filename: resolve(process.env.NUVELO_WORKER ?? 'build/workers/worker.js'),
    minThreads: 1,
    maxThreads: MOST_AT_ONCE,
    isolateWorkers: false,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB }
  }));

interface Turn extends Waiting {
  begin(): void;
}
const queue = new FairQueue<Turn>(MOST_AT_ONCE);

/** How many tasks wait and how many are worked on. */
export const tasksNow = (): { waiting: number; running: number } => queue.length;

function serve(): void {
  for (let turn = queue.next(); turn; turn = queue.next()) turn.begin();
}

/** Waits until it is one's turn. @returns what is called when the place is free again */
function turnOf(person: string, task: TaskName, signal?: AbortSignal): Promise<() => void> {
  return new Promise((begin, fail) => {
    const kind = KINDS[task];
    const stopped = (): void => {
      queue.remove(turn);
      fail(new TaskRefused('The work was stopped.', 409));
    };
    const turn: Turn = {
      person,
      kind,
      long: kind === 'file' || kind === 'backup',
      begin: () => {
        signal?.removeEventListener('abort', stopped);
        begin(() => {
          queue.remove(turn);
          serve();
        });
      }
    };
    if (signal?.aborted) return stopped();
    if (!queue.add(turn)) return fail(new TaskRefused(`${MOST_WAITING} of these are waiting already; try again when some are done.`, 429));
    signal?.addEventListener('abort', stopped);
    serve();
  });
}

/** Starts the workers ahead of time and lets one load what pages need. */
export function prepareWorkers(): void {
  pool()
    .run({ warm: true } satisfies WorkerRequest)
    .catch((error: unknown) => console.error(error));
}

/** Ends the workers; for tests. */
export async function endWorkers(): Promise<void> {
  await opened?.destroy();
  opened = null;
}

/** Why a task has failed, as its user is told. */
function told(error: unknown, stopped: boolean, tookTooLong: boolean): unknown {
  if (tookTooLong) return new TaskRefused(`The work took longer than ${TIME_LIMIT_MS / 1000} seconds and was stopped.`, 408);
  if (stopped) return new TaskRefused('The work was stopped.', 409);
  if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new TaskRefused('The score needs more memory than is allowed for one file.');
  return error;
}

/**
 * The pool may hand a task to a worker that is just being ended because another task in it was stopped. It has no code for
 * that, only these words.
 */
const endedForAnother = (error: unknown): boolean => error instanceof Error && error.message === 'Terminating worker thread';
const MOST_TRIES = 3;

/**
 * Runs a task in a worker when it is its turn; the signal stops it.
 * @param person whose work it is: people take turns
 * @throws TaskRefused with a sentence for the user
 */
export async function runTask<T extends TaskName>(
  task: T,
  input: TaskInput<T>,
  progress: Progress = () => {},
  signal?: AbortSignal,
  person = OWNER
): Promise<TaskResult<T>> {
  const leave = await turnOf(person, task, signal);
  try {
    for (let tries = 1; ; tries++)
      try {
        return await inWorker(task, input, progress, signal);
      } catch (error) {
        if (!endedForAnother(error) || tries === MOST_TRIES) throw error;
      }
  } finally {
    leave();
  }
}

async function inWorker<T extends TaskName>(
  task: T,
  input: TaskInput<T>,
  progress: Progress,
  signal?: AbortSignal
): Promise<TaskResult<T>> {
  const { port1: here, port2: there } = new MessageChannel();
  // What a task says and what it gives come by two ways, in no order: all is said when the worker has said so.
  const allSaid = new Promise<void>((heard) =>
    here.on('message', (said: Said) => ('stage' in said ? progress(said.stage, said.piece) : heard()))
  );
  const limit = new AbortController();
  // The time counts from when the work begins, not while it waits for its turn.
  const begun = (): void => void (timer = setTimeout(() => limit.abort(), TIME_LIMIT_MS));
  let timer: NodeJS.Timeout | undefined;
  here.once('message', begun);
  const stop = signal ? AbortSignal.any([signal, limit.signal]) : limit.signal;
  try {
    const result: { done: TaskResult<T> } | { refused: string } = await pool().run({ task, input, said: there } satisfies WorkerRequest, {
      transferList: [there],
      signal: stop
    });
    await allSaid;
    if ('refused' in result) throw new TaskRefused(result.refused);
    return result.done;
  } catch (error) {
    if (endedForAnother(error) && !stop.aborted) throw error;
    throw told(error, signal?.aborted ?? false, limit.signal.aborted);
  } finally {
    clearTimeout(timer);
    here.close();
  }
}
