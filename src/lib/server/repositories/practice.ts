import { and, asc, count, eq } from 'drizzle-orm';
import type { Mock } from '../../../core/rehearsal/audition.ts';
import { changedPlan, type PlanChange } from '../../../core/rehearsal/plan/change.ts';
import { planContentOf, type Plan, type PlanContent } from '../../../core/rehearsal/plan/plan.ts';
import type { Visit } from '../../../core/rehearsal/plan/visit.ts';
import type { Database } from '../db/open.ts';
import { plans, practiceLog, sheets } from '../db/schema.ts';

const mine = (owner: string, key: string) => and(eq(plans.owner, owner), eq(plans.key, key));

/** All plans of a person, the first one first. */
export async function listPlans(db: Database, owner: string): Promise<Plan[]> {
  const rows = await db.select({ key: plans.key, content: plans.content }).from(plans).where(eq(plans.owner, owner)).orderBy(asc(plans.id));
  return rows.map(({ key, content }) => ({ ...(content as PlanContent), key }));
}

export async function findPlan(db: Database, owner: string, key: string): Promise<Plan | null> {
  const [row] = await db.select({ content: plans.content }).from(plans).where(mine(owner, key));
  return row ? { ...(row.content as PlanContent), key } : null;
}

export const countPlans = async (db: Database, owner: string): Promise<number> =>
  (await db.select({ n: count() }).from(plans).where(eq(plans.owner, owner)))[0].n;

/** Keeps a plan whole, whether it is new or known: the same sent twice stands once. */
export const keepPlan = async (db: Database, owner: string, key: string, content: PlanContent): Promise<void> => {
  await db
    .insert(plans)
    .values({ owner, key, content })
    .onConflictDoUpdate({ target: [plans.owner, plans.key], set: { content } });
};

/**
 * Changes what a change names; what another window changed meanwhile stays.
 * @param check refuses what the plan may not become
 * @returns the plan as it is then; null where there is none
 */
export const changePlan = (
  db: Database,
  owner: string,
  key: string,
  change: PlanChange,
  check: (content: PlanContent) => void
): Promise<Plan | null> =>
  db.transaction(async (tx) => {
    const [row] = await tx.select({ content: plans.content }).from(plans).where(mine(owner, key));
    if (!row) return null;
    const content = planContentOf(changedPlan({ ...(row.content as PlanContent), key }, change));
    check(content);
    await tx.update(plans).set({ content }).where(mine(owner, key));
    return { ...content, key };
  });

/** @returns whether there was such a plan. What was practised stays: taken back, the plan has it again. */
export const removePlan = async (db: Database, owner: string, key: string): Promise<boolean> =>
  (await db.delete(plans).where(mine(owner, key)).returning({ id: plans.id })).length > 0;

/** What is in the log of a plan, in the order in which it came. */
async function logged<T>(db: Database, owner: string, plan: string, kind: 'visit' | 'mock'): Promise<T[]> {
  const rows = await db
    .select({ key: practiceLog.key, content: practiceLog.content })
    .from(practiceLog)
    .where(and(eq(practiceLog.owner, owner), eq(practiceLog.planKey, plan), eq(practiceLog.kind, kind)))
    .orderBy(asc(practiceLog.id));
  return rows.map(({ key, content }) => ({ ...(content as object), id: key, plan }) as T);
}

export const visitsOf = (db: Database, owner: string, plan: string): Promise<Visit[]> => logged(db, owner, plan, 'visit');
export const mocksOf = (db: Database, owner: string, plan: string): Promise<Mock[]> => logged(db, owner, plan, 'mock');

/** Adds to the log of a plan. What comes again under its name changes nothing. */
export const addToLog = async (
  db: Database,
  owner: string,
  plan: string,
  kind: 'visit' | 'mock',
  key: string,
  content: object
): Promise<void> => {
  await db.insert(practiceLog).values({ owner, planKey: plan, kind, key, content }).onConflictDoNothing();
};

/** Keeps a sheet. One that is known stays as it is. */
export const keepSheet = async (db: Database, owner: string, key: string, document: string): Promise<void> => {
  await db.insert(sheets).values({ owner, key, document }).onConflictDoNothing();
};

export async function findSheet(db: Database, owner: string, key: string): Promise<string | null> {
  const [row] = await db
    .select({ document: sheets.document })
    .from(sheets)
    .where(and(eq(sheets.owner, owner), eq(sheets.key, key)));
  return row?.document ?? null;
}
