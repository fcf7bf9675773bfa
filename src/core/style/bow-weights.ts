/**
 * Prices of the bow's search. Handbook 12.1; set by hand on its check values (12.2) [M], adjustable. A price of 1 is about what
 * a player would rather not do once.
 */
export const BOW = {
  /** By how the direction is chosen (school `bowing`): what an up-bow on a downbeat costs, and what a split slur costs more. */
  schools: {
    'rule-of-downbow': { downbeatUp: 4, splitMore: 0 },
    gesture: { downbeatUp: 1.5, splitMore: 0 },
    'as-printed': { downbeatUp: 2.5, splitMore: 2 }
  },
  /** Share of that where one stroke fills its bar: long strokes turn in order. [C] */
  downbeatUpWholeBar: 0.4,
  /** Up-bow on the second strong beat of a bar, and on another beat. */
  strongUp: 0.8,
  beatUp: 0.3,
  /** Down-bow off the beat, on what leads to a downbeat, and on an upbeat at the beginning. */
  weakDown: 0.3,
  leadingDown: 0.4,
  upbeatDown: 1.5,
  accentUp: 1,
  chordUp: 1.5,
  lastLongUp: 0.8,
  /** School `gesture`: down while it grows, up while it fades. */
  againstGesture: 1.1,
  /** A second note in one direction, apart: dear when it is slow. */
  hook: 0.7,
  hookASecond: 0.8,
  /** The short note of a dotted figure within a beat. [P: L. Mozart 1756, from memory] */
  hookDotted: 0.4,
  /** A hook that ends on a strong beat. */
  hookOntoStrong: 0.6,
  /** A strong beat shares its bow unwillingly. */
  hookFromStrong: 0.6,
  /** The bow is set anew: dear when there is little time. */
  retake: 0.8,
  retakeTime: 0.4,
  /** Anywhere but at a bar line. */
  retakeInside: 1,
  split: 1.6,
  /** A long stroke before one that is shorter by so much: the bow has run out. */
  unequalFrom: 2.9,
  unequal: 0.8,
  /** For each time that a stroke is longer than the bow lasts. */
  tooLong: 3,
  /** Silence in seconds in which the bow is lifted. 0.15 to 0.25 [M] */
  liftSeconds: 0.2,
  /** Seconds that a bow lasts, in forte and in piano. [M] */
  lasts: { loud: 4, soft: 9 },
  /** Another way is shown where it costs at most so much more. */
  close: 1.5
} as const;

export type BowSchool = keyof typeof BOW.schools;
