import type { Plan } from './plan.ts';

/** Lists of a plan whose entries have names: they are changed one by one, so that two windows do not undo each other. */
const NAMED = ['tasks', 'checklist', 'sets'] as const;
type Named = (typeof NAMED)[number];
type Entry = { key: string };

/** What differs between two states of a plan. */
export interface PlanChange {
  /** Other fields, whole. */
  set: Partial<Omit<Plan, Named | 'key'>>;
  /** Entries by list and name; null where one is gone. */
  put: Partial<Record<Named, Record<string, Entry | null>>>;
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What must be done to a plan so that it becomes another. */
export function planChange(from: Plan, to: Plan): PlanChange {
  const set: Record<string, unknown> = {};
  for (const field of Object.keys(to) as (keyof Plan)[])
    if (field !== 'key' && !(NAMED as readonly string[]).includes(field) && !same(from[field], to[field])) set[field] = to[field];
  const put: PlanChange['put'] = {};
  for (const list of NAMED) {
    const [before, after] = [new Map<string, Entry>(), new Map<string, Entry>()];
    for (const e of from[list] as Entry[]) before.set(e.key, e);
    for (const e of to[list] as Entry[]) after.set(e.key, e);
    const changed: Record<string, Entry | null> = {};
    for (const [key, e] of after) if (!same(before.get(key), e)) changed[key] = e;
    for (const key of before.keys()) if (!after.has(key)) changed[key] = null;
    if (Object.keys(changed).length) put[list] = changed;
  }
  return { set: set as PlanChange['set'], put };
}

/** A plan after a change; what the change does not name stays. */
export function changedPlan(plan: Plan, { set, put }: PlanChange): Plan {
  const lists: Partial<Record<Named, Entry[]>> = {};
  for (const list of NAMED) {
    const changes = put[list];
    if (!changes) continue;
    const known = new Set((plan[list] as Entry[]).map((e) => e.key));
    const kept = (plan[list] as Entry[]).flatMap((e) => (e.key in changes ? (changes[e.key] ?? []) : e));
    const added = Object.entries(changes).flatMap(([key, e]) => (e && !known.has(key) ? e : []));
    lists[list] = [...kept, ...added];
  }
  return { ...plan, ...set, ...lists } as Plan;
}

/** Whether a change says nothing. */
export const isNothing = ({ set, put }: PlanChange): boolean => !Object.keys(set).length && !Object.keys(put).length;
