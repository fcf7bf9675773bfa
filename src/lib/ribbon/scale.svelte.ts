import { fromNumber, toNumber, type Fraction } from '$core/score/fraction';
import type { Workspace } from '../workspace/workspace.svelte';

/** Narrowest cell of a bar, in pixels, with which a whole piece still stands in one strip. */
const NARROWEST = 11;
/** Width of a bar where only a window of the piece is shown. */
const IN_WINDOW = 24;

/** Where the bars of a piece stand in the ribbon: all of them where they fit, else a window that follows the selection. */
export class Scale {
  width = $state(0);
  private first = $state(0);

  constructor(private readonly workspace: Workspace) {}

  readonly bars = $derived.by(() => this.workspace.score?.measures.length ?? 0);
  /** Bars that are shown at a time. */
  readonly shown = $derived.by(() =>
    this.bars === 0 || this.width / this.bars >= NARROWEST ? this.bars : Math.max(1, Math.floor(this.width / IN_WINDOW))
  );
  readonly windowed = $derived.by(() => this.shown < this.bars);
  /** The first bar that is shown. */
  readonly from = $derived.by(() => (this.windowed ? Math.max(0, Math.min(this.first, this.bars - this.shown)) : 0));
  readonly to = $derived.by(() => this.from + this.shown);
  readonly cell = $derived.by(() => (this.shown ? this.width / this.shown : 0));
  /** Every so many bars have their number. */
  readonly every = $derived.by(() => (this.cell >= 26 ? 1 : this.cell >= 13 ? 2 : 5));

  /** Moves the window so that a bar is well inside of it. */
  follow(measure: number): void {
    const margin = Math.min(3, Math.floor(this.shown / 4));
    if (measure < this.from + margin || measure >= this.to - margin) this.center(measure);
  }

  center(measure: number): void {
    this.first = Math.round(measure - this.shown / 2);
  }

  /** Left side of a bar. */
  bar(measure: number): number {
    return (measure - this.from) * this.cell;
  }

  /** Place of a time; bars are equally wide. */
  x(time: Fraction): number {
    const measure = this.workspace.measureOf(time);
    if (!measure) return 0;
    const inside = (toNumber(time) - toNumber(measure.start)) / Math.max(1e-9, toNumber(measure.length));
    return this.bar(measure.index + Math.max(0, Math.min(1, inside)));
  }

  /** The same for a time in quarters as a number. */
  at(quarters: number): number {
    return this.x(fromNumber(quarters));
  }

  /** The bar under a place in the strip. */
  barAt(x: number): number {
    return Math.max(0, Math.min(this.bars - 1, this.from + Math.floor(x / Math.max(1, this.cell))));
  }

  /** Whether any of a stretch is shown. */
  sees(start: Fraction, end: Fraction = start): boolean {
    return !this.windowed || (this.x(end) >= 0 && this.x(start) <= this.width);
  }
}
