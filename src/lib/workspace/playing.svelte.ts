import { spanOf } from '$core/performance/transport';
import type { Performance } from '$core/performance/perform';
import type { Reading } from '$core/reading/reading';
import { sentenceOf } from './latest';
import type { StudyPort } from './study-service';

/** What plays: the part of the player that is needed here. */
export interface Plays {
  readonly playing: boolean;
  start(what: { performance: Performance; from: number; to: number }): unknown;
  /** What is played has changed. */
  refresh(): void;
}

/** Milliseconds by which the performance waits for what is seen first. */
const PERFORM_DELAY = 250;

/** The reading as it is played, kept up to date; one performance at a time, and what changes meanwhile is played next. */
export class Playing {
  /** The reading and the page to the letter; null until something is to be heard or measured. */
  performed = $state.raw<{ plan: Performance; page: Performance } | null>(null);

  private wanted = false;
  private allowed = false;
  private under: 'no' | 'yes' | 'again' = 'no';
  /** What the page to the letter depends on, of the one that is known. */
  private pageKey = '';

  /** @param reading the reading as it is now, in plain records @param fail one sentence on what went wrong */
  constructor(
    private readonly port: StudyPort,
    private readonly player: Plays,
    private readonly reading: () => Reading,
    private readonly fail: (sentence: string) => void
  ) {}

  /** Asks for the performance; it is kept up to date from then on. */
  need(): void {
    if (this.wanted) return;
    this.wanted = true;
    this.refresh();
  }

  /** Proposals come first; from now on performances may be asked for. */
  allow(): void {
    this.allowed = true;
    this.refresh();
  }

  /** Another text is open. */
  forget(): void {
    this.pageKey = '';
  }

  /** Plays anew what the reading has changed. */
  refresh(): void {
    if (!this.wanted || !this.allowed) return;
    if (this.under !== 'no') {
      this.under = 'again';
      return;
    }
    this.under = 'yes';
    // The page and the brief come first, unless one is listening.
    if (this.player.playing) void this.perform();
    else setTimeout(() => void this.perform(), PERFORM_DELAY);
  }

  /** Plays some bars (measure indices, both included) as another reading of the score has them. */
  async hear(reading: Reading, from: number, to: number): Promise<void> {
    this.need();
    try {
      const performance = await this.port.performed(reading);
      this.player.start({ performance, ...spanOf(performance, from, to) });
    } catch (error) {
      this.fail(sentenceOf(error));
    }
  }

  private async perform(): Promise<void> {
    const reading = this.reading();
    const key = JSON.stringify([reading.part, reading.instruments, reading.pins]);
    try {
      const plan = await this.port.performed(reading);
      const known = key === this.pageKey ? this.performed?.page : undefined;
      const page = known ?? (await this.port.page(reading));
      this.pageKey = key;
      this.performed = { plan, page };
      this.player.refresh();
    } catch (error) {
      this.fail(sentenceOf(error));
    } finally {
      // Whatever became of it, what changed meanwhile is played next.
      const again = (this.under as string) === 'again';
      this.under = 'no';
      if (again) this.refresh();
    }
  }
}
