import { chunkWriter, type Chunk } from '$core/edition/chunk';
import type { RowEntry } from '$core/edition/mei';
import type { SetChunk } from '$core/edition/systems';
import type { Marking } from '$core/markings/marking';
import type { Score } from '$core/score/model';
import type { EngraveOptions, EngraverAnswer, EngraverRequest } from '../workers/engraver.worker';

export interface EngraveJob {
  chunk: SetChunk;
  options: EngraveOptions;
  markings: Marking[];
  rows: RowEntry[];
}

interface Waiting {
  job: EngraveJob;
  urgency: number;
  done: (svg: string) => void;
  fail: (error: Error) => void;
}

/** The engraver in its worker: one job at a time, the most urgent first. */
export class Engraver {
  private readonly worker = new Worker(new URL('../workers/engraver.worker.ts', import.meta.url), { type: 'module' });
  private number = 0;
  private busy: (Waiting & { number: number }) | null = null;
  private readonly queue: Waiting[] = [];
  private write: ((chunk: Chunk) => string) | null = null;
  /** Chunks whose document the worker has. */
  private readonly given = new Set<string>();

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<EngraverAnswer>) => {
      const { busy } = this;
      this.busy = null;
      if (busy?.number === data.number) {
        if (data.type === 'engraved') busy.done(data.svg);
        else busy.fail(new Error(data.message));
      }
      this.next();
    };
  }

  /**
   * Gives the engraver its score, or some parts of it (indices; null for all); jobs may be asked for from then
   * on, and those for another score are dropped.
   */
  open(document: string, score: Score, parts: readonly number[] | null = null): void {
    this.queue.length = 0;
    this.given.clear();
    const shown = score.parts.filter((p) => !parts || parts.includes(p.index));
    this.write = chunkWriter(
      document,
      score,
      shown.map((p) => p.index)
    );
    this.send({ type: 'open', frame: { measures: score.measures, parts: shown.map(({ index, staves }) => ({ index, staves })) } });
  }

  close(): void {
    this.worker.terminate();
  }

  /** Engraves a chunk; smaller urgency numbers go first. */
  engrave(job: EngraveJob, urgency: number): Promise<string> {
    return new Promise((done, fail) => {
      this.queue.push({ job, urgency, done, fail });
      this.next();
    });
  }

  /** Resolves when the picture that is being drawn stands; at once when none is. */
  picture(): Promise<void> {
    const { busy } = this;
    if (!busy) return Promise.resolve();
    return new Promise((resolve) => {
      const { done, fail } = busy;
      busy.done = (svg) => (done(svg), resolve());
      busy.fail = (error) => (fail(error), resolve());
    });
  }

  private next(): void {
    if (this.busy || this.queue.length === 0 || !this.write) return;
    this.queue.sort((a, b) => a.urgency - b.urgency);
    const waiting = this.queue.shift()!;
    const { job } = waiting;
    const key = `${job.chunk.from}-${job.chunk.to}`;
    const document = this.given.has(key) ? null : this.write(job.chunk);
    this.given.add(key);
    this.busy = { ...waiting, number: ++this.number };
    this.send({ type: 'engrave', number: this.busy.number, document, ...job });
  }

  private send(request: EngraverRequest): void {
    this.worker.postMessage(request);
  }
}

let shared: Engraver | undefined;

/** The one engraver of this window. Asked for early, so that it has started by the time a piece is opened. */
export const sharedEngraver = (): Engraver => (shared ??= new Engraver());

let small: Engraver | undefined;

/** The engraver of small staves beside the page, which are scores of their own; started when one is first shown. */
export const smallEngraver = (): Engraver => (small ??= new Engraver());
