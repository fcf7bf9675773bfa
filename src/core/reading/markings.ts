import type { Fraction } from '../score/fraction.ts';
import type { SourceKey } from '../style/bibliography.ts';

/** Kinds of editorial markings. */
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
  'fingering',
  'bowing'
] as const;
export type MarkingKind = (typeof MARKING_KINDS)[number];

/** Values that a kind may take; kinds that are absent take free text. */
export const MARKING_VALUES: Partial<Record<MarkingKind, readonly string[]>> = {
  dynamic: ['ppp', 'pp', 'p', 'mp', 'mf', 'f', 'ff', 'fff', 'sf', 'sfz', 'fp'],
  hairpin: ['crescendo', 'diminuendo'],
  slur: ['slur'],
  articulation: ['staccato', 'tenuto', 'staccatissimo', 'detached-legato'],
  accent: ['accent', 'strong-accent'],
  breath: ['breath'],
  comma: ['comma'],
  fermata: ['fermata'],
  bowing: ['down-bow', 'up-bow']
};

/** Kinds that reach from one place to another. */
export const isSpan = (kind: MarkingKind): boolean => kind === 'hairpin' || kind === 'slur';
/** Kinds that hang on a note rather than on a moment. */
export const isOnNote = (kind: MarkingKind): boolean =>
  ['slur', 'articulation', 'accent', 'breath', 'comma', 'fermata', 'fingering', 'bowing'].includes(kind);

/** Why a marking stands: a rule with the facts it met, or the instructor's own words. */
export interface Because {
  text: string;
  rule?: string;
  /** Ids of the facts that the rule rested on. */
  facts?: string[];
  sources?: SourceKey[];
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
  because: Because[];
  /** A word to the player. */
  remark?: string;
  /** Key of the proposal that it was kept from. */
  proposal?: string;
  /** What that proposal said when it was kept; when it comes to say something else, that is a question. */
  proposed?: string;
}

/** What a rule suggests; becomes a marking when it is kept. The key is stable while rule and place are. */
export interface Proposal {
  key: string;
  rule: string;
  /** 0 to 1: rule strength in this profile times how sure the facts are. */
  strength: number;
  marking: Omit<Marking, 'id' | 'proposal'>;
  /** Weaker rules that would have said otherwise at this place. */
  outweighs?: { rule: string; value: string; strength: number }[];
}
