import { parentPort, workerData } from 'node:worker_threads';
import { ScoreError } from '../../../core/score/model.ts';
import { TASKS, type Progress } from './tasks.ts';

// One task per worker: a file that eats time or memory takes only its own worker down.
const { task, input } = workerData as { task: keyof typeof TASKS; input: never };
try {
  const run = TASKS[task] as (input: never, progress: Progress) => unknown;
  const result = await run(input, (stage, piece) => parentPort!.postMessage({ stage, piece }));
  parentPort!.postMessage({ result });
} catch (error) {
  if (error instanceof ScoreError) parentPort!.postMessage({ refused: error.message });
  else throw error;
}
