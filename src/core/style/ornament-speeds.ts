/** How quickly ornaments can be fingered. [M] */
export const ORNAMENT_SPEEDS = {
  /** Notes of the shortest trill, mordent or turn. */
  leastNotes: 3,
  /** Notes a second with one finger that moves, and with several at once. */
  oneFinger: 16,
  severalFingers: 10
} as const;
