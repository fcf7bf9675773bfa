import type { Fraction } from '../../score/fraction.ts';
import type { SourceKey } from '../../style/bibliography.ts';
import type { Family } from '../../style/instruments.ts';
import type { Period } from '../../style/profiles.ts';
import type { RuleContext } from '../context.ts';
import type { MarkingKind } from '../../markings/kinds/index.ts';
import type { Tone } from '../../analysis/texture.ts';

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

/** What a rule finds at one place. */
export interface Draft {
  kind: MarkingKind;
  value: string;
  at: Tone | Fraction;
  to?: Tone | Fraction;
  staff?: number;
  /** The fact, in words: "bar 26: Neapolitan sixth". */
  fact: string;
  /** Ids of facts. */
  facts?: string[];
  /** How sure the facts are, 0 to 1. */
  confidence?: number;
}

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
  /** Families it is for; all when absent. */
  families?: readonly Family[];
  sources: readonly SourceKey[];
  find(context: RuleContext): Draft[];
}
