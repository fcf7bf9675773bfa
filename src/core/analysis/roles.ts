/** What a note is in its chord and line (handbook 2.4). */
export const NOTE_ROLES = [
  'chord tone',
  'passing',
  'neighbour',
  'appoggiatura',
  'suspension',
  'anticipation',
  'escape',
  'pedal',
  'ornament',
  'free'
] as const;
export type NoteRole = (typeof NOTE_ROLES)[number];

/** Voices that a single line may hold, from above. */
export const VOICE_NAMES = ['upper', 'middle', 'lower'] as const;
export type VoiceName = (typeof VOICE_NAMES)[number];
