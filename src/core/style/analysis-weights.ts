/** Numbers of the analysis; set by hand where nothing else is said. */

/** More alteration differences than this share of the notes mean another mode or key, not misprints. */
export const MOST_SUSPECT_SHARE = 0.1;

/** Notes of a place that must belong together before one that does not is suspect. */
export const FEWEST_PAIRED_NOTES = 8;

/** Share of a place's notes that have no partner or another pitch; a looser likeness proves nothing about single notes. */
export const MOST_LOOSE = 0.08;

export const MOST_LOOSE_EXACT = 1;

export const MOST_LOOSE_NEAR = 0.34;

/** Notes of a place that agree in everything, among which one other alteration is a question by itself. */
export const ONLY_ONE_AMONG = 12;

/** Semitones of a leap that may lead to another voice; notes a voice may be away. Set by hand. */
export const VOICE_LEAP = 6;

export const VOICE_MEMORY_BEATS = 4;

/** Semitones from which a leap is told: more than an octave's half and beyond a sixth. */
export const WIDE_LEAP = 10;

/** A margin of this much per beat counts as near certainty. Set by hand. */
export const SURE_MARGIN = 0.9;
