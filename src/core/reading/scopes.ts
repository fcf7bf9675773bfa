import type { Facts } from '../analysis/facts.ts';
import { cmp, lt, type Fraction } from '../score/fraction.ts';
import type { Proposal } from './proposal.ts';

/** How far one act of keeping or setting aside reaches. */
export const SCOPES = ['bars', 'phrase', 'section', 'kind', 'rule'] as const;
export type Scope = (typeof SCOPES)[number];

/**
 * The proposals that belong to one of the selected bars' own, by scope: those of the bars, of the phrases or
 * sections that they touch, of the same kinds, or by the same rules anywhere in the piece.
 * @param from,to selected stretch, half open
 */
export function inScope(proposals: readonly Proposal[], facts: Facts, scope: Scope, from: Fraction, to: Fraction): Proposal[] {
  const within = (p: Proposal, a: Fraction, b: Fraction): boolean => cmp(p.marking.start, a) >= 0 && lt(p.marking.start, b);
  const own = proposals.filter((p) => within(p, from, to));
  if (scope === 'bars') return own;
  if (scope === 'kind' || scope === 'rule') {
    const of = (p: Proposal): string => (scope === 'kind' ? p.marking.kind : p.rule);
    const wanted = new Set(own.map(of));
    return proposals.filter((p) => wanted.has(of(p)));
  }
  const spans = (scope === 'phrase' ? facts.phrases : facts.sections).filter((s) => lt(s.start, to) && cmp(s.end, from) > 0);
  return proposals.filter((p) => spans.some((s) => within(p, s.start, s.end)));
}
