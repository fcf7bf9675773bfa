/**
 * Weights of the scale degrees for key finding, from the tonic upward in semitones.
 * Source: Temperley, The Cognition of Basic Musical Structures, 2001.
 */
export const TEMPERLEY = {
  major: [5, 2, 3.5, 2, 4.5, 4, 2, 4.5, 2, 3.5, 1.5, 4],
  minor: [5, 2, 3.5, 4.5, 2, 4, 2, 4.5, 3.5, 2, 1.5, 4]
} as const;

/** Source: Krumhansl & Kessler, Psychological Review 89, 1982. */
export const KRUMHANSL_KESSLER = {
  major: [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88],
  minor: [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17]
} as const;
