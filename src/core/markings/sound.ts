import type { InflectionName } from '../style/inflections.ts';
import type { SignSound } from '../style/articulations.ts';
import type { Pitch } from '../score/pitch.ts';
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
  /** Notes sound on to the end of its stretch. */
  sustains?: true;
  /** Its stretch sounds so many octaves higher. */
  octave?: 1 | -1;
  /** Its note bears this ornament, as MusicXML names it, and not the printed one; "none" bears no ornament. */
  ornament?: string;
  /** The written pitch that is meant in place of the printed one. */
  meant?: Pitch;
  /** What the pitch of its note does. */
  inflects?: InflectionName;
  /** Words that may act on time, on loudness or on an ornament. */
  words?: string;
}
