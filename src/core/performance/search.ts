/**
 * Index of the last of `count` things in order of time that has begun by a moment; 0 where none has.
 * @param begins when the thing at an index begins
 */
export function lastBegun(count: number, begins: (index: number) => number, moment: number, from = 0): number {
  let low = from;
  let high = count - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (begins(middle) <= moment) low = middle;
    else high = middle - 1;
  }
  return low;
}
