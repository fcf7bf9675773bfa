import { frac } from '../score/fraction.ts';

/** Share of its note that a long appoggiatura takes. Quantz 1752, VIII; C. P. E. Bach 1753, II.2; L. Mozart 1756, IX. */
export const APPOGGIATURA_SHARE = { plain: frac(1, 2), dotted: frac(2, 3) };

/** Alternations of a trill in a second, from memory, adjustable. Handbook 6.3. */
export const TRILL_RATE = { least: 5, most: 8 };

/** Neighbours of a trill that has time for one flick only; the last note holds. Handbook 8.2. */
export const FLICK_NOTES = { upper: [1, 0], main: [0, 1, 0] };

/** Seconds of a note up to which a turn fills it with four equal notes. C. P. E. Bach 1753, II.4, from memory; the number by hand. */
export const EVEN_TURN = 0.75;
