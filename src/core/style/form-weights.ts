/**
 * Weights for phrase ends and cadences. The three of local change are published: Cambouropoulos,
 * "The Local Boundary Detection Model", ICMC 2001. The others are set by hand on scores with agreed
 * phrases; they say how strongly each sign speaks.
 */
export const BOUNDARY = {
  local: { pitch: 0.25, interval: 0.5, rest: 0.25 },
  localChange: 1.6,
  /** A rest of a beat or more; shorter ones in proportion. */
  rest: 1.1,
  /** The last note is at least this many times as long as usual in the line. */
  longNote: 0.6,
  longNoteRatio: 2,
  cadence: 1.7,
  slurEnd: 0.3,
  insideSlur: -0.9,
  fermataOrBreath: 2.6,
  barline: 3,
  /** The new phrase begins at the place in the bar where the first one began. */
  samePlaceInBar: 0.45,
  onBar: 0.15,
  /** What follows has the rhythm that the piece, or the phrase before, began with. */
  repetition: 0.7,
  /** Between the units of a sequence. */
  insideSequence: -0.8,
  /** A passage of four bars and more begins here that comes twice. */
  returns: 0.9,
  /** Weaker signs are not tried at all. */
  worthTrying: 0.5,
  /** Each boundary must earn this; the length of a phrase is measured against four bars, in octaves squared. */
  price: 1.5,
  length: 0.9,
  /** Loss of a phrase of up to so many bars that neither a cadence, a rest nor a fermata closes. */
  openShort: -0.9,
  openShortBars: 2.4,
  usualBars: 4,
  wholeBars: 0.35,
  /** The usual lengths of groups, in bars (common practice), and what one of them earns. */
  evenLengths: [2, 4, 8],
  evenBars: 0.35,
  /** A phrase as long as the one before it: Lerdahl & Jackendoff 1983, grouping preference rule 5 (symmetry), from memory. */
  alike: 0.4,
  shortestBars: 0.9,
  longestBars: 12
} as const;

export const CADENCE = {
  /** By metrical level: inside a beat, beat, strong beat, bar line. */
  arrival: [-0.8, 0, 0.45, 0.7],
  dominantRoot: 0.35,
  dominantInverted: -0.7,
  leadingChord: -0.8,
  applied: -0.5,
  /** … whose goal nothing else makes a key. */
  unprepared: -0.6,
  goalRoot: 0.3,
  goalInverted: -1,
  sopranoTonic: 0.3,
  prepared: 0.35,
  /** The line stops: note longer than usual, rest, end of the section. */
  stop: 0.9,
  sectionEnd: 1.4,
  /** A phrase ends here. */
  phraseEnd: 0.8,
  halfBase: -0.6,
  /** The dominant of a half close has its seventh. */
  halfOnSeventh: -0.2,
  /** Taken off what a half close needs where the next phrase begins like one before it. */
  answered: 0.7,
  deceptiveBase: -0.35,
  evadedBase: 0.1,
  plagalBase: -0.9,
  threshold: 0.95,
  /** Score that a close inside a phrase needs. */
  inside: 2.6,
  insideEvaded: 0.7,
  /** Confidence below which a cadence is not told. */
  said: 0.3
} as const;
