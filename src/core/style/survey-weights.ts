/** Numbers of the survey; set by hand where nothing else is said. */

/** Tempo that is assumed for endurance where none is given, in quarters a minute. From memory. */
export const ASSUMED_TEMPO = 90;

/** Dynamic step from which playing is loud (f). */
export const LOUD_STEP = 6;

/** Below so many beats a minute a beat is too long to be counted whole. From memory, adjustable. */
export const SLOW_BEAT = 50;

/** Notes between an accidental and the note that it is carried to, from which it is likely to be forgotten. From memory. */
export const FORGOTTEN_AFTER = 3;
