import { PRACTICE as W } from '../../style/practice.ts';
import { inFull, weekday, type Day } from './day.ts';
import { mayBegin, planDays } from './days.ts';
import { isPerformance, type Plan } from './plan.ts';
import type { Visit } from './visit.ts';

/** The moves of a plan with one more; one that goes on from another replaces it. */
function withMove(moves: Plan['moves'], task: string, from: Day, to: Day): Plan['moves'] {
  const before = moves.find((m) => m.task === task && m.to === from);
  const rest = moves.filter((m) => m !== before);
  // It stays away from where it was at first, and from where it was last.
  return [...rest, { task, from: before && before.from < from ? before.from : from, to }];
}

/**
 * A task is dragged to another day.
 * @returns the plan as it is then, or why it cannot be, in one sentence: what the plan promises always holds
 */
export function moved(plan: Plan, visits: readonly Visit[], today: Day, task: string, from: Day, to: Day): Plan | string {
  const own = plan.tasks.find((t) => t.key === task);
  if (!own) return 'This task is not in the plan any more.';
  if (to < today) return `${inFull(to)} is over.`;
  if (to > plan.date || (isPerformance(plan.occasion) && to === plan.date)) return 'Nothing is planned on the day itself or after it.';
  if (plan.rest.includes(weekday(to))) return `${inFull(to)} is a day of rest.`;
  const before = planDays(plan, visits, today);
  const known = visits.some((v) => v.task === task);
  if (!mayBegin(plan, to) && !known && own.kind !== 'slow-run') return 'Nothing new is begun in the last two days before a performance.';
  if (!mayBegin(plan, to) && own.kind === 'run') return 'In the last two days before a performance one runs through slowly.';
  const isThere = (p: Plan): boolean => planDays(p, visits, today).days.some((d) => d.day === to && d.items.some((i) => i.task === task));
  // One that goes back to where it would stand by itself is none.
  const undone = plan.moves.find((m) => m.task === task && m.from === to && m.to === from);
  const back = undone && { ...plan, moves: plan.moves.filter((m) => m !== undone) };
  if (back && isThere(back)) return back;
  const next = { ...plan, moves: withMove(plan.moves, task, from, to) };
  const after = planDays(next, visits, today);
  if (!isThere(next)) return `${inFull(to)} is full: ${plan.minutes} minutes.`;
  const lost = after.left.find((l) => !before.left.some((b) => b.task === l.task));
  if (lost) {
    const title = plan.tasks.find((t) => t.key === lost.task)!.title;
    return `Then there would be no room for ${title}: every visit takes ${W.least} minutes at least.`;
  }
  return next;
}
