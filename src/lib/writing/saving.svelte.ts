import type { Written } from '$core/writing/written';
import { api, ApiError } from '../api';
import { forget, keep, kept } from '../kept';
import { sentenceOf } from '../workspace/latest';

/** What this browser keeps of a writing until the server has it. */
interface Unsent {
  base: number;
  content: Written;
}

/** Waits between attempts while the server does not answer, in milliseconds. */
const WAITS = [500, 1000, 2000, 4000, 8000];

/** Saves what is written as it happens: one request at a time, always of the latest state; kept in the browser meanwhile. */
export class WritingSaving {
  state = $state<'saved' | 'saving' | 'waiting' | 'stopped'>('saved');
  /** Why it waits, or stopped. */
  why = $state('');
  /** What stands on the server where another window was quicker. */
  theirs = $state.raw<Unsent | null>(null);
  private wanted: Written | null = null;
  private busy = false;
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly id: number,
    private revision: number
  ) {}

  private get key(): string {
    return `nuvelo-writing-${this.id}`;
  }

  /** What was not sent before the window closed, where it belongs to what the server has. */
  leftover(): Written | null {
    try {
      const unsent = JSON.parse(kept(this.key) ?? 'null') as Unsent | null;
      return unsent?.base === this.revision ? unsent.content : null;
    } catch {
      return null;
    }
  }

  save(content: Written): void {
    this.wanted = content;
    keep(this.key, JSON.stringify({ base: this.revision, content } satisfies Unsent));
    if (this.state !== 'stopped') {
      this.state = 'saving';
      void this.send();
    }
  }

  private async send(): Promise<void> {
    if (this.busy || !this.wanted) return;
    this.busy = true;
    const content = this.wanted;
    try {
      const result = await api.saveWriting(this.id, this.revision, content);
      if ('conflict' in result) {
        this.theirs = { base: result.conflict.revision, content: result.conflict.content };
        this.state = 'stopped';
        this.why = 'This score was changed in another window.';
        return;
      }
      this.revision = result.revision;
      this.tries = 0;
      if (this.wanted === content) {
        this.wanted = null;
        forget(this.key);
        this.state = 'saved';
        this.why = '';
      } else keep(this.key, JSON.stringify({ base: this.revision, content: this.wanted } satisfies Unsent));
    } catch (error) {
      this.why = sentenceOf(error);
      const refused = error instanceof ApiError && error.status >= 400 && error.status < 500;
      this.state = refused ? 'stopped' : 'waiting';
      if (!refused) this.timer = setTimeout(() => void this.send(), WAITS[Math.min(this.tries++, WAITS.length - 1)]);
      return;
    } finally {
      this.busy = false;
    }
    if (this.wanted) void this.send();
  }

  /** Goes on over what stands on the server, with what this window has or with what stands there. */
  resolve(content: Written): void {
    if (this.theirs) this.revision = this.theirs.base;
    this.theirs = null;
    this.state = 'saving';
    this.save(content);
  }

  close(): void {
    clearTimeout(this.timer);
  }
}
