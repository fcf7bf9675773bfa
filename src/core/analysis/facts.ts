import type { Fraction } from '../score/fraction.ts';
import type { Key } from './keys.ts';
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
  quality: Quality;
  role: Role;
  /** 0 root position … 3 seventh in the bass. */
  inversion: number;
  applied: boolean;
  special: 'neapolitan' | 'augmented sixth' | null;
  /** Six-four over the dominant's root that resolves into it. */
  cadential?: true;
}

export type CadenceType = 'PAC' | 'IAC' | 'HC' | 'DC' | 'PC' | 'EC';

export interface CadenceFact extends Certainty {
  id: string;
  /** Where the goal chord arrives. */
  start: Fraction;
  type: CadenceType;
  key: Key;
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

/** Everything that is computed about a score; plain data, so that it can be stored and sent. */
export interface Facts {
  engine: string;
  keys: KeyFact[];
  chords: ChordFact[];
  cadences: CadenceFact[];
  phrases: PhraseFact[];
}

/** A correction by the instructor; times as in the facts. */
export type Pin =
  | { id: string; kind: 'key'; start: Fraction; end: Fraction; key: string }
  | { id: string; kind: 'chord'; start: Fraction; end: Fraction; roman: string }
  | { id: string; kind: 'phrase-start'; start: Fraction; here: boolean };
