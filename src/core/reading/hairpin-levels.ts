import type { Marking } from '../markings/marking.ts';
import { add, cmp, lte } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { isForHand, levelInForce, type Level } from './in-force.ts';

/**
 * From where to where a hairpin goes, from the levels that hold in the reading as it is now: "from p to f", "from mf"; empty where
 * nothing is in force. It is never stored, so that it changes with every mark around it.
 * @param levels of the score with all markings, in order of time
 */
export function hairpinWords(
  score: Score,
  levels: readonly Level[],
  { kind, part, staff, start, end }: Pick<Marking, 'kind' | 'part' | 'staff' | 'start' | 'end'>
): string {
  if (kind !== 'hairpin' || !end) return '';
  const from = levelInForce(levels, part, start, staff);
  if (!from) return '';
  const near = add(end, measureAt(score, end).length);
  const to = levels.find((l) => l.part === part && isForHand(l, staff) && lte(end, l.start) && cmp(l.start, near) < 0);
  return to && to.step !== from.step ? `from ${from.sign} to ${to.sign}` : `from ${from.sign}`;
}
