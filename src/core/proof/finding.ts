import type { Details } from '../analysis/details.ts';
import type { Facts } from '../analysis/facts.ts';
import type { Reading } from '../reading/reading.ts';
import type { RuleContext } from '../reading/context.ts';
import type { Level } from '../reading/in-force.ts';
import type { Marking } from '../markings/marking.ts';
import type { Proposal } from '../reading/proposal.ts';
import { format, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';

/** How much a finding matters: it contradicts itself, it may go wrong, or it wants an answer. */
export const SEVERITIES = ['contradiction', 'risk', 'question'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Something that does not add up, at a place, with its reason and what would solve it. */
export interface Finding {
  /** Kind and place, so that "accepted because …" holds on to it. */
  id: string;
  kind: string;
  severity: Severity;
  start: Fraction;
  what: string;
  /** What would solve it, in words. */
  remedy: string;
  /** A marking that would solve it at once. */
  marking?: Omit<Marking, 'id' | 'proposal'>;
}

/** Everything that the checks look at. */
export interface ProofContext {
  score: Score;
  facts: Facts;
  details: Details;
  reading: Reading;
  proposals: readonly Proposal[];
  /** Places, line, chords of the part that the reading is for. */
  rules: RuleContext;
  /** A part has the tune at a moment. */
  hasTune(part: number, at: Fraction): boolean;
  /** Printed and editorial levels of the part, in order. */
  levels: readonly Level[];
  /** Printed and editorial hairpins of the part, in order. */
  hairpins: readonly { id: string; up: boolean; start: Fraction; end: Fraction; editorial: boolean }[];
}

export type Check = (p: ProofContext) => Finding[];

/** A finding; its id is made of kind and place. */
export const finding = (
  kind: string,
  severity: Severity,
  start: Fraction,
  what: string,
  remedy: string,
  marking?: Finding['marking']
): Finding => ({ id: `${kind}@${start.n}_${start.d}`, kind, severity, start, what, remedy, ...(marking ? { marking } : {}) });

/** True when the instructor has set a rule's proposal at a place aside: the question was put and answered. */
export const declined = (p: ProofContext, rule: string, start: Fraction): boolean =>
  Object.entries(p.reading.decisions).some(
    ([key, d]) => d.status === 'set aside' && key.startsWith(`${rule}@${p.reading.part}.${format(start)}.`)
  );
