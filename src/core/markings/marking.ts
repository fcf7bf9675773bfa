import type { Fraction } from '../score/fraction.ts';
import type { SourceKey } from '../style/bibliography.ts';
import type { Claim } from './claim.ts';
import type { MarkingKind } from './marking-kind.ts';

/** Why a marking stands: a rule with the facts it met, or the instructor's own words. */
export interface Because {
  /** As it was said when it was kept; where it makes a claim, its words are made anew. */
  text: string;
  /** What the rule claims about the score. */
  claim?: Claim;
  rule?: string;
  /** Ids of the facts that the rule rested on. */
  facts?: string[];
  sources?: SourceKey[];
}

/** Where a teacher has put a marking, against where it would stand by itself. Staff spaces. */
export interface Placing {
  side?: 'above' | 'below';
  right?: number;
  up?: number;
}

/** An editorial marking of a reading. */
export interface Marking {
  id: string;
  kind: MarkingKind;
  value: string;
  part: number;
  staff: number;
  /** Quarters from the beginning, as written. */
  start: Fraction;
  /** End of a span: the start of its last note, or the moment a hairpin ends. */
  end?: Fraction;
  /** Notes that it hangs on. */
  note?: string;
  endNote?: string;
  placing?: Placing;
  because: Because[];
  /** A word to the player. */
  remark?: string;
  /** Key of the proposal that it was kept from. */
  proposal?: string;
  /** What that proposal said when it was kept; when it comes to say something else, that is a question. */
  proposed?: string;
}

/** A marking that is not yet in a reading and so has no name. */
export type NewMarking = Omit<Marking, 'id'>;
