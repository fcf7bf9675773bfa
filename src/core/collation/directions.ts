import { eq, type Fraction } from '../score/fraction.ts';
import { printMetronome } from '../score/metronome.ts';
import type { Direction, Score } from '../score/model.ts';
import { tempoOfWords } from '../style/tempo-words.ts';
import type { BarCollector } from './bar-collector.ts';
import { NOTHING, type DifferenceKind } from './difference.ts';
import { pairUp } from './pair-up.ts';

/** What a direction says, and as which kind of difference it counts. */
function directionSays(d: Direction): [DifferenceKind, string] | null {
  switch (d.kind) {
    case 'dynamic':
      return ['dynamic', d.value];
    case 'metronome':
      return d.perMinute ? ['tempo', printMetronome(d)] : null;
    case 'words':
      return d.text.trim() ? [tempoOfWords(d.text) ? 'tempo' : 'words', d.text.trim()] : null;
    default:
      return null;
  }
}

export interface Placed {
  kind: DifferenceKind;
  onset: Fraction;
  says: string;
}

/** Directions of one part in one bar. */
export const directionsIn = (score: Score, part: number): Placed[][] => {
  const bars: Placed[][] = score.measures.map(() => []);
  for (const d of score.directions) {
    const said = d.part === part ? directionSays(d) : null;
    if (said) bars[d.measure].push({ kind: said[0], onset: d.onset, says: said[1] });
  }
  return bars;
};

export function collateDirections(
  ours: readonly Placed[],
  theirs: readonly Placed[],
  beat: (onset: Fraction) => string,
  out: BarCollector
): void {
  for (const kind of ['dynamic', 'tempo', 'words'] as const) {
    let left: readonly Placed[] = ours.filter((d) => d.kind === kind);
    const right = theirs.filter((d) => d.kind === kind);
    left = pairUp(left, right, (x, y) => x.says === y.says && eq(x.onset, y.onset));
    left = pairUp(
      left,
      right,
      (x, y) => eq(x.onset, y.onset),
      (x, y) => out.add(kind, x.onset, x.says, y.says)
    );
    left = pairUp(
      left,
      right,
      (x, y) => x.says === y.says,
      (x, y) => out.add(kind, x.onset, `${x.says} on ${beat(x.onset)}`, `${y.says} on ${beat(y.onset)}`)
    );
    for (const x of left) out.add(kind, x.onset, x.says, NOTHING);
    for (const y of right) out.add(kind, y.onset, NOTHING, y.says);
  }
}
