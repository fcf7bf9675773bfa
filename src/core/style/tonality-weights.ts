/** Numbers by which a piece is told to be in a mode, a blues, pentatonic or without a key; set by hand on tests/unit/analysis/worlds.ts. */
export const TONALITY = {
  /** Share of its kind (thirds, sixths, sevenths …) that a degree must have to be the mode's own. */
  own: 0.88,
  /** Share of all time that must lie in the mode's scale. */
  scale: 0.95,
  ownSeventh: 0.96,
  /** Share of all time that the degree that tells the mode must have. */
  heard: 0.015,
  heardInMinor: 0.008,
  /** Fewest notes of a line by which a scale with a gap is believed. */
  gappedNotes: 16,
  /** Fewest bars of a piece in a mode, and of those in which the degree that tells it sounds. */
  modeBars: 6,
  tellingBars: 2,
  /** The final must be this much more of a centre than the tonic of the major key with the same notes. */
  centre: 1.05,
  /** Weights of a centre: share of the time, of the points of rest, the first strong beat. */
  time: 1,
  rest: 1.2,
  first: 0.4,
  /** Share of all time that notes outside a five-note scale may have. */
  foreign: 0.01,
  /** Blues: share of the time that its dominant sevenths must have together, and each of tonic and subdominant. */
  sevenths: 0.5,
  each: 0.12,
  /** Shares of the flat seventh and third degrees in all time that make a blues worth trying. */
  flatSeventh: 0.035,
  flatThird: 0.01,
  /** How much less a blues may explain per beat than major and minor with all their keys. */
  slack: 0.3,
  /** … and how much it must explain per beat: struck at random, sevenths explain nothing. */
  worth: 0.4,
  /** Fewest bars of a blues. */
  bars: 8
} as const;

/**
 * How far a stretch is from all keys, as a logistic regression over windows of half beats; fitted on all of WITHOUT in
 * tests/unit/analysis/worlds.ts against tonal scores. What it reaches on pieces made afterwards stands in the tests (FRESH). Positive: no key.
 */
export const NO_KEY = {
  windowSlots: 48,
  hopSlots: 16,
  constant: 12.65,
  /** Greatest share of the time within one major or harmonic minor scale. */
  scale: -8.75,
  /** Best correlation with a key profile (Krumhansl & Schmuckler's method with Temperley's profiles). */
  profile: -13.3,
  /** Share of notes that are neither in the chord read nor left by step. */
  rough: 5.16,
  /** Share of chords that are no plain ones. */
  colour: 4.56,
  /** Cost of entry up to which a chord is plain. */
  plainCost: 0.45,
  /** By how much more a whole-tone or octatonic scale holds than a key's scale does. */
  symmetric: 4.78,
  symmetricFrom: 0.05,
  /** Entropy of the twelve notes beyond so many bits. */
  entropy: 4.28,
  entropyFrom: 2.8,
  /** Cost of going from tonal to not and back, and what speaks for a key before a note sounds. */
  change: 7,
  tonal: 0.4,
  /** Bars up to which a key at the edge of such music is part of it. */
  edgeBars: 3,
  /** A piece as a whole is without a key where one of the symmetric scales holds so much of it and no key's scale so much. */
  wholeSymmetric: 0.96,
  wholeScale: 0.88,
  /** … or where so many notes belong to no chord and are not left by step. */
  wholeRough: 0.32
} as const;

/** What is said of music without a key; set by hand. */
export const CONTENT = {
  /** Share of the time from which a note is used, and that a symmetric scale must hold. */
  used: 0.01,
  symmetric: 0.96,
  /** No note has more than this share where all twelve are about equal. */
  equal: 0.15,
  /** Notes that a whole-tone scale has, an octatonic one at least, and all twelve but one. */
  wholeTones: 6,
  octatonic: 6,
  twelve: 11,
  /** Weight of standing on bar lines, of being the first note and the last; how much above the mean a centre stands; most that are told. */
  strong: 0.4,
  first: 0.05,
  last: 0.1,
  centre: 1.4,
  most: 3
} as const;
