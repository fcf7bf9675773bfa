import type { Marking } from '../markings/marking.ts';
import { add, cmp, lte } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { dynamicLevels, levelInForce } from './in-force.ts';

/**
 * From where to where a hairpin goes, from the levels that hold in the reading as it is now: "from p to f", "from mf"; empty where
 * nothing is in force. It is never stored, so that it changes with every mark around it.
 */
export function hairpinWords(
  score: Score,
  markings: readonly Marking[],
  hairpin: Pick<Marking, 'kind' | 'part' | 'start' | 'end'>
): string {
  if (hairpin.kind !== 'hairpin' || !hairpin.end) return '';
  const { end, part, start } = hairpin;
  const levels = dynamicLevels(score, markings).filter((l) => l.part === part);
  const from = levelInForce(levels, part, start);
  if (!from) return '';
  const near = add(end, measureAt(score, end).length);
  const to = levels.find((l) => lte(end, l.start) && cmp(l.start, near) < 0);
  return to && to.step !== from.step ? `from ${from.sign} to ${to.sign}` : `from ${from.sign}`;
}
