import type { EffectKey } from './effects.ts';
import type { Period } from './profiles.ts';

/**
 * How much a performance gives, by profile: usual amounts, to be set otherwise by the teacher. Shapes follow the
 * sources named at each; the sizes were set by hand, by printing the curves of the demo pieces and looking at them.
 */
export interface TimeWeights {
  /** Range between the slowest and fastest moment of a phrase, as a share of the tempo. Todd 1992. */
  arch: number;
  /** The same over a section. */
  sectionArch: number;
  /** Lengthening of a phrase's last beat. */
  phraseEnd: number;
  /** Lengthening of what leads into a firm cadence. */
  cadence: number;
  /** Lengthening of a leaning note. */
  leaning: number;
}

export const TIME_WEIGHTS: Record<Period, TimeWeights> = {
  baroque: { arch: 0.012, sectionArch: 0, phraseEnd: 0.06, cadence: 0.05, leaning: 0.03 },
  classical: { arch: 0.02, sectionArch: 0.005, phraseEnd: 0.06, cadence: 0.05, leaning: 0.04 },
  romantic: { arch: 0.06, sectionArch: 0.02, phraseEnd: 0.1, cadence: 0.07, leaning: 0.07 },
  'french-1900': { arch: 0.04, sectionArch: 0.015, phraseEnd: 0.08, cadence: 0.06, leaning: 0.05 },
  swing: { arch: 0, sectionArch: 0, phraseEnd: 0, cadence: 0, leaning: 0.02 },
  'highland-pipes': { arch: 0, sectionArch: 0, phraseEnd: 0.04, cadence: 0.02, leaning: 0 },
  modern: { arch: 0.01, sectionArch: 0, phraseEnd: 0.04, cadence: 0.03, leaning: 0.02 }
};

/** Where in a phrase it goes fastest, as a share of its length. */
export const ARCH_PEAK = 0.6;

/** Last tempo over first tempo of a gradual change, by its word, and the exponent of the curve. Handbook 7.2; the ratios by hand. */
export const GRADUAL = {
  q: 2,
  slow: { little: 0.85, plain: 0.72, much: 0.55 },
  fast: { little: 1.1, plain: 1.2, much: 1.4 },
  /** Words that slow at once. */
  atOnce: 0.85,
  /** New tempo over old of "più mosso"; its inverse is "meno mosso". */
  other: { little: 1.08, plain: 1.15, much: 1.3 },
  /** Without a word that ends it, a change goes on to the end of its phrase, at most so many bars. */
  mostBars: 8
};

/** Seconds that a breath, a comma and a break add, and the share that the note before gives up. Set by hand. */
export const PAUSES = {
  breath: { seconds: 0.16, cut: 0.25 },
  comma: { seconds: 0.07, cut: 0.2 },
  caesura: { seconds: 0.6, cut: 0.1 },
  wait: { seconds: 0.2, cut: 0 },
  /** No pause takes more of a beat than this. */
  mostOfBeat: 0.5,
  /** No note gives up more than this, in seconds. */
  mostCut: 0.25
};

/** Lengthening under a fermata, as a share of what is written. Common practice: about as long again. */
export const FERMATA = { short: 0.4, plain: 0.9, long: 1.5, barLine: 0.5 };

/** Lengthening at the ends of a free bar against its middle. Set by hand. */
export const CADENZA = 0.3;

/** Lengthening at the end of a free bar whose values grow, against its beginning: it slows from first to last. Set by hand. */
export const CADENZA_SLOWING = 0.4;

/** Where the short note of a dotted pair begins when dots are sharpened: from 3/4 toward a double dot. Quantz 1752; amount by hand. */
export const SHARPENED = 0.835;

/** Furthest that a swung or unequal pair, and a sharpened dot, may be bent, as a share of beat and pair, whatever the amount. Set by hand. */
export const MOST_BENT = { pair: 0.8, dot: 0.92 };

/** Long over short of unequal notes. Handbook 4. */
export const INEGALES: Record<string, number> = { mild: 1.5, full: 2 };

/** Share of the written value that sounds. Handbook 6.1; sources there. */
export const SHARES = {
  touch: {
    half: { keyboard: 0.5, other: 0.75, from: 'C. P. E. Bach 1753, III §22; on other instruments by hand' },
    detached: { keyboard: 0.75, other: 0.85, from: 'Türk 1789, VI, from memory' },
    full: { keyboard: 1, other: 1, from: 'Clementi 1801, from memory' }
  } as Record<string, { keyboard: number; other: number; from: string }>,
  /** Plain notes longer than this many quarters keep nearly all of their value. */
  longQuarters: 1,
  long: 0.93,
  staccato: { separated: 0.7, half: 0.5, 'dense-short': 0.4 } as Record<string, number>,
  staccatissimo: 0.25,
  slurredStaccato: 0.75,
  liftedSecond: 0.65,
  /** A hat accent in swing. [M] */
  hat: 0.55,
  slurEnd: 0.92,
  beforeDetached: 0.85,
  /** The same for notes shorter than a quarter. */
  shortBeforeDetached: 0.9
};

/** Loudness of single notes in decibels. Set by hand; what they follow is named at each effect. */
export const LOUDNESS = {
  /** By metrical level: bar line, strong beat, beat, half beat, finer. */
  meter: [1.2, 0.6, 0, -0.5, -0.8],
  /** The third beat of a triple bar is the lightest. Handbook 1.3. */
  thirdBeat: -0.5,
  /** A weak beat of a triple bar on which the harmony changes carries weight. Handbook 1.3. */
  newHarmony: 0.9,
  /** Per semitone above the middle of the phrase, and the most that it makes. */
  perSemitone: 0.09,
  mostLine: 1.2,
  dissonance: 1.2,
  resolution: -0.8,
  connecting: -0.6,
  /** A line that is marked espressivo, cantabile or solo, over others at its level. Handbook 5.7; the size by hand. */
  expressive: 2,
  accent: 4,
  strongAccent: 6,
  tenuto: 0.8,
  /** A sforzando stands so many steps over what is in force. Handbook 5.6. */
  sforzandoSteps: 1.2,
  /** Share of an accent that has gone at the end of its note. */
  decay: 0.8,
  second: -1.2,
  echo: -6,
  varied: -3,
  softest: -25,
  loudest: 20
};

/** How far meter, line and harmony shape single notes, by profile; decibels of notes half a beat off, where they speak. Set by hand after handbook 4 and 5.5. */
export const EMPHASIS: Record<Period, { meter: number; line: number; harmony: number; offBeat?: number }> = {
  baroque: { meter: 1, line: 0.5, harmony: 1 },
  classical: { meter: 0.8, line: 0.7, harmony: 1 },
  romantic: { meter: 0.4, line: 1, harmony: 0.7 },
  'french-1900': { meter: 0.5, line: 0.9, harmony: 0.7 },
  swing: { meter: 0.3, line: 0.6, harmony: 0.3, offBeat: 0.9 },
  'highland-pipes': { meter: 0, line: 0, harmony: 0 },
  modern: { meter: 0.5, line: 0.3, harmony: 0.3 }
};

/** No moment gets shorter than this share of its length at the reading's tempo, whatever the effects add up to. Set by hand. */
export const SHORTEST_CELL = 0.35;

/** Share of a leaning note's lengthening that accents and dashes get. Set by hand. */
export const MARKED_LEANING = 0.7;

/** Ornament notes quicker than so many seconds run into each other: ten alternations a second. From memory; handbook 6.3. */
export const QUICKEST_ORNAMENT = 0.05;

/** How taps are read: weights of a beat with its neighbours; shortest and longest beat, against the usual one, that is no slip. Set by hand. */
export const TAPS = { smoothing: [0.25, 0.5, 0.25], least: 0.4, most: 3 };

/** How far a bar may be pulled by hand: planned over unpulled length. Set by hand. */
export const PULL = { least: 0.4, most: 3 };

/** Seconds of a short small note, and by how much a broken chord spreads, by instrument. Set by hand. */
export const SMALL_NOTES = { seconds: 0.07, mostOfNote: 0.4 };
export const SPREAD = { keys: 0.035, strings: 0.05 };
/** The upper pair of a chord broken two and two follows after so many of these steps. Set by hand. */
export const PAIR_SPREAD = 1.6;

/** A displacement is noticed from this share of the beat on, or from these milliseconds in beats under a quarter of a second. Handbook 1.9. */
export const NOTICED = { share: 0.025, seconds: 0.006, shortBeat: 0.24 };

/** How far an entry may stand from its place within a group inside a beat, as a share of the group, by the school of rubato. Set by hand. */
export const BENT: Record<string, number> = { 'beat-strict': 0.01, stolen: 0.05, arch: 0.05 };

/** Effects that are written acts: no school asks that their time be given back. */
export const WRITTEN_ACTS: readonly EffectKey[] = ['gradual', 'fermata', 'tempo', 'cadenza'];
