import { api } from '../api';
import { sentenceOf } from '../workspace/latest';

/** How long after a change the pages are made again. */
const DELAY_MS = 500;

/** The pages of an edition as the server makes them: the very ones that are printed. */
export class Preview {
  /** SVG, by page. */
  pages = $state.raw<string[]>([]);
  /** What is being done; null when all pages are there. */
  stage = $state<string | null>('asking for the pages');
  fault = $state<string | null>(null);
  private running: AbortController | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly reading: number) {}

  /** Makes the pages; those of before stay in view until the new ones come. */
  async make(): Promise<void> {
    this.running?.abort();
    const mine = (this.running = new AbortController());
    this.stage = 'asking for the pages';
    this.fault = null;
    let count = 0;
    try {
      for await (const line of api.pages(this.reading, mine.signal)) {
        if (mine.signal.aborted) return;
        if ('page' in line) {
          const next = [...this.pages];
          next[count++] = line.page;
          this.pages = next;
        } else if ('pages' in line) {
          this.pages = this.pages.slice(0, line.pages);
          this.stage = null;
        } else this.stage = line.stage;
      }
      if (this.stage !== null) this.fault = 'The work on the pages broke off.';
    } catch (error) {
      if (mine.signal.aborted) return;
      this.fault = sentenceOf(error);
      this.stage = null;
    }
  }

  /** Makes the pages again when nothing has changed for a moment. */
  later(): void {
    clearTimeout(this.timer);
    this.stage = 'waiting for the last change';
    this.timer = setTimeout(() => void this.make(), DELAY_MS);
  }

  close(): void {
    clearTimeout(this.timer);
    this.running?.abort();
  }
}
