import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Progress } from './progress.ts';
import type { TaskInput, TaskName, TaskResult } from './tasks.ts';
import type { WorkerRequest } from './worker.ts';

/** A task that cannot be done, in a sentence for the user. */
export class TaskRefused extends Error {}

const TIME_LIMIT_MS = 60_000;
const MEMORY_LIMIT_MB = 1200;
/** Two at a time: one may be long, and the machine has few cores. */
const MOST_AT_ONCE = 2;

let running = 0;
const waiting: (() => void)[] = [];
/** A worker that has started and waits, so that the next task need not wait for it. */
let spare: Worker | null = null;

const ask = (worker: Worker, request: WorkerRequest): void => worker.postMessage(request);

function start(): Worker {
  const worker = new Worker(resolve(process.env.NUVELO_WORKER ?? 'build/workers/worker.js'), {
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB }
  });
  // A waiting worker does not keep the server from ending.
  worker.unref();
  return worker;
}

/** Holds a worker for the next task, as long as it lives, and lets it load what pages need. */
function keep(worker: Worker): void {
  const gone = (): void => {
    if (spare === worker) spare = null;
  };
  worker.on('error', gone);
  worker.on('exit', gone);
  spare = worker;
  ask(worker, { warm: true });
}

/** Starts a worker ahead of time. */
export function prepareWorker(): void {
  if (!spare) keep(start());
}

function take(): Worker {
  const worker = spare ?? start();
  spare = null;
  worker.removeAllListeners();
  return worker;
}

/** What has done its work well waits for the next; it still has what it read. */
function giveBack(worker: Worker): void {
  worker.removeAllListeners();
  if (spare) void spare.terminate();
  worker.unref();
  keep(worker);
}

async function turn(): Promise<void> {
  if (running >= MOST_AT_ONCE) await new Promise<void>((go) => waiting.push(go));
  running++;
}

function next(): void {
  running--;
  waiting.shift()?.();
}

/** Runs a task in a worker; the signal stops it. @throws TaskRefused with a sentence for the user. */
export async function runTask<T extends TaskName>(
  task: T,
  input: TaskInput<T>,
  progress: Progress = () => {},
  signal?: AbortSignal
): Promise<TaskResult<T>> {
  await turn();
  if (signal?.aborted) {
    // Nobody waits for it any more.
    next();
    throw new TaskRefused('The work was stopped before it began.');
  }
  const worker = take();
  worker.ref();
  const stop = (): void => void worker.terminate();
  signal?.addEventListener('abort', stop);
  const timer = setTimeout(stop, TIME_LIMIT_MS);
  let well = false;
  try {
    const result = await new Promise<TaskResult<T>>((done, fail) => {
      worker.on('message', (message: { stage?: string; piece?: string; result?: TaskResult<T>; refused?: string; fault?: string }) => {
        if (message.stage) progress(message.stage, message.piece);
        else if (message.refused) fail(new TaskRefused(message.refused));
        else if (message.fault) fail(new Error(message.fault));
        else done(message.result as TaskResult<T>);
      });
      worker.on('error', (error) =>
        fail(
          (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? new TaskRefused('The score needs more memory than is allowed for one file.')
            : error
        )
      );
      worker.on('exit', () => fail(new TaskRefused('The work took too long and was stopped.')));
      ask(worker, { task, input });
    });
    well = !signal?.aborted;
    return result;
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener('abort', stop);
    if (well) giveBack(worker);
    else {
      void worker.terminate();
      // Who changes a page while it is made asks again at once.
      prepareWorker();
    }
    next();
  }
}
