/** Work that waits for its turn. */
export interface Waiting {
  /** Whose it is. */
  person: string;
  /** Of which sort it is: those of one sort take turns with those of others. */
  kind: string;
  /** May take long: never so many at once that nothing else can begin. */
  long: boolean;
}

/** One person's works of one kind that may wait at once. Set by hand: a folder of scores is dropped in portions. */
export const MOST_WAITING = 40;

/**
 * Who is next: people take turns, and of one person the kinds do; each in the order in which it came. Long works leave one
 * place free for others.
 */
export class FairQueue<W extends Waiting> {
  private waiting: W[] = [];
  private running: W[] = [];
  /** When a person, and a person's kind, was last given a place. */
  private readonly served = new Map<string, number>();
  private turn = 0;

  constructor(private readonly places: number) {}

  /** @returns false when so many wait already that it is not taken */
  add(work: W): boolean {
    if (this.waiting.filter((w) => w.person === work.person && w.kind === work.kind).length >= MOST_WAITING) return false;
    this.waiting.push(work);
    return true;
  }

  /** Takes out what begins now; undefined when there is no place, or nothing that may begin. */
  next(): W | undefined {
    if (this.running.length >= this.places) return undefined;
    const longPlaces = Math.max(1, this.places - 1);
    const mayBegin = (w: W): boolean => !w.long || this.running.filter((r) => r.long).length < longPlaces;
    const rank = (w: W): [number, number] => [this.served.get(w.person) ?? 0, this.served.get(`${w.person}\n${w.kind}`) ?? 0];
    let first: W | undefined;
    for (const w of this.waiting) {
      if (!mayBegin(w)) continue;
      const [a, b] = [rank(w), first && rank(first)];
      if (!b || a[0] < b[0] || (a[0] === b[0] && a[1] < b[1])) first = w;
    }
    if (!first) return undefined;
    this.waiting.splice(this.waiting.indexOf(first), 1);
    this.running.push(first);
    this.served.set(first.person, ++this.turn);
    this.served.set(`${first.person}\n${first.kind}`, this.turn);
    return first;
  }

  /** It has ended, or waits no more. */
  remove(work: W): void {
    this.waiting = this.waiting.filter((w) => w !== work);
    this.running = this.running.filter((w) => w !== work);
  }

  get length(): { waiting: number; running: number } {
    return { waiting: this.waiting.length, running: this.running.length };
  }
}
