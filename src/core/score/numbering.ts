import type { Measure, Score } from './model.ts';
import { isPickup } from './position.ts';

/**
 * Bar numbers as they are counted in a lesson: the first full bar is 1, an upbeat is not counted, the second
 * part of a divided bar belongs to the bar before it.
 */
export function countedNumbers(measures: readonly Measure[]): string[] {
  let count = 0;
  return measures.map((m) => {
    if (isPickup(m)) return '0';
    if (m.implicit && m.index > 0) return `X${count}`;
    return String(++count);
  });
}

/** The score with its bars renumbered for the étude; what was printed over each bar stays known as `printed`. */
export function renumbered(score: Score): Score {
  const numbers = countedNumbers(score.measures);
  return {
    ...score,
    measures: score.measures.map((m, k) => (numbers[k] === m.number ? m : { ...m, number: numbers[k], printed: m.number }))
  };
}

/** True when counting gives other numbers than the page. */
export const isRenumberable = (score: Score): boolean => countedNumbers(score.measures).some((n, k) => n !== score.measures[k].number);

/**
 * Index of the bar that a teacher means by "12", "0" (the upbeat) or a rehearsal letter; null when there is none.
 * A number that occurs twice means its first place.
 */
export function findBar(score: Score, text: string): number | null {
  const wanted = text.trim();
  if (!wanted) return null;
  const byNumber = score.measures.find((m) => m.number === wanted);
  if (byNumber) return byNumber.index;
  const byLetter = score.measures.find((m) => m.rehearsal?.toLowerCase() === wanted.toLowerCase());
  return byLetter ? byLetter.index : null;
}
