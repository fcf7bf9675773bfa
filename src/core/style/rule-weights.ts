/** Numbers of the rules; set by hand where nothing else is said. */

/** Sounding share of a detached note by school. Handbook 6.1. */
export const DETACHED_SHARES: Record<string, number> = { half: 0.5, separated: 0.75, 'dense-short': 0.4 };

/** Ratios of new to old tempo in which a beat is kept; common practice. */
export const TEMPO_RELATIONS: readonly [number, number][] = [
  [2, 1],
  [1, 2],
  [3, 2],
  [2, 3],
  [4, 3],
  [3, 4]
];

/** Notes of a group in a free cadenza, at least and at most. Handbook 7.7; the numbers from memory. */
export const CADENZA_GROUPS = { least: 3, most: 9 };

/** Steps by which an echo is softer, and the level under which none goes: soft against loud (Quantz 1752, XVII.vii, from memory), the steps by hand. */
export const ECHO_STEPS = 2;
export const SOFTEST_ECHO = 2;

/** Quarters between the arrival of a cadence and the end of its phrase within which the phrase tapers. */
export const MOST_TAPERED = 4;

/** Notes of one pitch in a row that make a repetition. */
export const REPETITION = 4;

/** Confidence from which a chord of colour is pointed at; set by hand on what was false. */
export const SURE_COLOUR = 0.7;

/** Quarters from which a printed hairpin leads somewhere: a swell over a note or two has no goal of its own. */
export const LEADING_HAIRPIN = 1.5;

/** Level in steps under which no section is begun without being asked: p. */
export const SOFTEST_SECTION = 3;

/** Share of a phrase after which what sinks may fade. */
export const FADES_FROM = 1 / 3;

/** Length of a last note over the usual one of its phrase that is heard as rest without a cadence, and its quarters at least. Common practice. */
export const AT_REST = { ofUsual: 1.5, quarters: 1 };

/** An accompaniment: share of its moves in steps at most, onsets in a bar at least, share of a section's bars at least. Common practice. */
export const ACCOMPANIMENT = { steps: 0.35, onsets: 4, bars: 0.5 };

/** Share of the bars that have dotted figures where they make the character, and quarters of the long note at most. */
export const DOTTED = { bars: 0.25, longest: 1.5 };

/** Quarters of silence in a line that break it: half a beat. */
export const BREAK = 0.5;

/** Semitones of a way up or down that grows or fades: a minor sixth. */
export const WAY_UP = 8;

/** Semitones of a leap across which detached notes are kept apart: a minor seventh. */
export const LEAP_APART = 10;

/** A fill: strokes over those of the bars around it, and strokes at least. Set by hand. */
export const FILL = { times: 1.4, least: 6 };

/** Notes with a sign, and without, of one figure that goes on. Common practice. */
export const SIMILE = 4;

/** Bars from which on what comes again is told. Set by hand. */
export const RETURN_BARS = 2;

/** Likeness of the first bar of two places, 0 to 1, from which they are told as the same music. Set by hand. */
export const SAME_BEGINNING = 0.5;
