import { nanoid } from 'nanoid';
import { changeBetween } from '$core/writing/change';
import type { Written } from '$core/writing/written';
import { api, ApiError } from '../api';
import { forget, keep, kept, keptKeys } from '../kept';
import { pauseAfter } from '../retry';
import type { WritingState } from '../shapes';
import { WindowLock } from '../window-lock';
import { sentenceOf } from '../workspace/latest';

/** What this browser keeps of a writing until the server has it. */
interface Unsent {
  base: number;
  /** Names of savings of which no answer came yet. */
  saves: string[];
  content: Written;
}

/**
 * Saves what is written as it happens: one request at a time, what has changed since the last; kept in the browser meanwhile,
 * so that neither a reload nor a crash loses it.
 */
export class WritingSaving {
  state = $state<'saved' | 'saving' | 'waiting' | 'stopped'>('saved');
  /** Why it waits, or stopped. */
  why = $state('');
  /** What stands on the server where another window was quicker. */
  theirs = $state.raw<WritingState | null>(null);
  private wanted: Written | null = null;
  private busy = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Savings that were sent and not answered: one of them may have arrived all the same. */
  private unanswered: string[] = [];
  private readonly lock = new WindowLock();

  constructor(
    private readonly id: number,
    /** What the server has, as far as is known. */
    private stands: WritingState
  ) {}

  private get prefix(): string {
    return `nuvelo-writing-${this.id}/`;
  }
  private get key(): string {
    return this.prefix + this.lock.name;
  }

  /** What windows that are gone had not sent is handed over; where the score has gone on elsewhere since, as a question. */
  takeOver(adopt: (content: Written) => void): void {
    for (const key of keptKeys(this.prefix))
      this.lock.whenGone(key.slice(this.prefix.length), () => {
        const left = unsentAt(key);
        // A room that is left takes nothing; what is written here already goes first, and the other stays kept.
        if (!left || this.lock.isClosed || this.wanted) return;
        forget(key);
        const { stands } = this;
        if (JSON.stringify(left.content) === JSON.stringify(stands.content)) return;
        adopt(left.content);
        if (left.base === stands.revision || left.saves.includes(stands.lastSave ?? '')) {
          this.unanswered = left.saves;
          this.save(left.content);
        } else {
          this.wanted = left.content;
          this.keep();
          this.ask(stands);
        }
      });
  }

  save(content: Written): void {
    this.wanted = content;
    this.keep();
    // What was refused may be right now; what another window has changed waits for an answer.
    if (this.theirs) return;
    this.state = 'saving';
    void this.send();
  }

  private keep(): void {
    if (!this.wanted) forget(this.key);
    else keep(this.key, JSON.stringify({ base: this.stands.revision, saves: this.unanswered, content: this.wanted } satisfies Unsent));
  }

  private ask(theirs: WritingState): void {
    this.theirs = theirs;
    this.state = 'stopped';
    this.why = 'This score was changed in another window.';
  }

  private async send(): Promise<void> {
    if (this.busy || !this.wanted) return;
    clearTimeout(this.timer);
    this.busy = true;
    const content = this.wanted;
    const { revision } = this.stands;
    const save = nanoid();
    this.unanswered = [...this.unanswered, save];
    this.keep();
    try {
      const result = await api.saveWriting(this.id, { base: revision, save, change: changeBetween(this.stands.content, content) });
      this.failures = 0;
      if ('conflict' in result) {
        const { conflict } = result;
        // An own saving whose answer was lost: it goes on from there.
        if (conflict.lastSave === null || !this.unanswered.includes(conflict.lastSave)) return this.ask(conflict);
        this.stands = conflict;
      } else this.stands = { ...this.stands, content, revision: result.revision, lastSave: save };
      this.unanswered = [];
      if (!('conflict' in result) && this.wanted === content) this.wanted = null;
      this.keep();
      if (!this.wanted) {
        this.state = 'saved';
        this.why = '';
      }
    } catch (error) {
      this.why = sentenceOf(error);
      const refused = error instanceof ApiError && error.status >= 400 && error.status < 500;
      this.state = refused ? 'stopped' : 'waiting';
      if (!refused && !this.lock.isClosed) this.timer = setTimeout(() => void this.send(), pauseAfter(this.failures++));
      return;
    } finally {
      this.busy = false;
    }
    if (this.wanted) void this.send();
  }

  /** Goes on over what stands on the server, with what this window has or with what stands there. */
  resolve(content: Written): void {
    if (this.theirs) this.stands = this.theirs;
    this.theirs = null;
    this.unanswered = [];
    this.state = 'saving';
    this.save(content);
  }

  /** What was not sent yet stays kept, for whoever opens the score next. */
  close(): void {
    clearTimeout(this.timer);
    this.lock.close(true);
  }
}

/** What is kept under a key; null where it cannot be read. */
function unsentAt(key: string): Unsent | null {
  try {
    return JSON.parse(kept(key) ?? 'null') as Unsent | null;
  } catch {
    return null;
  }
}
