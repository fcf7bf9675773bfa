/**
 * The score model: plain records, as written on the page, with exact times and the place of every
 * element in the source's own text. Nothing here is ever altered by an interpretation.
 */
import type { Fraction } from './fraction.ts';
import type { Interval, Pitch } from './pitch.ts';

/** Half-open range of UTF-16 offsets in the source text. */
export interface TextSpan {
  from: number;
  to: number;
}

/** Something that the reader wants the teacher to know; nothing is dropped silently. */
export interface Remark {
  kind: 'not-understood' | 'repaired';
  text: string;
  /** 0-based measure index, where it has one. */
  measure?: number;
  count: number;
}

/** Name of a <miscellaneous-field> in which a converter says what the source holds beyond the document. */
export const REMARK_FIELD = 'reading-remark';

export interface KeySignature {
  fifths: number;
  mode?: string;
  /** Alteration by letter step (0 = C) for signatures outside the circle of fifths. */
  steps?: Partial<Record<number, number>>;
}

export interface TimeSignature {
  /** As printed: "3/4", "2+3/8"; null for senza misura. */
  text: string | null;
  /** Groups of the numerator, in denominator units: [3], [2, 3]. */
  groups: number[];
  /** Denominator of the (first) signature. */
  unit: number;
  /** Length of a full bar in quarters; null for senza misura. */
  quarters: Fraction | null;
  symbol?: string;
}

export interface Clef {
  sign: string;
  line?: number;
  octave?: number;
}

/** Attributes of a part as they change, in order of time. */
export interface AttributeChange {
  measure: number;
  onset: Fraction;
  divisions?: Fraction;
  keys?: { staff: number | null; key: KeySignature }[];
  time?: TimeSignature;
  clefs?: { staff: number; clef: Clef }[];
  staves?: number;
  transpose?: Interval;
  multipleRest?: number;
}

export interface Part {
  index: number;
  id: string;
  name: string;
  abbreviation?: string;
  /** Sound id or instrument name as given in the part list. */
  instrument?: string;
  staves: number;
  transpose: Interval;
  changes: AttributeChange[];
  /** Text spans of this part's measures in the source, by measure index. */
  measureSpans: { outer: TextSpan; inner: TextSpan }[];
}

/** An articulation, ornament, technical sign, fermata … on a note. */
export interface NoteMark {
  group: 'articulation' | 'ornament' | 'technical' | 'fermata' | 'arpeggio' | 'other';
  /** MusicXML element name: "staccato", "trill-mark", "up-bow", "fermata". */
  name: string;
  value?: string;
  placement?: string;
  /** Accidentals of an ornament, as MusicXML names, above and below. */
  accidentals?: { value: string; placement?: string }[];
}

export interface SpanEnd {
  kind: 'slur' | 'glissando' | 'slide' | 'wavy-line' | 'tremolo';
  number: string;
  type: 'start' | 'stop' | 'continue';
}

export interface Note {
  id: string;
  part: number;
  measure: number;
  /** Quarters from the beginning of the measure. */
  onset: Fraction;
  /** Quarters from the beginning of the piece, repeats not unfolded. */
  start: Fraction;
  /** Written length in quarters; zero for grace notes. */
  duration: Fraction;
  voice: string;
  staff: number;
  rest?: true;
  /** A rest that fills its measure. */
  wholeMeasure?: true;
  unpitched?: true;
  pitch?: Pitch;
  sounding?: Pitch;
  /** Member of a chord begun by an earlier note. */
  chord?: true;
  cue?: true;
  hidden?: true;
  grace?: { slash: boolean; stealPrevious?: number; stealFollowing?: number };
  type?: string;
  dots?: number;
  timeModification?: { actual: number; normal: number };
  accidental?: string;
  courtesy?: true;
  tie?: { start: boolean; stop: boolean };
  marks?: NoteMark[];
  spans?: SpanEnd[];
  lyrics?: { number: string; text: string; syllabic?: string }[];
  notehead?: string;
  stem?: string;
  /** Where the element stands in the source text. */
  span: TextSpan;
  /** Where a further <notations> element may be inserted. */
  notationsAt: number;
}

interface DirectionPlace {
  id: string;
  part: number;
  measure: number;
  onset: Fraction;
  start: Fraction;
  staff: number;
  placement?: string;
  /** Where its <direction> stands in the source text; one element may hold several. */
  span?: TextSpan;
}

export type DirectionValue =
  | { kind: 'dynamic'; value: string }
  | { kind: 'wedge'; type: 'crescendo' | 'diminuendo' | 'stop' | 'continue'; number: string; niente: boolean }
  | { kind: 'words'; text: string }
  | { kind: 'rehearsal'; text: string }
  | {
      kind: 'metronome';
      unit: string;
      dots: number;
      /** Text of per-minute ("120", "ca. 96–104"), absent in a metric modulation. */
      perMinute?: string;
      equals?: { unit: string; dots: number };
    }
  | { kind: 'sound'; tempo?: number; dynamics?: number; attributes: Record<string, string> }
  | { kind: 'sign'; name: 'segno' | 'coda' }
  | { kind: 'span'; name: string; type: string; number: string; value?: string }
  | { kind: 'other'; name: string; text?: string };

export type Direction = DirectionPlace & DirectionValue;

export interface Slur {
  kind: SpanEnd['kind'];
  from: string;
  to: string;
}

export interface Hairpin {
  id: string;
  kind: 'crescendo' | 'diminuendo';
  part: number;
  staff: number;
  placement?: string;
  /** Quarters from the beginning of the piece. */
  start: Fraction;
  end: Fraction;
  niente: boolean;
}

export interface Harmony {
  part: number;
  measure: number;
  onset: Fraction;
  start: Fraction;
  text: string;
  /** Value of MusicXML's <kind>. */
  kind?: string;
}

export interface Measure {
  index: number;
  /** As printed, or as counted once the score has been renumbered. */
  number: string;
  /** What is printed over the bar where it has been renumbered. */
  printed?: string;
  implicit: boolean;
  start: Fraction;
  /** What the measure really lasts, in quarters. */
  length: Fraction;
  time: TimeSignature | null;
  /** Signature of the first part, as written. */
  key: KeySignature;
  repeatStart?: true;
  /** Times that the repeated passage is played in all. */
  repeatEnd?: number;
  endingStart?: number[];
  endingStop?: 'stop' | 'discontinue';
  segno?: string;
  coda?: string;
  toCoda?: string;
  daCapo?: true;
  dalSegno?: string;
  fine?: true;
  /** Bar style at the right: "light-light", "light-heavy" … */
  barline?: string;
  /** A fermata over the bar line. */
  barFermata?: true;
  /** Rehearsal letter. */
  rehearsal?: string;
}

export interface Score {
  title: string;
  composer: string;
  movement?: string;
  credits: { type: string; text: string }[];
  software?: string;
  parts: Part[];
  measures: Measure[];
  /** All notes and rests in document order of each part. */
  notes: Note[];
  directions: Direction[];
  slurs: Slur[];
  hairpins: Hairpin[];
  harmonies: Harmony[];
  remarks: Remark[];
}

/** What stops a file from being read as a score: one sentence, with its place. */
export class ScoreError extends Error {
  constructor(
    message: string,
    readonly place: { line?: number; column?: number; measure?: string } = {}
  ) {
    const where = [
      place.measure && `measure ${place.measure}`,
      place.line && `line ${place.line}`,
      place.line && place.column !== undefined && `character ${place.column}`
    ].filter(Boolean);
    super(message.replace(/\.$/, '') + (where.length ? ` (${where.join(', ')})` : '') + '.');
    this.name = 'ScoreError';
  }
}
