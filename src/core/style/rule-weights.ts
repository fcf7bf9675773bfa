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

/** Groups into which a free cadenza of so many notes falls: odd ones, growing toward the middle. Handbook 7.7. */
export const CADENZA_GROUPS = [3, 5, 9, 5, 3];

/** Steps by which an echo is softer, and the level under which none goes. Quantz 1752, XVII.vii: soft against loud. */
export const ECHO_STEPS = 2;
export const SOFTEST_ECHO = 2;

/** Quarters between the arrival of a cadence and the end of its phrase within which the phrase tapers. */
export const MOST_TAPERED = 4;

/** Notes of one pitch in a row that make a repetition. */
export const REPETITION = 4;

/** Proposals from this strength on go into a draft; weaker ones stay open. Set by hand. */
export const DRAFT_STRENGTH = 0.4;
