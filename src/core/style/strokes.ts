import type { Period } from './profiles.ts';

/** Chords under the bow: one that lasts no longer than this is heard whole. Seconds [M]. */
export const BOWED_CHORDS = { shortSeconds: 0.35 } as const;

/** Strokes of the bow, in plain words and in the field's own, each with a sentence. Handbook 12.6. */
export const STROKES = {
  'on-the-string': { name: 'on the string (détaché)', says: 'one bow to a note, the hair stays where it is' },
  lifted: { name: 'lifted', says: 'the bow leaves the string after each note and comes back to it' },
  stopped: { name: 'stopped (martelé)', says: 'the bow bites, moves at once and stops on the string' },
  thrown: { name: 'thrown (spiccato)', says: 'the bow falls from the air near its middle and leaves again by itself' },
  bouncing: { name: 'bouncing (sautillé)', says: 'too quick to throw: the hair stays and the stick bounces of itself' },
  portato: { name: 'in one bow, parted (portato)', says: 'the bow moves on and presses anew on each note' },
  'slurred-staccato': { name: 'many in one bow, each stopped (slurred staccato)', says: 'small stops inside one stroke' },
  tremolo: { name: 'tremolo', says: 'near the point, from the wrist, as quick as it goes' },
  'downs-again': { name: 'downs, each set anew', says: 'every note from the frog; the bow comes back through the air' }
} as const;
export type StrokeKey = keyof typeof STROKES;

/** From where on notes are too quick to be stopped, and too quick to be thrown; notes a second [M]. */
export const STROKE_SPEEDS = { stopped: 3, thrown: 8 } as const;
/** So many notes in one stroke after the other make a kind of stroke. */
export const STROKE_RUN = 4;
/** Times whose dots are lifted rather than thrown: the bow of their time. [C] */
export const LIFTED_IN: readonly Period[] = ['baroque', 'classical'];
