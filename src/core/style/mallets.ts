/** Instruments that are struck with mallets on bars. */
export const MALLETED: readonly string[] = ['marimba', 'xylophone', 'vibraphone', 'glockenspiel'];

/** Sticking of mallets. Handbook 18.1 [M]. */
export const MALLETS = {
  /** The same hand twice: by itself, and as it is quick: over the seconds between. */
  again: 0.25,
  againQuick: 0.08,
  /** A hand reaches over the other; for each semitone. */
  crossing: 0.5,
  crossingASemitone: 0.04,
  /** The line begins with the hand that it does not go to. */
  lead: 0.2,
  strongLeft: 0.1,
  /** A jump of one hand, a semitone, over the seconds that it has. */
  jump: 0.004,
  /** Two hands on one bar, nearer than so many seconds, need places of their own on it. */
  crowdedSeconds: 0.2,
  /** Semitones by which the middle of a phrase lies elsewhere than that of the one before, so that the body moves first. */
  standsAnew: 10,
  close: 0.4
} as const;
