import type { Score } from '../score/model.ts';
import type { Ability, Instrument } from '../style/instruments/instrument.ts';
import type { Marking } from './marking.ts';
import type { MarkingSound } from './sound.ts';

/**
 * Where a marking hangs: on a moment, on a note, on the notes from one to another (a slur), or over a stretch of time
 * (a hairpin).
 */
export type Hangs = 'moment' | 'note' | 'notes' | 'stretch';

/** A value in words of one's own. */
export interface OwnWords {
  /** What stands in the empty field. */
  hint: string;
  /** Characters at most. */
  most: number;
  /** What is offered to choose from, by instrument. */
  offered?(instrument: Instrument): readonly string[];
  /** What is wrong with a value, in one sentence; null when nothing is. */
  fault(value: string): string | null;
}

/** One line of the edition's legend: the sign as it is printed, and what it means. */
export interface LegendLine {
  sign: string;
  meaning: string;
}

/** Where an element stands in MEI, ready to be written into it; all values are attributes. */
export interface MeiPlace {
  /** Id, class and editor. */
  identity: string;
  /** The same under a further id, for a second element of one marking. */
  again: string;
  /** The same with the staff, and how far it was moved. */
  common: string;
  /** The side of the staff, where the teacher has not chosen another. */
  side(usual: 'above' | 'below'): string;
  /** Side of a curve; empty where the engraver chooses. */
  curve: string;
  /** Time stamp of the beginning. */
  stamp: string;
  /** The note that it hangs on, else the time stamp. */
  anchor: string;
  /** Time stamp a little before the note ends. */
  beforeTheEnd: string;
  /** Time stamp of the end of a stretch. */
  until: string;
}

/** Another note in place of a printed one, as MEI attributes. */
export interface MeiNote {
  pname: string;
  oct: number;
  accid: string;
}

/** How a marking stands in MEI: an element beside the staves, inside of its note, an attribute of its note, or another note in its place; null where it cannot be drawn. */
export type MeiSign = { beside: string } | { inNote: string } | { onNote: string } | { instead: MeiNote } | null;

/** How a marking stands in MusicXML. What belongs to a note becomes words where there is none to hang it on. */
export type XmlSign =
  | { direction: string; placement: 'above' | 'below' }
  | { notation: string }
  /** A stretch between two directions. */
  | { from: string; until: string; placement: 'above' | 'below' }
  | { slur: (number: number) => { start: string; stop: string } }
  | { wedge: (number: number) => { start: string; stop: string }; placement: 'above' | 'below' };

/**
 * All that there is to say about one kind of marking. Form, schemas, writers, legend, commentary, proposals, proof and
 * performance read it here.
 */
export interface MarkingDescription {
  /** Its name inside a sentence: "tempo word". */
  name: string;
  /** What it is, in one sentence for the teacher. */
  says: string;
  hangs: Hangs;
  /** For players of whose instrument one of these holds; for all when absent. */
  needs?: readonly Ability[];
  /** Not for players of whose instrument one of these holds. */
  unless?: readonly Ability[];
  /** The values that it may take, the usual one first, or words of one's own. */
  values: readonly string[] | OwnWords;
  /** Whether a value is for an instrument; all are when absent. */
  fits?(value: string, instrument: Instrument): boolean;
  /** A value with its name, inside a sentence: "hairpin crescendo", "“from above”". */
  inWords(value: string): string;
  /** Its line in the edition's legend; null where nothing is printed. */
  legend: LegendLine | null;
  mei(m: Marking, place: MeiPlace): MeiSign;
  musicXml(m: Marking): XmlSign;
  /** Whether it would say the same as another of its kind, or the opposite, at one place. */
  clashes(m: Placed, other: Placed): boolean;
  /** What is printed where it would say the opposite, in words; null where they agree. */
  againstPrinted(score: Score, m: Placed): string | null;
  /** How it plays; an empty record where it does not sound. */
  sound(value: string): MarkingSound;
}

/** What a marking says and where, without its reasons. */
export type Placed = Pick<Marking, 'kind' | 'value' | 'part' | 'start' | 'end' | 'note'>;
