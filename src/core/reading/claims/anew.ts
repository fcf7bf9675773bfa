import type { Facts } from '../../analysis/facts.ts';
import type { Because, Marking } from '../../markings/marking.ts';
import type { Score } from '../../score/model.ts';
import { dynamicLevels } from '../in-force.ts';
import { ruleById } from '../rules/index.ts';
import { groundOf, holds, reasonText, told } from './claims.ts';
import type { Ground } from './claim.ts';

/** A reason in the words of what holds now. Where its claim does not hold any more only the rule is left of it. */
function anew(because: Because, ground: Ground): Because {
  const { claim } = because;
  const rule = because.rule === undefined ? undefined : ruleById(because.rule);
  if (!claim || !rule) return because;
  return { ...because, text: holds(claim, ground) ? reasonText(told(claim, ground), rule.title) : `${rule.title}.` };
}

/** The reasons of markings that claim something that cannot be read back from the score as it is read now. */
export const outdated = (markings: readonly Marking[], ground: Ground): Marking[] =>
  markings.filter((m) => m.because.some((b) => b.claim && !holds(b.claim, ground)));

/** Markings with their reasons told anew, from the levels and facts that hold in their reading. */
export function toldAnew(markings: readonly Marking[], score: Score, facts: () => Facts): readonly Marking[] {
  if (!markings.some((m) => m.because.some((b) => b.claim))) return markings;
  const ground = groundOf(score, facts(), dynamicLevels(score, markings));
  return markings.map((m) => (m.because.some((b) => b.claim) ? { ...m, because: m.because.map((b) => anew(b, ground)) } : m));
}
