/**
 * Pairs each item of one list with the first of another that is like it.
 * @param right what is paired is taken out of it
 * @returns what of the first list found no partner
 */
export function pairUp<T>(left: readonly T[], right: T[], alike: (x: T, y: T) => boolean, then: (x: T, y: T) => void = () => {}): T[] {
  return left.filter((x) => {
    const k = right.findIndex((y) => alike(x, y));
    if (k < 0) return true;
    then(x, right.splice(k, 1)[0]);
    return false;
  });
}
