import { bisector } from 'd3-array';

/** Searches in lists that stand in order of time. */
export interface Search<T> {
  /** Index of the last thing (of `from` up to `to`, the end not included) that has begun by a moment; `from` where none has. */
  lastBegun(things: ArrayLike<T>, moment: number, from?: number, to?: number): number;
  /** Index of the first thing that begins at a moment or later; the length of the list where none does. */
  firstFrom(things: ArrayLike<T>, moment: number): number;
}

/** @param begins when a thing begins, in the unit of the moments that are asked for */
export function searchBy<T>(begins: (thing: T) => number): Search<T> {
  const { left, right } = bisector<T, number>(begins);
  return {
    lastBegun: (things, moment, from = 0, to = things.length) => Math.max(from, right(things, moment, from, to) - 1),
    firstFrom: (things, moment) => left(things, moment)
  };
}

/** Among moments themselves. */
export const MOMENTS: Search<number> = searchBy((moment: number) => moment);
