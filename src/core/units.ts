/** Seconds of real time. */
export type Seconds = number;
/** Written time in quarter notes, where an exact fraction is no longer needed. */
export type Quarters = number;
/** Loudness relative to mezzo forte. */
export type Decibels = number;
/** Steps of the dynamic scale: pppp is 0, mf is 5, ffff is 9. */
export type Steps = number;
/** Quarters a minute. */
export type Tempo = number;
/** Time in the analysis: whole divisions of the quarter, as many to it as the score needs. */
export type Ticks = number;
