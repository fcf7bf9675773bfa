import type { SignSound } from '../style/articulations.ts';
import type { Tempo } from '../units.ts';

/** How a marking sounds; what is absent it leaves alone. */
export interface MarkingSound extends SignSound {
  /** A dynamic sign: a level that stays in force, or a note that is forced. */
  sign?: string;
  /** Grows (1) or fades (−1) over its stretch. */
  swell?: 1 | -1;
  /** Its notes are bound. */
  binds?: true;
  /** Its note is held. */
  holds?: true;
  /** The tempo from here on. */
  tempo?: Tempo;
  /** Words that may act on time, on loudness or on an ornament. */
  words?: string;
}
