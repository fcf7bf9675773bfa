import { eq, format, type Fraction } from '../score/fraction.ts';
import type { Note } from '../score/model.ts';
import type { DifferenceKind, SourceDifference } from './difference.ts';

/** Collects what differs in one pair of bars and one part. */
export class BarCollector {
  readonly found: SourceDifference[] = [];

  constructor(
    private readonly measure: number,
    private readonly other: number,
    private readonly part: number
  ) {}

  add(
    kind: DifferenceKind,
    onset: Fraction,
    ours: string,
    theirs: string,
    ourNotes: readonly Note[] = [],
    theirNotes: readonly Note[] = [],
    takeable = true
  ): void {
    const at = `${kind}-${this.part}-${this.measure}-${format(onset)}`;
    const before = this.found.filter((d) => d.kind === kind && eq(d.onset, onset)).length;
    this.found.push({
      id: before ? `${at}-${before}` : at,
      kind,
      part: this.part,
      measure: this.measure,
      other: this.other,
      onset,
      ours,
      theirs,
      ourNotes: ourNotes.map((n) => n.id),
      theirNotes: theirNotes.map((n) => n.id),
      takeable
    });
  }
}
