import type { Fraction } from '../score/fraction.ts';

/** What a source has where it has nothing. */
export const NOTHING = 'nothing';
export const listed = (list: readonly string[]): string => (list.length ? list.join(', ') : NOTHING);
/** A moment as a key. */
export const momentOf = (n: Fraction): string => `${n.n}/${n.d}`;

/** Kinds of differences between two sources. */
export const DIFFERENCE_KINDS = [
  'parts',
  'bars',
  'meter',
  'key',
  'repeats',
  'notes',
  'rhythm',
  'slur',
  'articulation',
  'ornament',
  'dynamic',
  'tempo',
  'words'
] as const;
export type DifferenceKind = (typeof DIFFERENCE_KINDS)[number];

/** One place at which two sources differ: what each has, in words. */
export interface SourceDifference {
  /** Stable while both sources are what they are. */
  id: string;
  kind: DifferenceKind;
  part: number;
  /** Measure of the source that the pages follow (for bars that it lacks, the one before which they would stand) and of the other. */
  measure: number;
  other: number | null;
  /** Quarters from the beginning of the bar. */
  onset: Fraction;
  /** What the source of the pages has, and what the other has. */
  ours: string;
  theirs: string;
  /** Ids of the notes concerned, in either source. */
  ourNotes: string[];
  theirNotes: string[];
  /** The other's reading can be taken into the text; what would move all places cannot. */
  takeable: boolean;
}

/** What the instructor decided about a difference. */
export interface SourceChoice {
  /** Hash of the other source, and the difference. */
  source: string;
  difference: string;
  take: 'ours' | 'theirs';
  because: string;
  /** Day of the decision, YYYY-MM-DD. */
  on: string;
}
