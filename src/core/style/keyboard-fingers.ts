/**
 * Spans between fingers of a right hand in semitones, and the rules of melodic fingering. Source: Parncutt, Sloboda, Clarke,
 * Raekallio and Desain, Music Perception 14(4), 1997; table and rules from memory (handbook 14.1).
 */
interface Span {
  practical: readonly [number, number];
  comfortable: readonly [number, number];
  relaxed: readonly [number, number];
}
const span = (minP: number, minC: number, minR: number, maxR: number, maxC: number, maxP: number): Span => ({
  practical: [minP, maxP],
  comfortable: [minC, maxC],
  relaxed: [minR, maxR]
});

/** By the lower and the higher finger, 1 the thumb. */
export const SPANS: Record<string, Span> = {
  '12': span(-5, -3, 1, 5, 8, 10),
  '13': span(-4, -2, 3, 7, 10, 12),
  '14': span(-3, -1, 5, 9, 12, 14),
  '15': span(-1, 1, 7, 10, 13, 15),
  '23': span(1, 1, 1, 2, 3, 5),
  '24': span(1, 1, 3, 4, 5, 7),
  '25': span(2, 2, 5, 6, 8, 10),
  '34': span(1, 1, 1, 2, 2, 4),
  '35': span(1, 1, 3, 4, 5, 7),
  '45': span(1, 1, 1, 2, 3, 5)
};

/** Prices of the rules, by their names. */
export const KEYBOARD = {
  stretch: 2,
  spanWithThumb: 1,
  spanWithout: 2,
  positionChangeFull: 2,
  positionChangeHalf: 1,
  positionChangeSize: 1,
  weakFinger: 1,
  threeFourFive: 1,
  threeToFour: 1,
  fourOnBlack: 1,
  thumbOnBlack: 1,
  thumbBesideWhite: 2,
  /** The thumb keeps to white keys where a scale is played: without it the rules give F major 1 2 3 1. [C] */
  thumbKeepsToWhite: 2,
  fiveBesideWhite: 2,
  thumbPassing: 1,
  thumbPassingToBlack: 3,
  /** One finger on two keys in turn: the published model leaves it out. [M] */
  sameFinger: 30,
  sameFingerASemitone: 0.5,
  /** The fourth finger a fifth or more from the thumb, where the fifth lies free. [C] */
  fifthIsFree: 0.5,
  fifthFrom: 7,
  /** Another finger on a key that is struck again. [M] */
  changeOnRepeat: 0.5,
  /** Another finger than scales are learnt with, inside a run of so many steps. [M] */
  notAsScales: 1.5,
  scaleRun: 6,
  /** In a rest the hand is free. [M] */
  inRest: 0.2,
  restSeconds: 0.15,
  /** Ways to take a chord that are looked at, at most; and what a hand reaches unless the teacher says otherwise: a ninth. */
  mostGrips: 6,
  reach: 14,
  /** From what span on a chord is listed. */
  wide: 12,
  /** Another way is shown where it costs at most so much more. */
  close: 2
} as const;

/**
 * Fingers of major scales by degree, inside a run of several octaves, by sharps or flats of the signature: of keys for which
 * the published rules alone give others. [C] Any scale book; from memory.
 */
export const SCALE_FINGERS: Record<number, { right: readonly number[]; left: readonly number[] }> = {
  2: { right: [1, 2, 3, 1, 2, 3, 4], left: [1, 4, 3, 2, 1, 3, 2] },
  3: { right: [1, 2, 3, 1, 2, 3, 4], left: [1, 4, 3, 2, 1, 3, 2] },
  4: { right: [1, 2, 3, 1, 2, 3, 4], left: [1, 4, 3, 2, 1, 3, 2] },
  5: { right: [1, 2, 3, 1, 2, 3, 4], left: [1, 3, 2, 1, 4, 3, 2] },
  6: { right: [2, 3, 4, 1, 2, 3, 1], left: [4, 3, 2, 1, 3, 2, 1] },
  [-2]: { right: [4, 1, 2, 3, 1, 2, 3], left: [3, 2, 1, 4, 3, 2, 1] },
  [-3]: { right: [3, 1, 2, 3, 4, 1, 2], left: [3, 2, 1, 4, 3, 2, 1] },
  [-4]: { right: [3, 4, 1, 2, 3, 1, 2], left: [3, 2, 1, 4, 3, 2, 1] },
  [-5]: { right: [2, 3, 1, 2, 3, 4, 1], left: [3, 2, 1, 4, 3, 2, 1] },
  [-6]: { right: [2, 3, 4, 1, 2, 3, 1], left: [4, 3, 2, 1, 3, 2, 1] }
};
