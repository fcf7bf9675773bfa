import type { Fraction } from '../../score/fraction.ts';
import type { Score } from '../../score/model.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import { placeName } from '../moments.ts';

/** "bar 12", or "bar 12, beat 3". */
export const placeWords = (score: Score, at: Fraction, withBeat: boolean): string =>
  withBeat ? placeName(score, at) : barLabel(score.measures, measureAt(score, at));

/** "bars 4–5", "bar 7". */
export function rangeWords(score: Score, from: Fraction, to: Fraction): string {
  const [a, b] = [measureAt(score, from), measureAt(score, to)];
  if (a === b) return barLabel(score.measures, a);
  const [first, last] = [barLabel(score.measures, a), barLabel(score.measures, b)];
  return first.startsWith('bar ') && last.startsWith('bar ') ? `bars ${a.number}–${b.number}` : `${first} to ${last}`;
}
