import type { MessagePort } from 'node:worker_threads';
import { ScoreError } from '../../../core/score/model.ts';
import { ArchiveError } from '../archive/part.ts';
import type { Progress } from './progress.ts';
import { TASKS } from './tasks.ts';

/** What a worker is asked: a task by its name, or to be ready for pages. */
export type WorkerRequest = { task: keyof typeof TASKS; input: unknown; said: MessagePort } | { warm: true };

/** How far a task is, the first one that it has begun; and that all has been said. */
export type Said = { stage: string; piece?: string } | { all: true };

/** One task at a time in each worker: a file that eats time or memory takes only its own worker down. */
export default async function work(request: WorkerRequest): Promise<unknown> {
  if ('warm' in request) {
    const [{ openEngraver }, { openFaces }] = await Promise.all([
      import('./pages/engraver.ts'),
      import('./pages/faces.ts'),
      import('./pages/make-pages.ts'),
      import('./pages/pdf.ts')
    ]);
    await openEngraver();
    openFaces();
    return null;
  }
  const { task, input, said } = request;
  const progress: Progress = (stage, piece) => said.postMessage({ stage, piece } satisfies Said);
  progress('beginning');
  try {
    const run = TASKS[task] as (input: unknown, progress: Progress) => unknown;
    return { done: await run(input, progress) };
  } catch (error) {
    // What is wrong with a file is no fault of the program.
    if (error instanceof ScoreError || error instanceof ArchiveError) return { refused: error.message };
    throw error;
  } finally {
    said.postMessage({ all: true } satisfies Said);
    said.close();
  }
}
