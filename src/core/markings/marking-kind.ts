/** All kinds of editorial markings, in the order in which they are offered; `kinds/` has all that there is to say about each. */
export const MARKING_KINDS = [
  'dynamic',
  'hairpin',
  'slur',
  'articulation',
  'accent',
  'breath',
  'comma',
  'tempo',
  'metronome',
  'fermata',
  'text',
  'advice',
  'ornament',
  'fingering',
  'bowing',
  'string',
  'harmonic',
  'sticking',
  'hand',
  'pedal',
  'octave',
  'manner',
  'cue',
  'emendation',
  'inflection'
] as const;

export type MarkingKind = (typeof MARKING_KINDS)[number];
