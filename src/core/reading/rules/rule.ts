import type { Fraction } from '../../score/fraction.ts';
import type { SourceKey } from '../../style/bibliography.ts';
import type { Ability } from '../../style/instruments/instrument.ts';
import type { Period } from '../../style/profiles.ts';
import type { Claim } from '../../markings/claim.ts';
import type { ClaimName } from '../claims/claims.ts';
import type { RuleContext } from '../context.ts';
import type { MarkingKind } from '../../markings/marking-kind.ts';
import type { Tone } from '../../analysis/sounding-score.ts';

export const AREAS = [
  'phrasing',
  'dynamics',
  'weight',
  'articulation',
  'ornaments',
  'time',
  'rhythm',
  'tempo',
  'character',
  'text'
] as const;
export type Area = (typeof AREAS)[number];

/** A claim as a rule makes it: its part is that of the context. */
export type Said = Omit<Claim, 'part' | 'what'> & { what: ClaimName };

/** What a rule finds at one place. */
export interface Draft {
  kind: MarkingKind;
  value: string;
  at: Tone | Fraction;
  to?: Tone | Fraction;
  staff?: number;
  /** What it claims about the score; nothing is proposed where that cannot be read back. */
  fact: Said;
  /** Ids of facts. */
  facts?: string[];
  /** Name of what it belongs to, within its rule: a softer level and the level after it are kept together or not at all. */
  group?: string;
  /** How sure the facts are, 0 to 1. */
  confidence?: number;
}

const FOR_WHOM: Record<Ability, string> = {
  breathes: 'what is blown or sung',
  bows: 'bowed strings',
  plucks: 'what is plucked',
  strikes: 'what is struck',
  keys: 'keyboards',
  holds: 'what holds its notes',
  sings: 'what is sung'
};
const told = (abilities: readonly Ability[]): string => abilities.map((a) => FOR_WHOM[a]).join(' and ');

/** For whose instruments a rule is, to be put behind its strengths: "; only for keyboards"; empty when for all. */
export const forWhom = ({ needs, unless }: Pick<Rule, 'needs' | 'unless'>): string =>
  (needs ? `; only for ${told(needs)}` : '') + (unless ? `; not for ${told(unless)}` : '');

/** A rule: data about itself and a small function that finds the places where it applies. */
export interface Rule {
  id: string;
  area: Area;
  title: string;
  /** What it looks at and what it proposes, for the teacher. */
  looksAt: string;
  proposes: string;
  /** Strength by period, 0 to 1; a period that is absent does not know the rule. */
  periods: Partial<Record<Period, number>>;
  /** It is for players of whose instrument one of these holds; for all when absent. */
  needs?: readonly Ability[];
  /** It is not for players of whose instrument one of these holds. */
  unless?: readonly Ability[];
  sources: readonly SourceKey[];
  find(context: RuleContext): Draft[];
}

/** Strengths from which a rule speaks so. Set by hand. */
const FROM = { strong: 0.7, usual: 0.5 };

/** How strongly a rule speaks in its period, in a word. */
export const strengthSaid = (strength: number): 'strong' | 'usual' | 'mild' =>
  strength >= FROM.strong ? 'strong' : strength >= FROM.usual ? 'usual' : 'mild';
