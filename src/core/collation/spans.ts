import { eq, format, sub, type Fraction } from '../score/fraction.ts';
import type { Measure, Note, Score } from '../score/model.ts';
import { barLabel, beatOf, beatWords, measureAt } from '../score/position.ts';
import type { BarCollector } from './bar-collector.ts';
import { NOTHING } from './difference.ts';
import { pairUp } from './pair-up.ts';

export interface Span {
  kind: 'slur' | 'dynamic';
  measure: number;
  onset: Fraction;
  what: string;
  endMeasure: number;
  endOnset: Fraction;
  notes: Note[];
}

/** Slurs and hairpins of one part with where they begin and end. */
export function spansOf(score: Score, part: number): Span[] {
  const notes = new Map(score.notes.map((n) => [n.id, n]));
  const spans: Span[] = [];
  for (const s of score.slurs) {
    const [from, to] = [notes.get(s.from), notes.get(s.to)];
    if (s.kind === 'slur' && from?.part === part && to)
      spans.push({
        kind: 'slur',
        measure: from.measure,
        onset: from.onset,
        what: 'slur',
        endMeasure: to.measure,
        endOnset: to.onset,
        notes: [from, to]
      });
  }
  const barOf = (t: Fraction): Measure => measureAt(score, t);
  for (const h of score.hairpins) {
    if (h.part !== part) continue;
    const from = barOf(h.start);
    let to = barOf(h.end);
    // The end of a hairpin at a bar line belongs to the bar that it closes.
    if (eq(to.start, h.end) && to.index > from.index) to = score.measures[to.index - 1];
    spans.push({
      kind: 'dynamic',
      measure: from.index,
      onset: sub(h.start, from.start),
      what: h.kind,
      endMeasure: to.index,
      endOnset: sub(h.end, to.start),
      notes: []
    });
  }
  return spans;
}

/** What differs in slurs and hairpins, told in our bars. */
export function collateSpans(
  a: Score,
  ours: readonly Span[],
  theirs: readonly Span[],
  ourBar: ReadonlyMap<number, number>,
  out: ReadonlyMap<number, BarCollector>
): void {
  // Their places, told in our bars.
  const right = theirs.flatMap((s) => {
    const [from, to] = [ourBar.get(s.measure), ourBar.get(s.endMeasure)];
    return from === undefined || to === undefined ? [] : [{ ...s, measure: from, endMeasure: to }];
  });
  const known = (m: number): boolean => out.has(m);
  let left = ours.filter((s) => known(s.measure) && known(s.endMeasure));
  const begins = (x: Span, y: Span): boolean => x.kind === y.kind && x.measure === y.measure && eq(x.onset, y.onset);
  const ends = (x: Span, y: Span): boolean => x.kind === y.kind && x.endMeasure === y.endMeasure && eq(x.endOnset, y.endOnset);
  const place = (measure: number, onset: Fraction): string =>
    `${barLabel(a.measures, a.measures[measure])}, beat ${beatWords(format(beatOf(a.measures[measure], onset)))}`;
  const end = (s: Span): string => `${s.what} to ${place(s.endMeasure, s.endOnset)}`;
  left = pairUp(left, right, (x, y) => begins(x, y) && ends(x, y) && x.what === y.what);
  const differ = (x: Span, y: Span): void => out.get(x.measure)!.add(x.kind, x.onset, end(x), end(y), x.notes, y.notes);
  left = pairUp(left, right, begins, differ);
  left = pairUp(left, right, ends, (x, y) => {
    const from = (s: Span): string => `${s.what} from ${place(s.measure, s.onset)}`;
    out.get(x.measure)!.add(x.kind, x.onset, from(x), from(y), x.notes, y.notes);
  });
  for (const x of left) out.get(x.measure)!.add(x.kind, x.onset, end(x), NOTHING, x.notes, []);
  for (const y of right) out.get(y.measure)!.add(y.kind, y.onset, NOTHING, end(y), [], y.notes);
}
