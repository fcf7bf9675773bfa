import type { Fraction } from '../score/fraction.ts';
import type { Key } from './keys.ts';
import type { Tonality } from './tonality.ts';
import type { Quality, Role } from './vocabulary.ts';

/** Id of a fact: its kind and where it begins, so that it outlives a new analysis of the same place. */
export const factId = (kind: string, start: Fraction): string => `${kind}-${start.n}_${start.d}`;

/** What every computed statement carries: how sure it is, on what evidence, and the runner-up. */
export interface Certainty {
  /** 0 to 1. */
  confidence: number;
  evidence: string;
  rival?: string;
  /** Settled by the instructor. */
  pinned?: true;
}

/** Times are quarters from the beginning, as written; `end` is exclusive, `last` the start of the last note. */
export interface KeyFact extends Certainty {
  id: string;
  start: Fraction;
  end: Fraction;
  last: Fraction;
  key: Key;
  name: string;
  /** Where it is neither plain major nor minor. "none": no key fits, and no chord is named there. */
  tonality?: Tonality;
}

export interface ChordFact extends Certainty {
  id: string;
  start: Fraction;
  end: Fraction;
  key: Key;
  roman: string;
  /** Root and bass as spelled pitch names without octave. */
  root: string;
  bass: string;
  /** The file's chord symbol that begins in it. */
  symbol?: string;
  quality: Quality;
  role: Role;
  /** 0 root position … 3 seventh in the bass; over a pedal 0. */
  inversion: number;
  /** The bass is a note held or struck again from before that does not belong to the chord. */
  pedal?: true;
  applied: boolean;
  special: 'neapolitan' | 'augmented sixth' | null;
  /** Six-four over the dominant's root that resolves into it. */
  cadential?: true;
}

/** Perfect and imperfect authentic, half, deceptive, plagal, evaded. */
export const CADENCE_TYPES = ['PAC', 'IAC', 'HC', 'DC', 'PC', 'EC'] as const;
export type CadenceType = (typeof CADENCE_TYPES)[number];

/** Cadences as musicians call them. */
export const CADENCE_NAMES: Record<CadenceType, string> = {
  PAC: 'perfect authentic cadence',
  IAC: 'imperfect authentic cadence',
  HC: 'half cadence',
  DC: 'deceptive cadence',
  PC: 'plagal cadence',
  EC: 'evaded cadence'
};

export interface CadenceFact extends Certainty {
  id: string;
  /** Where the goal chord arrives. */
  start: Fraction;
  type: CadenceType;
  key: Key;
  /** How firmly it closes, 0 to 1. */
  strength: number;
  /** Chord ids: what leads and what is reached. */
  from: string;
  to: string;
}

export interface PhraseFact extends Certainty {
  id: string;
  start: Fraction;
  end: Fraction;
  /** Where the last note in it begins. */
  last: Fraction;
  /** Cadence that closes it. */
  cadence?: string;
}

/** A stretch of time; `end` is exclusive, `last` the start of the last note in it. */
export interface Span {
  start: Fraction;
  end: Fraction;
  last: Fraction;
}

export interface SectionFact extends Certainty, Span {
  id: string;
  /** Same letter = same music; a prime (') for a variant. */
  label: string;
  /** Name of the key in which it begins, and in which it ends. */
  opens: string;
  closes: string;
  /** How it is set up: what comes just before it. */
  setUp: string;
}

/** One point at which two parallel places differ; the note's id on the side where something stands. */
export interface DifferenceFact {
  kind: string;
  what: string;
  a: Fraction;
  b: Fraction;
  noteA?: string;
  noteB?: string;
}

export interface ParallelFact extends Certainty {
  id: string;
  a: Span;
  b: Span;
  /** Interval from a to b: "P1", "P5", "-M2". */
  transposition: string;
  /** The same in semitones. */
  semitones: number;
  /** How much later in its bar b stands than a, in quarters. */
  shift: Fraction;
  /** Lines in which the two stand, in words, where it is not the same music as a whole. */
  lines?: [string, string];
  /** How much there is to it, in bars; the largest are shown first. */
  weight: number;
  differences: DifferenceFact[];
  /** Note ids of the two places that belong together. */
  pairs: [string, string][];
}

export interface SequenceFact extends Certainty, Span {
  id: string;
  unit: Fraction;
  units: number;
  /** Interval from one unit to the next: "-M2". */
  step: string;
  kind: string | null;
  line: 'melody' | 'bass';
  /** First notes of the units. */
  anchors: string[];
}

/** Everything that is computed about a score; plain data, so that it can be stored and sent. */
export interface Facts {
  engine: string;
  keys: KeyFact[];
  chords: ChordFact[];
  cadences: CadenceFact[];
  phrases: PhraseFact[];
  sections: SectionFact[];
  /** Name of the form as a whole; null where none fits. */
  form: string | null;
  parallels: ParallelFact[];
  sequences: SequenceFact[];
}
