import { frac } from '../score/fraction.ts';

/** Share of its note that a long appoggiatura takes. Quantz 1752, VIII; C. P. E. Bach 1753, II.2; L. Mozart 1756, IX. */
export const APPOGGIATURA_SHARE = { plain: frac(1, 2), dotted: frac(2, 3) };

/** Alternations of a trill in a second, from memory, adjustable. Handbook 6.3. */
export const TRILL_RATE = { least: 5, most: 8 };
