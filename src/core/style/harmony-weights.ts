/**
 * Numbers of the joint search for keys and chords. Set by hand on scores with agreed analyses; they have
 * no published source, except that chord tones are weighed by membership as in Pardo & Birmingham,
 * Computer Music Journal 26(2), 2002, and keys by the profiles of key-profiles.ts.
 * Rewards and costs are in the same arbitrary unit: one note of one beat that is the chord's root.
 */
export const HARMONY = {
  /** Reward of a sounding note by its place in the chord: root, third, fifth, seventh. */
  tone: [1, 0.95, 0.75, 0.7],
  /** A note that is no chord tone. */
  foreign: -1.1,
  /** Factor for a chord tone in other spelling (G sharp for A flat). */
  otherSpelling: 0.55,
  /** The bass is the chord's root, third, fifth, seventh. */
  bass: [0.3, 0.1, -0.05, -0.05],
  bassForeign: -0.25,
  /** Per beat: a chord with notes outside the key's scale in a bar in which none of those notes sounds. */
  noChromaticNote: -0.8,
  /** Per beat: a seventh chord in a bar in which its seventh does not sound. */
  noSeventh: -0.3,
  /** Semitones above a held bass note within which another note counts as the bass moving on. */
  bassRegion: 2,
  /** An augmented sixth chord in whose slot the augmented sixth itself does not sound. */
  noAugmentedSixth: -0.6,
  /** Reward per beat for a chord whose root sounds in the slot, and loss where its third does not. */
  rootSounds: 0.08,
  rootSoundsInLine: 0.14,
  /**
   * Per beat, under a chord symbol of the file: the chord that it states, its triad or seventh, its root alone, any other; and
   * the loss for another spelling. Cost of changing chord within a symbol, and the share of the cost that stays at its
   * beginning; how much of the tune's weight for the key is left.
   */
  symbol: { same: 2.4, family: 2, root: 0.2, other: -2.2, otherSpelling: -0.3, inside: 3, start: 0.3, profile: 0.2 },
  /** Cost of changing chord at a bar line, a strong beat, another beat, inside a beat. */
  change: { bar: 0.55, strong: 0.85, beat: 1.05, weak: 2.1 },
  /** Reward for dominant to tonic where a section ends, so that the dominant may be quick. */
  closing: 0.9,
  /** Factor on the cost of change in a single line, where one chord is heard over many notes. */
  changeInLine: 0.9,
  /** Further cost, in a single line, of a seventh chord that is no dominant, and per beat of staying in it. */
  seventhInLine: 0.7,
  seventhInLinePerBeat: 0.12,
  /** Reward for the tonic chord on the first downbeat and at the end. */
  tonicFirst: 1.2,
  tonicLast: 1,
  /** Reward per beat for standing on the tonic chord: a key is where the music is at home. */
  tonicPerBeat: 0.12,
  /** Weight of a note by its melodic role: stepwise and weak, stepwise on a beat, left by leap both ways. */
  role: { passingWeak: 0.35, passingStrong: 0.75, plain: 1, leaping: 1.1, grace: 0.05 },
  /** The same in a single line; a prepared note that falls by step after the beat is the chord's before it. */
  roleInLine: { passingWeak: 0.45, passingStrong: 0.35, plain: 1, leaping: 1, prepared: 0.2, leaning: 1, grace: 0.05 },
  /** In a single line: a note by its place in the chord, one that is foreign to it. */
  toneInLine: [1, 1, 1, 0.5],
  foreignInLine: -1.4,
  /** In a single line, a low note left by a leap of so many semitones is the bass until the bar ends; what it counts. */
  lowLeap: 7,
  lowInLine: 1,
  /** Weight of the key profile, per note and beat. */
  profile: 0.65,
  /** Added to the published profile's weight of the natural seventh degree in minor. */
  naturalSeventh: 1.5,
  /** Cost of a key change, and of each step around the circle of fifths that it goes. */
  keyChange: 2.2,
  keyDistance: 0.34,
  /** Factor on both in a single line, which has fewer notes to speak for a key. */
  keyChangeInLine: 1,
  /** Bars that come again from which one reading holds for all, though they were heard in several keys. */
  sameBars: 3,
  /** Reward for beginning and for ending in a key of the signature; for ending where the piece began. */
  signature: 1.2,
  homeEnd: 2
} as const;

/** Grammar of functions: reward (negative: cost) of going from one chord to the next within a key. */
export const PROGRESSION = {
  /** Dominant to tonic; predominant to dominant; tonic to anything. */
  resolve: 0.45,
  prepare: 0.2,
  deceptive: 0.1,
  /** Dominant to predominant. */
  retrograde: -0.35,
  /** Applied dominant to its goal, and elsewhere. */
  applied: 0.6,
  appliedElsewhere: -0.4,
  /** Neapolitan or augmented sixth to dominant, and elsewhere. */
  colour: 0.6,
  colourElsewhere: -0.5,
  /** Root falls a fifth. */
  fallingFifth: 0.15
} as const;

/** How key areas are settled after the search; set by hand. */
export const SETTLE = {
  /** Highest cost of entry of a chord that counts as a plain chord of a key. */
  plain: 0.5,
  /** Chords of a key without its dominant that may be taken for a passage between two others. */
  passing: 3,
  /** Bars up to which a key between two stretches of another is none, and one that is only dominant and tonic to and fro. */
  shortest: 1.25,
  toAndFro: 2.1,
  /** Fewest chords of a phrase that may make a key of its own, and chords of the close that leads into it. */
  phrase: 4,
  close: 3,
  /** Chords at the beginning of a phrase that may be read in the key that follows. */
  reach: 3
} as const;
