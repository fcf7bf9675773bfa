import type { Period } from './profiles.ts';

/**
 * How a left hand lies on strings. Violin and viola: a finger to a step of the scale. Others: a finger to so many semitones.
 * Handbook 13.1.
 */
export type StringHand =
  | {
      kind: 'steps';
      /** Semitones above the first finger where fingers usually fall. */
      usual: readonly number[];
    }
  | {
      kind: 'semitones';
      /** Semitones of each finger above the first, by finger from 1; null where a finger is not used alone. The first shape is closed. */
      shapes: readonly (readonly (number | null)[])[];
      /** Name of a position by semitones of the first finger above the open string, from 1. */
      positions: readonly number[];
      /** Semitones above the open string from which the thumb stops; null for none. */
      thumbFrom: number | null;
    };

const NECK = [0.5, 1, 2, 2, 3, 3, 4, 5, 5, 6, 7, 7];

/** A finger to a fret. */
const FRETS: StringHand = {
  kind: 'semitones',
  shapes: [
    [0, 1, 2, 3],
    [0, 2, 3, 4]
  ],
  positions: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
  thumbFrom: null
};

export const STRING_HANDS: Record<string, StringHand> = {
  violin: { kind: 'steps', usual: [0, 2, 3.5, 5] },
  viola: { kind: 'steps', usual: [0, 2, 3.5, 5] },
  // 1 to 4 a minor third, extended a major third.
  cello: {
    kind: 'semitones',
    shapes: [
      [0, 1, 2, 3],
      [0, 2, 3, 4]
    ],
    positions: NECK,
    thumbFrom: 12
  },
  // 1, 2 and 4 within a whole tone.
  'double-bass': {
    kind: 'semitones',
    shapes: [[0, 1, null, 2]],
    positions: [0.5, 1, 2, 2.5, 3, 3.5, 4, 5, 5.5, 6, 6.5, 7],
    thumbFrom: 12
  },
  'viola-da-gamba': FRETS,
  guitar: FRETS
};

/** Prices of the left hand's search (handbook 13.2); set by hand on its check values (13.3) [M], adjustable. */
export const STRING_PRICES = {
  /** A shift, and for each position or semitone that it goes. */
  shift: 1,
  shiftASemitone: 0.15,
  /** More under a slur; factors in a rest and across an open string. */
  shiftSlurred: 0.5,
  inRest: 0.3,
  acrossOpen: 0.6,
  /** Going up a shift leads to the first finger, going down to the last: for each finger off that. [C] */
  shiftFinger: 0.35,
  /** The same finger carries the shift: a slide. */
  slide: 0.2,
  /** To the next string, over one, over two. */
  crossing: [0, 0.25, 0.9, 1.3],
  crossingSlurred: 0.12,
  extension: 0.2,
  /** The hand opens or closes elsewhere than between the first finger and the others. */
  opening: 0.6,
  openingBesideFirst: 0.2,
  /** Fingers nearer together or farther apart than usual, a semitone. */
  stretch: 0.3,
  fourth: 0.22,
  fourthLong: 0.3,
  fourthTrilled: 0.8,
  oneFinger: 0.7,
  fifth: 0.3,
  sameFingerElsewhere: 0.5,
  /** For each position above the first; more on each string below the highest. */
  height: 0.06,
  heightOnLower: 0.12,
  openTrilled: 2,
  thumb: 0.4,
  chordStretch: 0.5,
  impossible: 20,
  /** Seconds from which a note is long: it is vibrated. */
  longSeconds: 0.8,
  /** Another way is shown where it costs at most so much more. */
  close: 0.8
} as const;

/**
 * What periods want of the left hand (13.2, [C]): what an open string on a long note costs, and a fourth finger where an open
 * string has the note; fewer crossings in a melody; low positions. Numbers [M].
 */
export const STRING_TASTE: Record<Period, { openLong: number; fourthForOpen: number; crossing: number; height: number }> = {
  baroque: { openLong: 0.1, fourthForOpen: 0.6, crossing: 0.8, height: 1.6 },
  classical: { openLong: 0.5, fourthForOpen: 0.3, crossing: 1, height: 1 },
  romantic: { openLong: 1.2, fourthForOpen: 0, crossing: 1.6, height: 0.7 },
  'french-1900': { openLong: 1, fourthForOpen: 0, crossing: 1.4, height: 0.8 },
  swing: { openLong: 0.5, fourthForOpen: 0.3, crossing: 1, height: 1 },
  'highland-pipes': { openLong: 0.5, fourthForOpen: 0.3, crossing: 1, height: 1 },
  modern: { openLong: 0.8, fourthForOpen: 0.15, crossing: 1.2, height: 1 }
};

/** Semitones of a step of the scale on the mean, by which a hand goes up; how far fingers lie otherwise without a stretch. [M] */
export const STEP_SEMITONES = 12 / 7;
export const EASE = 1.3;
/** Highest positions that are looked for: on the highest string, and on those below it. [M] */
export const HIGHEST = { first: 12, others: 7 } as const;
/** Positions in which a hand may wait while an open string sounds. [C] */
export const WAITING = [1, 3, 5] as const;
/** With the thumb on the string: what the position is called, and semitones of thumb and three fingers above the thumb. [C] */
export const THUMB_POSITION = { name: 8, above: [0, 2, 4, 5], strings: 2 } as const;
