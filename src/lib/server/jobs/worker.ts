import { parentPort } from 'node:worker_threads';
import { ScoreError } from '../../../core/score/model.ts';
import type { Progress } from './progress.ts';
import { TASKS } from './tasks.ts';

/** What the worker is asked: a task by its name, or to be ready for pages. */
export type WorkerRequest = { task: keyof typeof TASKS; input: unknown } | { warm: true };

// One task at a time: a file that eats time or memory takes only its own worker down.
parentPort!.on('message', async (request: WorkerRequest) => {
  if ('warm' in request) {
    const [{ openEngraver }, { openFaces }] = await Promise.all([
      import('./pages/engraver.ts'),
      import('./pages/faces.ts'),
      import('./pages/make-pages.ts'),
      import('./pages/pdf.ts')
    ]);
    await openEngraver();
    openFaces();
    return;
  }
  try {
    const run = TASKS[request.task] as (input: unknown, progress: Progress) => unknown;
    const result = await run(request.input, (stage, piece) => parentPort!.postMessage({ stage, piece }));
    parentPort!.postMessage({ result });
  } catch (error) {
    if (error instanceof ScoreError) parentPort!.postMessage({ refused: error.message });
    else parentPort!.postMessage({ fault: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
});
