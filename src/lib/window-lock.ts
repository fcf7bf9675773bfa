import { nanoid } from 'nanoid';

/**
 * The name of one opened room in one window, held as long as it lives: what it leaves behind unsent may be taken over when it
 * is gone. After a reload the old page may still be going when the new one looks.
 */
export class WindowLock {
  readonly name = nanoid();
  private readonly closed = new AbortController();
  private release = (): void => {};

  constructor() {
    void navigator.locks?.request(lockOf(this.name), () => new Promise<void>((done) => (this.release = done)));
  }

  /** Does something as soon as another room is gone; at once where the browser has no locks (a plain address in a school's network). */
  whenGone(name: string, act: () => void): void {
    if (!navigator.locks) act();
    // A room that is left stops waiting; the next one asks anew.
    else navigator.locks.request(lockOf(name), { signal: this.closed.signal }, act).catch(() => {});
  }

  get isClosed(): boolean {
    return this.closed.signal.aborted;
  }

  /** Waits for nothing any more. @param gone that what it left unsent may be taken over too */
  close(gone: boolean): void {
    this.closed.abort();
    if (gone) this.release();
  }
}

const lockOf = (name: string): string => `nuvelo-tab-${name}`;
