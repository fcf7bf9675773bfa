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

/** Index of the first of `count` things in order of time that begins at a moment or later; `count` where none does. */
export function firstFrom(count: number, begins: (index: number) => number, moment: number): number {
  const last = lastBegun(count, begins, moment);
  for (let k = last; k >= 0; k--) if (k < count && begins(k) < moment) return k + 1;
  return 0;
}
