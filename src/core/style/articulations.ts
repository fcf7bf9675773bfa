import type { Decibels } from '../units.ts';
import { LOUDNESS, MARKED_LEANING } from './performance-weights.ts';

/** How a sign on a note sounds, whether it is printed or editorial. */
export interface SignSound {
  /** How far the note stands over its neighbours. */
  accent?: Decibels;
  /** Share of a leaning note's lengthening that it gets. */
  leans?: number;
  /** The sign that the length of the note follows; see SHARES. */
  length?: 'staccato' | 'staccatissimo' | 'detached-legato' | 'tenuto';
  /** A pause opens where the note ends. */
  pause?: 'breath' | 'comma' | 'caesura';
}

/** By the name that MusicXML gives the sign. Handbook 6.1 for lengths; accents and leaning set by hand. */
export const SIGN_SOUNDS: Record<string, SignSound> = {
  staccato: { length: 'staccato' },
  spiccato: { length: 'staccatissimo' },
  staccatissimo: { length: 'staccatissimo' },
  'detached-legato': { length: 'detached-legato' },
  tenuto: { length: 'tenuto', accent: LOUDNESS.tenuto, leans: MARKED_LEANING },
  accent: { accent: LOUDNESS.accent, leans: MARKED_LEANING },
  'soft-accent': { accent: LOUDNESS.tenuto, leans: MARKED_LEANING },
  stress: { accent: LOUDNESS.tenuto, leans: MARKED_LEANING },
  'strong-accent': { accent: LOUDNESS.strongAccent, leans: MARKED_LEANING },
  'breath-mark': { pause: 'breath' },
  caesura: { pause: 'caesura' }
};

/** The same signs as MEI names them in `artic`. MEI 5, data.ARTICULATION. */
export const MEI_ARTICULATIONS = {
  staccato: 'stacc',
  tenuto: 'ten',
  staccatissimo: 'spicc',
  'detached-legato': 'stacc ten',
  accent: 'acc',
  'strong-accent': 'marc'
} as const;
