import { releaseProxy, wrap, type Remote } from 'comlink';
import type { StudyPort, StudyService } from './study-service';

/** The service of one piece in a worker of its own. */
export interface StudyWorker {
  port: StudyPort;
  close(): void;
}

const start = (): Worker => new Worker(new URL('../workers/study.worker.ts', import.meta.url), { type: 'module' });

let spare: Worker | undefined;

/** Starts a worker ahead of time, so that the next piece need not wait for it. */
export function prepareStudyWorker(): void {
  spare ??= start();
}

/** How long the next worker waits, so that the page comes first. */
const PREPARE_MS = 3000;

/** A fresh worker for one piece; the next one is prepared a little later. */
export function takeStudyWorker(): StudyWorker {
  const worker = spare ?? start();
  spare = undefined;
  setTimeout(prepareStudyWorker, PREPARE_MS);
  const remote: Remote<StudyService> = wrap<StudyService>(worker);
  return {
    port: remote as unknown as StudyPort,
    close() {
      remote[releaseProxy]();
      worker.terminate();
    }
  };
}
