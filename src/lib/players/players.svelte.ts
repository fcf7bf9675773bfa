import { nanoid } from 'nanoid';
import { newPlayer, type Player } from '$core/players/player';
import { api, ApiError } from '../api';
import { pauseAfter } from '../retry';
import { Undo } from '../undo.svelte';
import { sentenceOf } from '../workspace/latest';

/** What was done, so that it can be undone: the player before it, and after; null where there was none. */
interface Step {
  before: Player | null;
  after: Player | null;
}

/** The players of the studio on their page: every change is kept at once and can be undone. */
export class Players {
  list = $state.raw<Player[]>([]);
  /** What could not be kept, in one sentence; it stands in its field until it can. */
  fault = $state<string | null>(null);
  private readonly steps = new Undo<Step>();
  /** What is not kept yet, by key: the last state of each. */
  private readonly unsent = new Map<string, Player | null>();
  private sending = false;

  constructor(players: readonly Player[]) {
    this.list = [...players];
  }

  get canUndo(): boolean {
    return this.steps.canUndo;
  }

  get canRedo(): boolean {
    return this.steps.canRedo;
  }

  add(name: string): Player {
    const player = { ...newPlayer(name), key: nanoid() };
    this.carryOut({ before: null, after: player });
    return player;
  }

  change(key: string, change: Partial<Player>): void {
    const before = this.list.find((p) => p.key === key);
    if (before) this.carryOut({ before, after: { ...before, ...change } });
  }

  remove(key: string): void {
    const before = this.list.find((p) => p.key === key);
    if (before) this.carryOut({ before, after: null });
  }

  undo(): void {
    const step = this.steps.back();
    if (step) this.put({ before: step.after, after: step.before });
  }

  redo(): void {
    const step = this.steps.again();
    if (step) this.put(step);
  }

  private carryOut(step: Step): void {
    this.steps.add(step);
    this.put(step);
  }

  private put({ before, after }: Step): void {
    if (!before) this.list = [...this.list, after!];
    else this.list = this.list.flatMap((p) => (p.key === before.key ? (after ? [after] : []) : [p]));
    this.unsent.set((after ?? before)!.key, after);
    void this.send();
  }

  /** One after the other, so that the last change is the one that stands; what the server does not answer is sent again. */
  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    for (let tries = 0; this.unsent.size;) {
      const [key, state] = this.unsent.entries().next().value!;
      this.unsent.delete(key);
      try {
        await (state ? api.keepPlayer(state) : api.removePlayer(key));
        this.fault = null;
        tries = 0;
      } catch (error) {
        this.fault = sentenceOf(error);
        if (!(error instanceof ApiError) || error.status !== 0) continue;
        if (!this.unsent.has(key)) this.unsent.set(key, state);
        await new Promise((done) => setTimeout(done, pauseAfter(tries++)));
      }
    }
    this.sending = false;
  }
}
