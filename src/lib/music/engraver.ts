import type { RowEntry } from '$core/edition/mei';
import type { SetChunk } from '$core/edition/systems';
import type { Marking } from '$core/reading/markings';
import type { EngraveOptions, EngraverAnswer, EngraverRequest } from '../workers/engraver.worker';

export interface EngraveJob {
  chunk: SetChunk;
  options: EngraveOptions;
  markings: Marking[];
  rows: RowEntry[];
}

/** The engraver in its worker: one job at a time, the most urgent first. */
export class Engraver {
  private readonly worker = new Worker(new URL('../workers/engraver.worker.ts', import.meta.url), { type: 'module' });
  private number = 0;
  private busy: { number: number; done: (svg: string) => void; fail: (error: Error) => void } | null = null;
  private readonly queue: { job: EngraveJob; urgency: number; done: (svg: string) => void; fail: (error: Error) => void }[] = [];

  constructor(document: string) {
    this.worker.onmessage = ({ data }: MessageEvent<EngraverAnswer>) => {
      const { busy } = this;
      this.busy = null;
      if (busy && busy.number === data.number) {
        if (data.type === 'engraved') busy.done(data.svg);
        else busy.fail(new Error(data.message));
      }
      this.next();
    };
    this.send({ type: 'open', document });
  }

  /** Engraves a chunk; smaller urgency numbers go first. */
  engrave(job: EngraveJob, urgency: number): Promise<string> {
    return new Promise((done, fail) => {
      this.queue.push({ job, urgency, done, fail });
      this.next();
    });
  }

  close(): void {
    this.worker.terminate();
  }

  private next(): void {
    if (this.busy || this.queue.length === 0) return;
    this.queue.sort((a, b) => a.urgency - b.urgency);
    const { job, done, fail } = this.queue.shift()!;
    const number = ++this.number;
    this.busy = { number, done, fail };
    this.send({ type: 'engrave', number, ...job });
  }

  private send(request: EngraverRequest): void {
    this.worker.postMessage(request);
  }
}
