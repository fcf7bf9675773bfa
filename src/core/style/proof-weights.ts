/** Numbers of the proof; set by hand where nothing else is said. */

/** The level that a hairpin leads to: the next mark within so many quarters after its end. */
export const GOAL_WITHIN = 4;

/** Notes of a bar that must all be accented for the accents to say nothing. */
export const ALL_ACCENTED = 4;

/** Bars before the end of its phrase from which a ritardando comes too early. */
export const EARLY_BARS = 3;

/** Seconds that are comfortably played on one breath; from memory, adjustable. Handbook 9.3. */
export const BREATH_SECONDS = 15;

/** Editorial marks in one bar of a part beyond which they crowd. */
export const CROWDED = 3;
