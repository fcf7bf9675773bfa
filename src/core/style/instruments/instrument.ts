import { midi, stepOf, type Pitch } from '../../score/pitch.ts';

/** Families that matter for what can be proposed. */
export type Family = 'strings' | 'wind' | 'brass' | 'keyboard' | 'voice' | 'percussion' | 'other';

/**
 * What an instrument can do: its player breathes, bows, plucks, strikes, sings; it has keys under two hands; a note can be
 * held and shaped after it has begun (otherwise it decays).
 */
export type Ability = 'breathes' | 'bows' | 'plucks' | 'strikes' | 'keys' | 'holds' | 'sings';

/** Sets of samples that come along. */
export const SAMPLE_SETS = [
  'violin',
  'cello',
  'contrabass',
  'flute',
  'clarinet',
  'bassoon',
  'french-horn',
  'trumpet',
  'trombone',
  'tuba',
  'saxophone',
  'piano',
  'organ',
  'guitar-nylon',
  'xylophone'
] as const;
export type SampleSet = (typeof SAMPLE_SETS)[number];

export type ClefSign = 'G' | 'F' | 'C' | 'percussion' | 'TAB';

/** Sounding pitches between which an instrument is played, and from where it is high: it costs endurance, or is exposed. */
export interface InstrumentRange {
  low: Pitch;
  high: Pitch;
  highFrom: Pitch;
}

/** All that there is to say about one instrument. Ranges and names from memory, adjustable; handbook 9.1. */
export interface Instrument {
  /** As the command line names it. */
  key: string;
  /** In a sentence: "the English horn". */
  name: string;
  family: Family;
  can: readonly Ability[];
  /**
   * Names in part lists, in the languages of scores, with abbreviations; in lower case, without accents and plurals. A name
   * that several instruments share ("bass", "alto") is settled by clef, range, transposition and words under the notes.
   */
  names: readonly string[];
  /** Ids of MusicXML's standard sounds, whole or their beginnings. MusicXML 4.0, sounds.xml. */
  sounds: readonly string[];
  /** Null for what has no range of its own. */
  range: InstrumentRange | null;
  /** Sounding pitches of its open strings, from the highest; absent where it has none, or several tunings. */
  strings?: readonly Pitch[];
  clefs: readonly ClefSign[];
  /** Semitones from written to sounding pitch, octaves folded out (0 to 11), as parts are usually printed. */
  transpositions: readonly number[];
  /** 0-based program. MIDI Association, General MIDI level 1. */
  program: number;
  /** The samples nearest to it. */
  samples: SampleSet;
}

export const pitch = (name: string): Pitch => {
  const match = /^([A-G])(#|b)?(\d)$/.exec(name)!;
  return { step: stepOf(match[1]), alter: match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0, octave: Number(match[3]) };
};

/** "E5 A4 D4 G3": open strings from the highest. */
export const strings = (text: string): Pitch[] => text.split(' ').filter(Boolean).map(pitch);

/** "G3 A7 E6": lowest, highest, and from where it is high. */
export function range(text: string): InstrumentRange {
  const [low, high, highFrom] = text.split(' ').map(pitch);
  return { low, high, highFrom };
}

export const can = (instrument: Instrument, ...abilities: Ability[]): boolean => abilities.some((a) => instrument.can.includes(a));
/**
 * Whether something that needs one of some abilities is for an instrument: for all where it needs none, or nothing is known.
 * @param unless abilities with which it is for none
 */
export const isFor = (needs: readonly Ability[] | undefined, instrument: Instrument, unless: readonly Ability[] = []): boolean =>
  !instrument.can.length || ((!needs || can(instrument, ...needs)) && !can(instrument, ...unless));

export const isWithin = ({ low, high }: InstrumentRange, height: number): boolean => height >= midi(low) && height <= midi(high);
