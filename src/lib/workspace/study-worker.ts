const start = (): Worker => new Worker(new URL('../workers/study.worker.ts', import.meta.url), { type: 'module' });

let spare: Worker | undefined;

/** Starts a worker ahead of time, so that the next piece need not wait for it. */
export function prepareStudyWorker(): void {
  spare ??= start();
}

/** A fresh worker for one piece; the next one is prepared at once. */
export function takeStudyWorker(): Worker {
  const worker = spare ?? start();
  spare = undefined;
  setTimeout(prepareStudyWorker, 3000);
  return worker;
}
