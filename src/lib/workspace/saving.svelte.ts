import { advanced, describe, type Act, type Standing } from '$core/reading/log';
import { api, ApiError } from '../api';
import { pauseAfter } from '../retry';
import { WindowLock } from '../window-lock';
import { forget, keep, kept, keptKeys } from '../kept';
import type { Command } from '$core/reading/commands/index';

/** "stopped": nothing more is sent from this window; what it had not sent is offered. */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'stopped';

const MOST_AT_ONCE = 400;

/** The reading of this window is not there any more (gone, or the server goes on from another history). */
const ENDED = [404, 410];
/** An act will never be taken. */
const REFUSED = [400, 413];

/**
 * Sends the acts of a reading to the server, in order, and keeps what is not yet confirmed in the
 * browser's own storage, so that neither a reload nor a crash loses it. Acts made in another tab or by
 * somebody else are taken in first and the own ones put behind them.
 */
export class Saving {
  state = $state<SaveState>('saved');
  /** Why it waits or has stopped, in a sentence. */
  why = $state('');
  /** Commands that cannot go into this history by themselves: made before a backup was restored, or left when the reading went. */
  unsent = $state.raw<Command[]>([]);
  /** How many acts are sent at once; one by one when the server refuses some among many. */
  private most = MOST_AT_ONCE;
  /** Acts that the server has not confirmed; some may have arrived all the same. */
  private pending: Act[] = [];
  private made = 0;
  private sending = false;
  private failures = 0;
  private retry: ReturnType<typeof setTimeout> | undefined;
  /** What is pending could not be kept in the browser's store. */
  private unkept = false;
  /** Something was done elsewhere while own acts were being sent: it is looked at when they have arrived. */
  private behind = false;
  private waiting: (() => void)[] = [];
  private readonly lock = new WindowLock();
  private readonly tab = this.lock.name;
  private readonly channel: BroadcastChannel;

  constructor(
    private readonly readingId: number,
    /** Which history the log belongs to; a restored backup begins another. */
    private readonly history: string,
    private confirmed: Standing,
    private readonly changed: (fromElsewhere: number) => void,
    private readonly refused: (sentence: string) => void
  ) {
    this.channel = new BroadcastChannel(`nuvelo-reading-${readingId}`);
    this.channel.onmessage = () => void this.catchUp();
    // While this page was on its way, the one before may have saved its last acts.
    void this.catchUp(false).then(() => this.adoptLeftovers());
  }

  /** Where the log stands, with what is on its way. */
  get standing(): Standing {
    return advanced(this.confirmed, commandsOf(this.pending));
  }

  add(commands: Command[]): void {
    this.pending.push(...commands.map((command) => ({ origin: `${this.tab}-${++this.made}`, command })));
    this.keep();
    if (this.state === 'stopped') this.unsent = [...this.unsent, ...commands];
    else void this.flush();
  }

  /** Fetches what has been done elsewhere; `tell` whether it is told that it was. */
  async catchUp(tell = true): Promise<void> {
    if (this.state === 'stopped') return;
    if (this.sending) {
      this.behind = true;
      return;
    }
    this.behind = false;
    const from = this.confirmed.revision;
    const { acts, more } = await this.actsAfter(from);
    if (!acts.length) return;
    if (!this.sending && from === this.confirmed.revision) {
      this.takeIn(acts, tell);
      if (more) await this.catchUp(tell);
    }
    // Own acts have gone out meanwhile: what was fetched may be too little, or hold them.
    else if (this.sending) this.behind = true;
    else await this.catchUp(tell);
  }

  /** What the server has beyond a revision; nothing while it does not answer. */
  private async actsAfter(revision: number): Promise<{ acts: Act[]; more: boolean }> {
    try {
      return await api.actsAfter(this.readingId, revision, this.history);
    } catch (error) {
      if (error instanceof ApiError && ENDED.includes(error.status)) this.stop(error.message);
      return { acts: [], more: false };
    }
  }

  /** Resolves when everything that was done so far has been saved. */
  settled(): Promise<void> {
    if (!this.pending.length && !this.sending) return Promise.resolve();
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  close(): void {
    // What was not confirmed is still being sent.
    this.lock.close(false);
    this.channel.close();
  }

  /** What was unsent has been seen to: put on, kept as a file or let go. */
  settleUnsent(): void {
    this.unsent = [];
    for (const key of keptKeys(this.ofReading)) if (!key.startsWith(this.prefix)) forget(key);
    if (this.state === 'stopped') forget(this.key);
  }

  /** What is kept for this reading, whatever its history. */
  private get ofReading(): string {
    return `nuvelo-pending-${this.readingId}-`;
  }
  private get prefix(): string {
    return `${this.ofReading}${this.history}/`;
  }
  private get key(): string {
    return this.prefix + this.tab;
  }

  /** The browser's store is a second rope: where it is full or forbidden, acts are sent all the same. */
  private keep(): void {
    const done = this.pending.length ? keep(this.key, JSON.stringify(this.pending)) : (forget(this.key), true);
    // What was kept before is older than what is pending and would come back beside it.
    if (!done && !this.unkept) this.refused('This browser keeps nothing more for Nuvelo: until all is saved, do not close this window.');
    this.unkept = !done;
  }

  /** Takes in what the server has beyond what was confirmed; own acts among it have arrived, though no answer said so. */
  private takeIn(missed: Act[], tell = true): void {
    const origins = new Set(missed.map((a) => a.origin));
    const waiting = this.pending.filter((a) => !origins.has(a.origin));
    const arrived = this.pending.length - waiting.length;
    this.pending = waiting;
    this.confirmed = advanced(this.confirmed, commandsOf(missed));
    this.keep();
    this.changed(tell ? missed.length - arrived : 0);
  }

  private async flush(): Promise<void> {
    if (this.sending || this.state === 'stopped') return;
    if (this.pending.length === 0) return this.rest();
    clearTimeout(this.retry);
    this.sending = true;
    this.state = 'saving';
    const batch = this.pending.slice(0, this.most);
    let failed = false;
    try {
      const result = await api.append(this.readingId, this.history, this.confirmed.revision, batch);
      if ('conflict' in result) this.takeIn(result.missed);
      else {
        const { already } = result;
        this.confirmed = advanced(this.confirmed, commandsOf(batch.filter((a) => !already.includes(a.origin!))));
        this.pending.splice(0, batch.length);
        this.keep();
        if (already.length) this.changed(0);
        this.channel.postMessage('changed');
      }
      this.failures = 0;
    } catch (error) {
      const { status, message } = error instanceof ApiError ? error : { status: 0, message: 'The server does not answer.' };
      if (ENDED.includes(status)) this.stop(message);
      // Sent again it would be refused again, and nothing after it would ever be saved.
      else if (REFUSED.includes(status)) {
        if (batch.length > 1) this.most = 1;
        else this.refuse(batch[0].command, message);
      } else {
        failed = true;
        this.why = message;
      }
    }
    this.sending = false;
    if (this.halted()) return;
    if (!failed) return void this.flush();
    this.state = 'waiting';
    this.retry = setTimeout(() => void this.flush(), pauseAfter(this.failures++));
  }

  private halted(): boolean {
    return this.state === 'stopped';
  }

  /** Nothing more is sent: what was not stays here and is offered. */
  private stop(why: string): void {
    this.state = 'stopped';
    this.why = why;
    this.unsent = [...this.unsent, ...commandsOf(this.pending)];
    clearTimeout(this.retry);
    for (const go of this.waiting.splice(0)) go();
  }

  /** Everything has been stored. */
  private rest(): void {
    this.most = MOST_AT_ONCE;
    this.state = 'saved';
    this.why = '';
    for (const go of this.waiting.splice(0)) go();
    if (this.behind) void this.catchUp();
  }

  /** An act that the server will never take is taken back here, and it is said which one and why. */
  private refuse(command: Command, why: string): void {
    this.pending.shift();
    this.keep();
    this.changed(0);
    this.refused(`“${describe(command)}” was refused and has been taken back. ${why}`);
  }

  /** Acts that a tab left unsent are sent as soon as that tab is gone. */
  private adoptLeftovers(): void {
    for (const key of keptKeys(this.ofReading)) {
      if (key === this.key) continue;
      if (!key.startsWith(this.prefix)) {
        // Made in another history: never put into this one by itself.
        this.unsent = [...this.unsent, ...commandsOf(keptActs(key))];
        continue;
      }
      this.lock.whenGone(key.slice(this.prefix.length), () => this.adopt(key));
    }
  }

  /** The server knows which of them had arrived. */
  private adopt(key: string): void {
    const left = keptActs(key);
    if (!left.length || this.lock.isClosed || this.state === 'stopped') return;
    this.pending.push(...left);
    this.keep();
    if (!this.unkept) forget(key);
    this.changed(0);
    void this.flush();
  }
}

/** The acts that are kept under a key; none where they cannot be read. */
function keptActs(key: string): Act[] {
  try {
    return JSON.parse(kept(key) ?? '[]') as Act[];
  } catch {
    return [];
  }
}

const commandsOf = (acts: readonly Act[]): Command[] => acts.map((a) => a.command);
