import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Progress, TaskInput, TaskName, TaskResult } from './tasks.ts';

/** A task that cannot be done, in a sentence for the user. */
export class TaskRefused extends Error {}

const TIME_LIMIT_MS = 60_000;
const MEMORY_LIMIT_MB = 1200;
/** Two at a time: one may be long, and the machine has few cores. */
const MOST_AT_ONCE = 2;

let running = 0;
const waiting: (() => void)[] = [];

async function turn(): Promise<void> {
  if (running >= MOST_AT_ONCE) await new Promise<void>((go) => waiting.push(go));
  running++;
}

/** Runs a task in a worker of its own; the signal stops it. @throws TaskRefused with a sentence for the user. */
export async function runTask<T extends TaskName>(
  task: T,
  input: TaskInput<T>,
  progress: Progress = () => {},
  signal?: AbortSignal
): Promise<TaskResult<T>> {
  await turn();
  const worker = new Worker(resolve(process.env.NUVELO_WORKER ?? 'build/workers/worker.js'), {
    workerData: { task, input },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB }
  });
  signal?.addEventListener('abort', () => void worker.terminate());
  const timer = setTimeout(() => void worker.terminate(), TIME_LIMIT_MS);
  try {
    return await new Promise<TaskResult<T>>((done, fail) => {
      worker.on('message', (message: { stage?: string; piece?: string; result?: TaskResult<T>; refused?: string }) => {
        if (message.stage) progress(message.stage, message.piece);
        else if (message.refused) fail(new TaskRefused(message.refused));
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
    });
  } finally {
    clearTimeout(timer);
    void worker.terminate();
    running--;
    waiting.shift()?.();
  }
}
