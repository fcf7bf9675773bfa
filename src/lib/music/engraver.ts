import { releaseProxy, wrap, type Remote } from 'comlink';
import { chunkWriter, type Chunk } from '$core/edition/chunk';
import type { Score } from '$core/score/model';
import type { EngraveJob, EngraverService } from '../workers/engraver-service';

interface Waiting {
  job: EngraveJob;
  urgency: number;
  done: (svg: string) => void;
  fail: (error: Error) => void;
}

/** The engraver in its worker: one job at a time, the most urgent first. */
export class Engraver {
  private readonly worker = new Worker(new URL('../workers/engraver.worker.ts', import.meta.url), { type: 'module' });
  private readonly service: Remote<EngraverService> = wrap<EngraverService>(this.worker);
  private busy: Waiting | null = null;
  private readonly queue: Waiting[] = [];
  private write: ((chunk: Chunk) => string) | null = null;
  /** Chunks whose document the worker has. */
  private readonly given = new Set<string>();

  /**
   * Gives the engraver its score, or some parts of it (indices; null for all); jobs may be asked for from then
   * on, and those for another score are dropped.
   */
  open(document: string, score: Score, parts: readonly number[] | null = null): void {
    this.queue.length = 0;
    this.renew(document, score, parts);
  }

  /** Goes on with the same score, changed somewhere: what waits is drawn from it as it is now. */
  renew(document: string, score: Score, parts: readonly number[] | null = null): void {
    this.given.clear();
    const shown = score.parts.filter((p) => !parts || parts.includes(p.index));
    this.write = chunkWriter(
      document,
      score,
      shown.map((p) => p.index)
    );
    void this.service.open({ measures: score.measures, parts: shown.map(({ index, staves }) => ({ index, staves })) });
  }

  close(): void {
    this.service[releaseProxy]();
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
    const { chunk } = waiting.job;
    const key = `${chunk.from}-${chunk.to}`;
    const document = this.given.has(key) ? null : this.write(chunk);
    this.given.add(key);
    this.busy = waiting;
    this.service
      .engrave(waiting.job, document)
      .then(
        (svg) => waiting.done(svg),
        (error: Error) => waiting.fail(error)
      )
      .finally(() => {
        this.busy = null;
        this.next();
      });
  }
}

let shared: Engraver | undefined;

/** The one engraver of this window. Asked for early, so that it has started by the time a piece is opened. */
export const sharedEngraver = (): Engraver => (shared ??= new Engraver());

let small: Engraver | undefined;

/** The engraver of small staves beside the page, which are scores of their own; started when one is first shown. */
export const smallEngraver = (): Engraver => (small ??= new Engraver());
