import { add, cmp, type Fraction } from '$core/score/fraction';
import type { Score } from '$core/score/model';

/** What is chosen in the piece: bars, an opened marking, notes. */
export class Selection {
  /** Measures, both included; `anchor` is where a range began. */
  private bars = $state.raw({ from: 0, to: 0, anchor: 0 });
  /** Marking that the brief shows opened. */
  openMarking = $state<string | null>(null);
  /** Notes that were chosen on the page, by id. */
  notes = $state.raw<ReadonlySet<string>>(new Set());

  /** @param score the score in view; null while it is on its way */
  constructor(private readonly score: () => Score | null) {}

  get from(): number {
    return this.bars.from;
  }

  get to(): number {
    return this.bars.to;
  }

  /** The end of a range that moves with the arrow keys. */
  get openEnd(): number {
    const { from, to, anchor } = this.bars;
    return anchor === from ? to : from;
  }

  /** Chooses a bar, or extends the range to it. */
  bar(measure: number, extend = false): void {
    // While the score is still on its way, the bar is taken as it is asked for.
    const last = (this.score()?.measures.length ?? Number.MAX_SAFE_INTEGER) - 1;
    const to = Math.max(0, Math.min(last, measure));
    const { anchor } = this.bars;
    this.bars = extend ? { from: Math.min(anchor, to), to: Math.max(anchor, to), anchor } : { from: to, to, anchor: to };
    this.openMarking = null;
  }

  /** Moves the open end of the range by bars. */
  step(by: number, extend: boolean): void {
    this.bar(this.openEnd + by, extend);
  }

  /**
   * Chooses bars by a key: arrows a bar on and back, Home and End, and what else takes steps; with Shift a range.
   * @returns true where the key meant something
   */
  key({ key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>, further: Readonly<Record<string, number>> = {}): boolean {
    const step = { ArrowRight: 1, ArrowLeft: -1, ...further }[key];
    if (step) this.step(step, shiftKey);
    else if (key === 'Home') this.bar(0, shiftKey);
    else if (key === 'End') this.bar(Infinity, shiftKey);
    else return false;
    return true;
  }

  /** True when a time, or a stretch, lies in the chosen bars. */
  holds(start: Fraction, end: Fraction | null = null): boolean {
    const score = this.score();
    if (!score) return false;
    const first = score.measures[this.from];
    const next = score.measures[this.to + 1];
    const before = end ? cmp(end, first.start) > 0 : cmp(start, first.start) >= 0;
    return before && (!next || cmp(start, next.start) < 0);
  }

  /** The chosen bars as a half-open stretch of time. */
  stretch(): { from: Fraction; to: Fraction } {
    const { measures } = this.score()!;
    const last = measures[Math.min(this.to, measures.length - 1)];
    return { from: measures[Math.min(this.from, measures.length - 1)].start, to: add(last.start, last.length) };
  }

  /** Chooses a note, or lets it go. */
  note(id: string): void {
    const next = new Set(this.notes);
    if (!next.delete(id)) next.add(id);
    this.notes = next;
  }

  noNotes(): void {
    this.notes = new Set();
  }
}
