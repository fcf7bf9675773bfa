import { nanoid } from 'nanoid';
import type { Plan } from '$core/rehearsal/plan/plan';
import { api, ApiError } from '../api';
import { forget, keep, kept, keptKeys } from '../kept';
import { pauseAfter } from '../retry';
import type { Letter } from '../shapes';
import { sentenceOf } from '../workspace/latest';

const PREFIX = 'nuvelo-practice-letter-';
/** Refusals that time mends: signed out, too many at once, too slow. */
const PASSING = [401, 408, 429];

/** Letters that this browser still has from before, the oldest first. */
const waitingLetters = (): Letter[] =>
  keptKeys(PREFIX)
    .sort()
    .flatMap((key) => {
      try {
        return [JSON.parse(kept(key) ?? '') as Letter];
      } catch {
        return [];
      }
    });

/**
 * What was done in practice, on its way to the server: kept in this browser until it is there, so that nothing is lost
 * offline or when the page is closed. Every letter may be sent twice.
 */
export class Outbox {
  /** How many letters wait. */
  waiting = $state(0);
  /** What was refused for good, in one sentence. */
  fault = $state<string | null>(null);
  private letters: Letter[] = [];
  /** Letters that are in the browser's store: gone from there, another window has sent them. */
  private readonly stored = new Set<string>();
  private sending = false;
  private wake: (() => void) | null = null;
  private readonly answers = new Map<string, (plan: Plan) => void>();

  constructor() {
    this.letters = waitingLetters();
    this.waiting = this.letters.length;
    for (const l of this.letters) this.stored.add(l.id);
    window.addEventListener('online', () => this.wake?.());
    void this.send();
  }

  /** What is on its way to an address, or below it. */
  waitingFor(address: string): Letter[] {
    return this.letters.filter((l) => l.address === address || l.address.startsWith(`${address}/`));
  }

  /** @param answered is told the plan as the server has it then */
  post(method: Letter['method'], address: string, body: unknown, answered?: (plan: Plan) => void): void {
    // Names in the order of time, so that what was left behind is sent in its order.
    const letter: Letter = { id: `${Date.now().toString(36).padStart(9, '0')}-${nanoid(8)}`, method, address, body };
    this.letters.push(letter);
    this.waiting = this.letters.length;
    if (keep(PREFIX + letter.id, JSON.stringify(letter))) this.stored.add(letter.id);
    if (answered) this.answers.set(letter.id, answered);
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    for (let tries = 0; this.letters.length;) {
      const [letter] = this.letters;
      if (this.stored.has(letter.id) && kept(PREFIX + letter.id) === null) {
        // Sent once more it would undo what came after it.
        this.done(letter);
        continue;
      }
      try {
        const plan = await api.post(letter);
        if (plan) this.answers.get(letter.id)?.(plan);
        this.done(letter);
        tries = 0;
      } catch (error) {
        const status = error instanceof ApiError ? error.status : 0;
        if (status >= 400 && status < 500 && !PASSING.includes(status)) {
          this.fault = sentenceOf(error);
          this.done(letter);
          continue;
        }
        await new Promise<void>((done) => {
          const timer = setTimeout(done, pauseAfter(tries++));
          this.wake = () => (clearTimeout(timer), done());
        });
        this.wake = null;
      }
    }
    this.sending = false;
  }

  private done(letter: Letter): void {
    forget(PREFIX + letter.id);
    this.answers.delete(letter.id);
    this.stored.delete(letter.id);
    this.letters = this.letters.filter((l) => l !== letter);
    this.waiting = this.letters.length;
  }
}

let shared: Outbox | null = null;

/** The outbox of this window: one, so that nothing is sent by two. */
export const sharedOutbox = (): Outbox => (shared ??= new Outbox());
