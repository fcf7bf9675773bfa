import { error } from '@sveltejs/kit';
import type { MockContent } from '../../core/rehearsal/audition.ts';
import type { BookPart } from '../../core/rehearsal/book.ts';
import type { Day } from '../../core/rehearsal/plan/day.ts';
import { planDays } from '../../core/rehearsal/plan/days.ts';
import type { PlanChange } from '../../core/rehearsal/plan/change.ts';
import type { Plan, PlanContent } from '../../core/rehearsal/plan/plan.ts';
import type { VisitContent } from '../../core/rehearsal/plan/visit.ts';
import { LIMITS } from '../../core/style/limits.ts';
import type { PracticeState } from '../shapes.ts';
import type { Database } from './db/open.ts';
import { valid } from './http.ts';
import { runTask } from './jobs/run.ts';
import type { Progress } from './jobs/progress.ts';
import { listPlayers } from './repositories/players.ts';
import * as practice from './repositories/practice.ts';
import { planContent } from './schemas.ts';

/** What one person has planned for players, and what was practised. */
export class StudioPractice {
  constructor(
    private readonly db: Database,
    private readonly person: string
  ) {}

  plans(): Promise<Plan[]> {
    return practice.listPlans(this.db, this.person);
  }

  async plan(key: string): Promise<Plan> {
    return (await practice.findPlan(this.db, this.person, key)) ?? error(404, 'This plan is not here any more.');
  }

  /** A plan with all that was practised of it. */
  async state(key: string): Promise<PracticeState> {
    const plan = await this.plan(key);
    return {
      plan,
      visits: await practice.visitsOf(this.db, this.person, key),
      mocks: await practice.mocksOf(this.db, this.person, key)
    };
  }

  async keepPlan(key: string, content: PlanContent): Promise<void> {
    const known = await practice.findPlan(this.db, this.person, key);
    if (!known && (await practice.countPlans(this.db, this.person)) >= LIMITS.plans)
      error(409, `A studio has at most ${LIMITS.plans} plans; take one away that is over.`);
    await practice.keepPlan(this.db, this.person, key, content);
  }

  /** @returns the plan with the change and with all that other windows have changed */
  async changePlan(key: string, change: PlanChange): Promise<Plan> {
    const check = (content: PlanContent): void => void valid(planContent, content, 'The plan');
    return (await practice.changePlan(this.db, this.person, key, change, check)) ?? error(404, 'This plan is not here any more.');
  }

  async removePlan(key: string): Promise<void> {
    if (!(await practice.removePlan(this.db, this.person, key))) error(404, 'This plan is not here any more.');
  }

  /** What was practised is kept even where its plan is gone: it may have been taken away while the player was offline. */
  addVisit(plan: string, id: string, visit: VisitContent): Promise<void> {
    return practice.addToLog(this.db, this.person, plan, 'visit', id, visit);
  }

  addMock(plan: string, id: string, mock: MockContent): Promise<void> {
    return practice.addToLog(this.db, this.person, plan, 'mock', id, mock);
  }

  /** Keeps the notes of a task. @throws a refusal where they cannot be read */
  async keepSheet(key: string, document: string): Promise<void> {
    await runTask('sheet', { document });
    await practice.keepSheet(this.db, this.person, key, document);
  }

  async sheet(key: string): Promise<string> {
    return (await practice.findSheet(this.db, this.person, key)) ?? error(404, 'This sheet is not here.');
  }

  /** The sheets of a plan's tasks with their reasons, as one PDF. */
  async book(key: string, parts: BookPart[], today: Day, progress: Progress, signal: AbortSignal): Promise<Uint8Array> {
    const plan = await this.plan(key);
    const sheets: Record<string, string> = {};
    for (const { kind, sheet } of plan.tasks)
      if (sheet && (kind === 'drill' || kind === 'passage' || kind === 'own'))
        sheets[sheet] = (await practice.findSheet(this.db, this.person, sheet)) ?? '';
    const days = planDays(plan, await practice.visitsOf(this.db, this.person, key), today).days;
    const players = await listPlayers(this.db, this.person);
    const player = players.find((p) => p.key === plan.player)?.name ?? '';
    return runTask('book', { plan, player, days, parts, sheets }, progress, signal);
  }
}
