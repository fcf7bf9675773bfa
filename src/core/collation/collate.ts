import { cmp, format, type Fraction } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { beatOf, beatWords } from '../score/position.ts';
import { alignBars, type BarPair } from './align-bars.ts';
import { collateParts, inPartsOf, isMissing } from './align-parts.ts';
import { BarCollector } from './bar-collector.ts';
import type { SourceDifference } from './difference.ts';
import { collateDirections, directionsIn } from './directions.ts';
import { collateMeasures, collateMissing } from './measures.ts';
import { collateNotes } from './notes.ts';
import { collateSigns } from './signs.ts';
import { collateSpans, spansOf } from './spans.ts';

/** Two sources laid side by side. */
export interface Collation {
  bars: BarPair[];
  differences: SourceDifference[];
}

/** Notes of one part by measure. */
function notesByBar(score: Score, part: number): Note[][] {
  const bars: Note[][] = score.measures.map(() => []);
  for (const n of score.notes) if (n.part === part && !n.cue) bars[n.measure].push(n);
  return bars;
}

/** Lays two sources of one piece side by side and lists every difference between them, in order of the bars. */
export function collate(a: Score, source: Score): Collation {
  const b = inPartsOf(a, source);
  const bars = alignBars(a, b);
  const differences: SourceDifference[] = [];
  const ourBar = new Map<number, number>();
  for (const p of bars) if (p.a !== null && p.b !== null) ourBar.set(p.b, p.a);
  // What holds for all parts is told once.
  const first = a.parts.findIndex((p) => !isMissing(b.parts[p.index]));
  collateParts(a, b, differences);
  collateMissing(a, b, bars, differences);
  for (const { index: part } of a.parts) {
    if (isMissing(b.parts[part])) continue;
    const [ours, theirs] = [notesByBar(a, part), notesByBar(b, part)];
    const [ourWords, theirWords] = [directionsIn(a, part), directionsIn(b, part)];
    const collectors = new Map<number, BarCollector>();
    for (const { a: i, b: j } of bars) {
      if (i === null || j === null) continue;
      const out = new BarCollector(i, j, part);
      collectors.set(i, out);
      if (part === first) collateMeasures(a, b, i, j, part, out);
      const [mine, other] = [ours[i], theirs[j]];
      collateNotes(mine, other, out);
      collateSigns(mine, other, out);
      const beat = (onset: Fraction): string => `beat ${beatWords(format(beatOf(a.measures[i], onset)))}`;
      collateDirections(ourWords[i], theirWords[j], beat, out);
    }
    collateSpans(a, spansOf(a, part), spansOf(b, part), ourBar, collectors);
    for (const c of collectors.values()) differences.push(...c.found);
  }
  return { bars, differences: differences.sort((x, y) => x.measure - y.measure || x.part - y.part || cmp(x.onset, y.onset)) };
}
