import { DRAFT_STRENGTH } from '../style/rule-weights.ts';
import type { Marking } from '../markings/marking.ts';
import type { Proposal } from './proposal.ts';

/** Id of the marking that a kept proposal makes: the same each time, so that a draft taken twice changes nothing. */
export const draftId = (key: string): string => `mark-${key.replace(/[^\w]+/g, '-')}`;

/**
 * A sensible first reading of a whole piece: every open proposal that is strong enough, as markings that still
 * say by which rule they stand.
 * @param decided keys that have been kept or set aside already
 */
export function draftOf(proposals: readonly Proposal[], decided: ReadonlySet<string> = new Set()): { key: string; marking: Marking }[] {
  return proposals
    .filter((p) => p.strength >= DRAFT_STRENGTH && !decided.has(p.key))
    .map((p) => ({ key: p.key, marking: { ...p.marking, id: draftId(p.key) } }));
}
