import { nanoid } from 'nanoid';
import { describe, type Act } from '$core/reading/log';
import { api, ApiError } from '../api';
import type { Command } from '$core/reading/commands/index';

export type SaveState = 'saved' | 'saving' | 'waiting';

const MOST_AT_ONCE = 400;
/** How long to wait before a failed save is tried again. */
const RETRY_MS = 2000;

/**
 * Sends the acts of a reading to the server, in order, and keeps what is not yet confirmed in the
 * browser's own storage, so that neither a reload nor a crash loses it. Acts made in another tab or by
 * somebody else are taken in first and the own ones put behind them.
 */
export class Saving {
  state = $state<SaveState>('saved');
  /** How many acts are sent at once; one by one when the server refuses some among many. */
  private most = MOST_AT_ONCE;
  /** Acts that the server has not confirmed; some may have arrived all the same. */
  private pending: Act[] = [];
  private made = 0;
  private sending = false;
  /** What is pending could not be kept in the browser's store. */
  private unkept = false;
  /** Something was done elsewhere while own acts were being sent: it is looked at when they have arrived. */
  private behind = false;
  private waiting: (() => void)[] = [];
  private readonly tab = nanoid();
  private readonly channel: BroadcastChannel;
  private readonly closed = new AbortController();

  constructor(
    private readonly readingId: number,
    private confirmed: Command[],
    private readonly changed: (log: Command[], fromElsewhere: number) => void,
    private readonly refused: (sentence: string) => void
  ) {
    this.channel = new BroadcastChannel(`nuvelo-reading-${readingId}`);
    this.channel.onmessage = () => void this.catchUp();
    // The lock lives as long as the tab: what a tab without lock left behind may be taken over.
    void navigator.locks?.request(`nuvelo-tab-${this.tab}`, () => new Promise(() => {}));
    // While this page was on its way, the one before may have saved its last acts.
    void this.catchUp(false).then(() => this.adoptLeftovers());
  }

  get log(): Command[] {
    return [...this.confirmed, ...commandsOf(this.pending)];
  }

  add(commands: Command[]): void {
    this.pending.push(...commands.map((command) => ({ origin: `${this.tab}-${++this.made}`, command })));
    this.keep();
    void this.flush();
  }

  /** Fetches what has been done elsewhere; `tell` whether it is told that it was. */
  async catchUp(tell = true): Promise<void> {
    if (this.sending) {
      this.behind = true;
      return;
    }
    this.behind = false;
    const from = this.confirmed.length;
    const acts = await this.actsAfter(from);
    if (!acts.length) return;
    if (!this.sending && from === this.confirmed.length) this.takeIn(acts, tell);
    // Own acts have gone out meanwhile: what was fetched may be too little, or hold them.
    else if (this.sending) this.behind = true;
    else await this.catchUp(tell);
  }

  /** What the server has beyond a revision; nothing while it does not answer. */
  private async actsAfter(revision: number): Promise<Act[]> {
    try {
      return await api.actsAfter(this.readingId, revision);
    } catch {
      return [];
    }
  }

  /** Resolves when everything that was done so far has been saved. */
  settled(): Promise<void> {
    if (!this.pending.length && !this.sending) return Promise.resolve();
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  close(): void {
    this.closed.abort();
    this.channel.close();
  }

  private get key(): string {
    return `nuvelo-pending-${this.readingId}-${this.tab}`;
  }

  /** The browser's store is a second rope: where it is full or forbidden, acts are sent all the same. */
  private keep(): void {
    try {
      if (this.pending.length) localStorage.setItem(this.key, JSON.stringify(this.pending));
      else localStorage.removeItem(this.key);
      this.unkept = false;
    } catch {
      // What was kept before is older than what is pending and would come back beside it.
      if (!this.unkept && this.pending.length)
        this.refused('This browser keeps nothing more for Nuvelo: until all is saved, do not close this window.');
      this.unkept = true;
    }
  }

  /** Takes in what the server has beyond what was confirmed; own acts among it have arrived, though no answer said so. */
  private takeIn(missed: Act[], tell = true): void {
    const origins = new Set(missed.map((a) => a.origin));
    const waiting = this.pending.filter((a) => !origins.has(a.origin));
    const arrived = this.pending.length - waiting.length;
    this.pending = waiting;
    this.confirmed.push(...commandsOf(missed));
    this.keep();
    this.changed(this.log, tell ? missed.length - arrived : 0);
  }

  private async flush(): Promise<void> {
    if (this.sending) return;
    if (this.pending.length === 0) return this.rest();
    this.sending = true;
    this.state = 'saving';
    const batch = this.pending.slice(0, this.most);
    let again = 0;
    try {
      const result = await api.append(this.readingId, this.confirmed.length, batch);
      if ('conflict' in result) this.takeIn(result.missed);
      else {
        const { already } = result;
        this.confirmed.push(...commandsOf(batch.filter((a) => !already.includes(a.origin!))));
        this.pending.splice(0, batch.length);
        this.keep();
        if (already.length) this.changed(this.log, 0);
        this.channel.postMessage('changed');
      }
    } catch (error) {
      const status = error instanceof ApiError ? error.status : 0;
      // Sent again it would be refused again, and nothing after it would ever be saved.
      if (status === 400 || status === 413) {
        if (batch.length > 1) this.most = 1;
        else this.refuse(batch[0].command, (error as ApiError).message);
      } else again = RETRY_MS;
    }
    this.sending = false;
    if (again) {
      this.state = 'waiting';
      setTimeout(() => void this.flush(), again);
    } else void this.flush();
  }

  /** Everything has been stored. */
  private rest(): void {
    this.most = MOST_AT_ONCE;
    this.state = 'saved';
    for (const go of this.waiting.splice(0)) go();
    if (this.behind) void this.catchUp();
  }

  /** An act that the server will never take is taken back here, and it is said which one and why. */
  private refuse(command: Command, why: string): void {
    this.pending.shift();
    this.keep();
    this.changed(this.log, 0);
    this.refused(`“${describe(command)}” was refused and has been taken back. ${why}`);
  }

  /**
   * Acts that a tab left unsent are sent as soon as that tab is gone; after a reload the old page may still be going
   * when the new one looks. Where the browser has no locks (a plain address in a school's network), at once.
   */
  private adoptLeftovers(): void {
    const prefix = `nuvelo-pending-${this.readingId}-`;
    for (const key of keptKeys()) {
      if (!key.startsWith(prefix) || key === this.key) continue;
      const adopt = () => this.adopt(key);
      if (!navigator.locks) adopt();
      // A room that is left stops waiting; the next one asks anew.
      else navigator.locks.request(`nuvelo-tab-${key.slice(prefix.length)}`, { signal: this.closed.signal }, adopt).catch(() => {});
    }
  }

  /** The server knows which of them had arrived. */
  private adopt(key: string): void {
    const kept = JSON.parse(localStorage.getItem(key) ?? '[]') as Act[];
    if (!kept.length || this.closed.signal.aborted) return;
    this.pending.push(...kept);
    this.keep();
    if (!this.unkept) localStorage.removeItem(key);
    this.changed(this.log, 0);
    void this.flush();
  }
}

/** The keys of the browser's store; none where it is forbidden. */
function keptKeys(): string[] {
  try {
    return Object.keys(localStorage);
  } catch {
    return [];
  }
}

const commandsOf = (acts: readonly Act[]): Command[] => acts.map((a) => a.command);
