import type { Period } from './profiles.ts';

/** Pedal and touch of keyboards. Handbook 14.4. */

/** Times in which the dampers are lifted for colour; before, the hand holds what sounds. [C] */
export const PEDALLED_IN: readonly Period[] = ['romantic', 'french-1900', 'modern'];

export const PEDAL = {
  /** Quarters that a harmony lasts at least to be held. [M] */
  leastQuarters: 1,
  /** So many steps of a melody one after the other blur in one pedal. [M] */
  mostSteps: 2
} as const;
