/** Length that two half-open ranges share; 0 where they do not meet. */
export const sharedLength = (from: number, to: number, otherFrom: number, otherTo: number): number =>
  Math.max(0, Math.min(to, otherTo) - Math.max(from, otherFrom));

/** Two places of equal length, in ticks. */
export interface TwoPlaces {
  fromA: number;
  toA: number;
  fromB: number;
  toB: number;
}

/** Share of the smaller pair of places that lies in the other, in both places. */
export const sharedPlaces = (x: TwoPlaces, y: TwoPlaces): number =>
  Math.min(
    sharedLength(x.fromA, x.toA, y.fromA, y.toA) / Math.max(1, Math.min(x.toA - x.fromA, y.toA - y.fromA)),
    sharedLength(x.fromB, x.toB, y.fromB, y.toB) / Math.max(1, Math.min(x.toB - x.fromB, y.toB - y.fromB))
  );
