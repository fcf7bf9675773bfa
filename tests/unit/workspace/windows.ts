/**
 * Windows of a browser and a server between which requests get lost, for `Saving`: what is stored is the real
 * repository over a database in memory; what the browser gives is stood in for as little as can be.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import { setImmediate as turn } from 'node:timers/promises';
import { mock } from 'node:test';
import type { Command } from '../../../src/core/reading/commands/index.ts';
import { advanced, AT_THE_BEGINNING, type Standing } from '../../../src/core/reading/log.ts';
import type { Saving } from '../../../src/lib/workspace/saving.svelte.ts';
import { actsAfter, append, logOf } from '../../../src/lib/server/repositories/readings.ts';
import type { Database } from '../../../src/lib/server/db/open.ts';

/** What becomes of a request: answered; stored but not answered; not even stored; stored later, unless the log has gone on. */
export type Outcome = 'answered' | 'answer lost' | 'lost' | 'late';

const realTimeout = globalThis.setTimeout;

interface Window {
  alive: boolean;
  saving: Saving;
  /** Commands in the order in which this window made them. */
  made: Command[];
  notices: string[];
  fromElsewhere: number;
}

export class Windows {
  readonly inside = new AsyncLocalStorage<{ alive: boolean }>();
  readonly open: Window[] = [];
  /** Everything that was made in any window, gone ones too. */
  readonly all: Window[] = [];
  outcome: Outcome = 'answered';
  /** The browser's store takes nothing more. */
  full = false;
  /** The browser's store may not be used at all. */
  forbidden = false;
  /** The history that the server gives to pages. */
  history = 'history-1';
  /** The server goes on from a backup. */
  otherHistory = false;
  /** What the server answers to acts instead of storing them. */
  breaks: { status: number; message: string } | null = null;
  /** How often acts were sent. */
  sent = 0;
  /** How long requests and answers are on their way, in turns of the event loop, used in this order again and again. */
  delays: number[] = [0];
  /** Sentence with which a command of this kind is refused. */
  refuses: Partial<Record<Command['type'], string>> = {};
  private late: (() => Promise<void>)[] = [];
  private underWay = 0;
  private requests = 0;
  private readonly storage = new Map<string, string>();
  private readonly channels = new Set<{ owner: { alive: boolean }; onmessage: (() => void) | null }>();
  private readonly locks = new Map<string, { holder: { alive: boolean } | null; queue: (() => void)[] }>();

  constructor(
    private readonly db: Database,
    private readonly readingId: number,
    private readonly make: (standing: Standing, window: Pick<Window, 'notices'> & { changed(n: number): void; history: string }) => Saving
  ) {
    mock.timers.enable({ apis: ['setTimeout'] });
    const plain = globalThis.setTimeout;
    const inside = this.inside;
    Object.assign(globalThis, {
      // A window's timers end with it.
      setTimeout: (f: () => void, ms: number) =>
        plain(
          AsyncLocalStorage.bind(() => inside.getStore()?.alive !== false && f()),
          ms
        ),
      localStorage: this.storageObject(),
      fetch: (url: string, init?: RequestInit) => this.request(url, init),
      BroadcastChannel: this.channelClass()
    });
    Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { locks: { request: this.requestLock } } });
  }

  /** Opens a window on the reading as it is stored now. */
  async openOne(): Promise<Window> {
    const standing = advanced(AT_THE_BEGINNING, await logOf(this.db, this.readingId));
    const window = { alive: true, made: [], notices: [], fromElsewhere: 0 } as unknown as Window;
    window.saving = this.inside.run(window, () =>
      this.make(standing, { notices: window.notices, changed: (n) => (window.fromElsewhere += n), history: this.history })
    );
    this.open.push(window);
    this.all.push(window);
    return window;
  }

  act(window: Window, command: Command): void {
    window.made.push(command);
    this.inside.run(window, () => window.saving.add([command]));
  }

  /** The window goes without having been asked: what it has under way never comes back to it. */
  crash(window: Window): void {
    window.alive = false;
    this.open.splice(this.open.indexOf(window), 1);
    for (const lock of this.locks.values())
      if (lock.holder === window) {
        lock.holder = null;
        lock.queue.shift()?.();
      }
  }

  /** A request that had been given up reaches the server after all. */
  async deliverLate(): Promise<void> {
    await this.late.shift()?.();
  }
  get lateOnes(): number {
    return this.late.length;
  }

  /** Waits until nothing is under way. */
  async idle(): Promise<void> {
    for (let quiet = 0; quiet < 4; quiet = this.underWay ? 0 : quiet + 1) await turn();
  }

  /** Lets the time pass after which requests are tried again. */
  async wait(ms = 30_000): Promise<void> {
    await this.idle();
    mock.timers.tick(ms);
    await this.idle();
  }

  close(): void {
    for (const window of this.open) window.alive = false;
    mock.timers.reset();
    globalThis.setTimeout = realTimeout;
  }

  private request(url: string, init?: RequestInit): Promise<Response> {
    const window = this.inside.getStore();
    if (!window?.alive) return new Promise(() => {});
    const outcome = this.outcome;
    this.underWay++;
    const answer = (async () => {
      await this.onTheWay();
      if (outcome === 'lost') throw new Error('no connection');
      if (!init?.method) {
        const after = Number(new URL(url, 'http://here').searchParams.get('after'));
        const found = await actsAfter(this.db, this.readingId, after);
        await this.onTheWay();
        if (this.otherHistory) return Response.json({ message: 'Another history.' }, { status: 410 });
        return Response.json(found);
      }
      this.sent++;
      const { base, acts } = JSON.parse(String(init.body));
      if (outcome === 'late') {
        this.late.push(async () => void (await append(this.db, this.readingId, base, acts)));
        throw new Error('no answer');
      }
      const wrong = (acts as { command: Command }[]).map((a) => this.refuses[a.command.type]).find(Boolean);
      if (wrong) return Response.json({ message: wrong }, { status: 400 });
      if (this.otherHistory) return Response.json({ message: 'Another history.' }, { status: 410 });
      if (this.breaks) return Response.json(this.breaks, { status: this.breaks.status });
      const result = await append(this.db, this.readingId, base, acts);
      await this.onTheWay();
      if (outcome === 'answer lost') throw new Error('no answer');
      return Response.json(result, { status: 'conflict' in result ? 409 : 200 });
    })();
    void answer.catch(() => {}).finally(() => this.underWay--);
    return answer.then(
      (r) => (window.alive ? r : new Promise<Response>(() => {})),
      (e) => (window.alive ? Promise.reject(e as Error) : new Promise<Response>(() => {}))
    );
  }

  private async onTheWay(): Promise<void> {
    const turns = this.delays[this.requests++ % this.delays.length];
    for (let k = 0; k < turns; k++) await turn();
  }

  private storageObject(): object {
    const alive = (): boolean => this.inside.getStore()?.alive !== false;
    return new Proxy(
      {},
      {
        ownKeys: () => {
          if (this.forbidden) throw new DOMException('The store may not be used.', 'SecurityError');
          return [...this.storage.keys()];
        },
        getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
        get: (_, name) => {
          if (this.forbidden) throw new DOMException('The store may not be used.', 'SecurityError');
          if (name === 'getItem') return (key: string) => this.storage.get(key) ?? null;
          if (name === 'setItem')
            return (key: string, value: string): void => {
              if (this.full) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
              if (alive()) this.storage.set(key, value);
            };
          return (key: string) => void (alive() && this.storage.delete(key));
        }
      }
    );
  }
  /** Acts that windows have left in the browser's own storage. */
  get left(): number {
    return [...this.storage.values()].reduce((n, v) => n + (JSON.parse(v) as unknown[]).length, 0);
  }

  private channelClass(): object {
    const { channels, inside } = this;
    return class {
      owner = inside.getStore()!;
      onmessage: (() => void) | null = null;
      constructor() {
        channels.add(this);
      }
      postMessage(): void {
        for (const other of channels) if (other !== this && other.owner.alive) inside.run(other.owner, () => other.onmessage?.());
      }
      close(): void {
        channels.delete(this);
      }
    };
  }

  private readonly requestLock = (name: string, ...rest: unknown[]): Promise<void> => {
    const callback = rest.pop() as () => Promise<void> | void;
    const holder = this.inside.getStore()!;
    const lock = this.locks.get(name) ?? { holder: null, queue: [] };
    this.locks.set(name, lock);
    const take = AsyncLocalStorage.bind((): void => {
      if (!holder.alive) return void lock.queue.shift()?.();
      lock.holder = holder;
      void Promise.resolve(callback()).then(() => {
        lock.holder = null;
        lock.queue.shift()?.();
      });
    });
    if (lock.holder) lock.queue.push(take);
    else take();
    return Promise.resolve();
  };
}
