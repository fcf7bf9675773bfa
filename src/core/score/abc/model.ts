import type { Fraction } from '../fraction.ts';
import type { KeySignature, TimeSignature } from '../model.ts';
import type { Pitch } from '../pitch.ts';

/** One note, chord or rest of a tune. Lengths in quarters. */
export interface AbcSound {
  kind: 'sound';
  /** Id of its first note in the document. */
  id?: string;
  /** Ids of all notes that it becomes, in their order, where they are known already. */
  ids?: string[];
  /** Empty for a rest. */
  pitches: { pitch: Pitch; accidental?: string; tie: boolean }[];
  hidden?: boolean;
  wholeMeasure?: boolean;
  grace?: 'plain' | 'slash';
  duration: Fraction;
  tuplet?: { actual: number; normal: number; start: boolean; stop: boolean };
  decorations: string[];
  slurStarts: number;
  slurStops: number;
  /** No space before the next note: beamed with it. */
  joined: boolean;
  lyrics: string[];
}

export type AbcEvent =
  | AbcSound
  | { kind: 'bar'; style: string; repeatStart: boolean; repeatEnd: number; ending: string | null }
  | { kind: 'key'; key: KeySignature }
  | { kind: 'meter'; time: TimeSignature | null }
  | { kind: 'clef'; clef: string }
  | { kind: 'tempo'; text: string; unit: Fraction | null; perMinute: string | null }
  | { kind: 'words'; text: string; placement: 'above' | 'below' }
  | { kind: 'chord-symbol'; text: string }
  | { kind: 'part'; text: string }
  | { kind: 'overlay' };

export interface AbcVoice {
  id: string;
  name: string;
  clef: string;
  /** Semitones from written to sounding. */
  transpose: number;
  octave: number;
  events: AbcEvent[];
}

export interface AbcTune {
  title: string;
  composer: string;
  origin: string;
  time: TimeSignature | null;
  key: KeySignature;
  tempo: AbcEvent | null;
  voices: AbcVoice[];
  /** Voices by part, staff and layer, from %%score; each voice a part of its own without it. */
  layout: string[][][];
  remarks: string[];
}
