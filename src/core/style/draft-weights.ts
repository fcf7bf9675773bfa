import type { Period } from './profiles.ts';

/** How much of what could be said a draft says: the teacher's choice. */
export const AMOUNTS = ['spare', 'usual', 'rich'] as const;
export type Amount = (typeof AMOUNTS)[number];

/** Numbers of the draft; set by hand on real scores against what editors write (a third of a mark a bar), no published source. */
export const DRAFT = {
  /** Printed marks a bar of the part that has the tune. */
  rate: { spare: 0.3, usual: 0.62, rich: 1 } satisfies Record<Amount, number>,
  /** Further marks a bar for each other part, and marks a bar of the whole score that are never passed. */
  otherParts: 0.04,
  most: 0.9,
  /** Factor by period: what its players were used to find on a page. */
  period: {
    baroque: 0.85,
    classical: 1,
    romantic: 1.1,
    'french-1900': 1.1,
    swing: 0.9,
    'highland-pipes': 0.4,
    modern: 0.9
  } satisfies Record<Period, number>,
  /** Factor where the page itself says much: at so many printed marks a bar half of the room is left. */
  saysMuch: 3,
  /** Marks that a piece of whatever length may have. */
  least: 2,
  /** Marks that begin in one bar of one part. */
  inABar: 2,
  /** Marks within a phrase, as a multiple of its even share. */
  inAPhrase: 2,
  /** Advice for the commentary, a bar. */
  advice: 0.12,
  /** Quarters and seconds that a hairpin lasts at least, and bars that it lasts at most. */
  hairpin: { quarters: 2, seconds: 1.2, bars: 4 },
  /** Quarters between a level and the next, between one hairpin and the next. */
  apart: { levels: 4, hairpins: 2 },
  /** Notes that a slur may hold, and bars. */
  slur: { bars: 2 },
  /** Share of the worth that is left where the same music stood before. */
  again: 0.3,
  /** Factor for each further time that a rule is heard in a piece. */
  decay: 0.88,
  /** Worth under which nothing is printed. */
  floor: { spare: 0.2, usual: 0.14, rich: 0.05 } satisfies Record<Amount, number>,
  /** Part of the notes from which on a part is said to have the tune. */
  hasTune: 0.5,
  /** Factor of a hairpin by its length: the least, what each quarter adds, the most. */
  way: { least: 0.7, quarter: 1 / 12, most: 1.3 },
  /** Refused cases that are tried in the place of what stood in their way. */
  tries: 12,
  /** Quarters of silence from which a part does not sound. */
  silence: 0.5,
  /** Softest and loudest levels in steps, from which nothing fades or grows. */
  levels: { softest: 1, loudest: 8 }
} as const;

/** Quarters a minute where a page gives no tempo. From memory. */
export const TEMPO_UNKNOWN = 84;

/**
 * How much it matters that a rule is heard: form and cadence first, the peak and its way, then harmony's colours, then detail.
 * A rule that is not named here gives advice or asks, and is never printed by a draft. Set by hand.
 */
export const IMPORTANCE: Record<string, number> = {
  'say-how-it-begins': 2,
  'say-how-a-section-begins': 1.3,
  'metronome-for-the-tempo-word': 1.2,
  'restore-the-tempo': 1.5,
  'say-where-the-hurry-stops': 1.3,
  'broaden-into-the-close': 0.9,
  'prepare-the-return': 1,
  'only-the-last-cadence-slows': 1,
  'proclaim-the-return': 1.1,
  'steal-into-the-return': 1.1,
  'breathe-at-phrase-end': 0.9,
  'part-the-phrases': 0.75,
  'part-the-sections': 0.9,
  'echo-the-repetition': 0.9,
  'answer-the-question': 0.8,
  'third-time-different': 0.8,
  'rise-grows': 1,
  'grow-into-the-dominant': 0.9,
  'taper-the-ending': 0.9,
  'lead-the-chromatic-line': 0.85,
  'die-away-to-nothing': 1,
  'repeated-notes-go-somewhere': 0.4,
  'fall-fades': 0.6,
  'give-the-hairpin-a-goal': 0.7,
  'bring-out-the-colour': 1,
  'slur-the-appoggiatura': 0.75,
  'lean-on-the-hemiola': 0.8,
  'one-line-to-the-goal': 0.5,
  'weight-where-harmony-changes': 0.4,
  'weight-on-two': 0.4,
  'stress-the-syncopation': 0.4,
  'light-upbeat': 0.35,
  'prepare-the-detached-notes': 0.4,
  'separate-the-leaps': 0.3,
  'swing-the-articulation': 0.5,
  'anchor-notes-of-the-sequence': 0.25,
  'downbow-on-the-downbeat': 0.3,
  'length-of-unmarked-notes': 0.7,
  'accompaniment-below': 0.8,
  'bring-out-the-lower-line': 1,
  'where-the-trill-begins': 0.7,
  'swing-the-eighths': 1.5,
  'unequal-notes': 0.9,
  'sharpen-the-dots': 0.7,
  'back-to-the-letter': 0.7,
  'hold-the-last-note-of-the-phrase': 0.8,
  'hold-the-strong-note': 0.7,
  'quarters-short': 0.8,
  'detached-throughout': 0.9,
  'kick-the-anticipation': 0.6,
  'the-fill-leads-on': 0.8,
  'metronome-for-the-dance': 0.9
};

/** Rules that speak once a piece on a page; what they say elsewhere stands open. */
export const ONCE: readonly string[] = [
  'length-of-unmarked-notes',
  'accompaniment-below',
  'where-the-trill-begins',
  'downbow-on-the-downbeat',
  'swing-the-eighths',
  'unequal-notes',
  'sharpen-the-dots',
  'quarters-short'
];

/** Rules that speak to a part that accompanies, too: how it begins, and how far it stays below. */
export const FOR_EVERY_PART: readonly string[] = [
  'say-how-it-begins',
  'say-how-a-section-begins',
  'give-the-hairpin-a-goal',
  'accompaniment-below',
  'bring-out-the-lower-line',
  'the-fill-leads-on'
];

/** The rule that tells what comes again; a draft takes it where the first time was marked and the second was not. */
export const AS_BEFORE = 'as-the-first-time';

/** Rules that speak of a return or a joint itself: music that comes again takes nothing from them. */
export const OF_RETURNS: readonly string[] = [
  'proclaim-the-return',
  'steal-into-the-return',
  'prepare-the-return',
  'echo-the-repetition',
  'third-time-different',
  'say-how-a-section-begins',
  'restore-the-tempo',
  'breathe-at-phrase-end',
  'part-the-phrases',
  'part-the-sections'
];
