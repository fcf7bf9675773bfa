import { nanoid } from 'nanoid';
import { mockContentOf, type Mock } from '$core/rehearsal/audition';
import { changedPlan, isNothing, planChange, type PlanChange } from '$core/rehearsal/plan/change';
import { dayOf, type Day } from '$core/rehearsal/plan/day';
import { planDays } from '$core/rehearsal/plan/days';
import { moved } from '$core/rehearsal/plan/moves';
import { planContentOf, type Plan, type PlanContent, type Task } from '$core/rehearsal/plan/plan';
import type { TaskWithSheet } from '$core/rehearsal/plan/sheets';
import { eachOnce, visitContentOf, type Visit } from '$core/rehearsal/plan/visit';
import { api } from '../api';
import type { PracticeState } from '../shapes';
import { Undo } from '../undo.svelte';
import type { Outbox } from './outbox.svelte';

interface Step {
  before: Plan;
  after: Plan;
}

/** One plan in this window: every change is kept at once and can be undone; the days are worked out anew with each. */
export class Practice {
  plan = $state.raw<Plan>() as Plan;
  visits = $state.raw<Visit[]>([]);
  mocks = $state.raw<Mock[]>([]);
  /** Why something could not be done, in one sentence. */
  fault = $state<string | null>(null);
  /** The day that it is here. */
  today = $state<Day>(dayOf(new Date()));
  private readonly steps = new Undo<Step>();
  readonly days = $derived.by(() => planDays(this.plan, this.visits, this.today));
  readonly tasks = $derived.by(() => new Map(this.plan.tasks.map((t) => [t.key, t])));

  constructor(
    state: PracticeState,
    private readonly outbox: Outbox
  ) {
    this.take(state);
  }

  /** Takes over what the server has, with what this browser still has to send. */
  private take({ plan, visits, mocks }: PracticeState): void {
    const letters = this.outbox.waitingFor(api.planAddress(plan.key));
    const named = <T>(of: string): T[] =>
      letters.flatMap((l) => {
        const id = l.address.split(`/${of}/`)[1];
        return id ? ({ ...(l.body as object), id: decodeURIComponent(id), plan: plan.key } as T) : [];
      });
    this.plan = letters.reduce((p, l) => (l.method === 'PATCH' ? changedPlan(p, l.body as PlanChange) : p), plan);
    this.visits = eachOnce([...visits, ...named<Visit>('visits')]);
    const sent = new Set(mocks.map((m) => m.id));
    this.mocks = [...mocks, ...named<Mock>('mocks').filter((m) => !sent.has(m.id))];
  }

  /** Looks what other windows have done meanwhile, and which day it is. */
  async refresh(): Promise<void> {
    this.today = dayOf(new Date());
    // Without an answer it stays as it is here.
    const state = await api.practiceState(this.plan.key).catch(() => null);
    if (state) this.take(state);
  }

  /** A plan that is not kept anywhere yet. */
  static begun(plan: Plan, outbox: Outbox): Practice {
    outbox.post('PUT', api.planAddress(plan.key), planContentOf(plan));
    return new Practice({ plan, visits: [], mocks: [] }, outbox);
  }

  get canUndo(): boolean {
    return this.steps.canUndo;
  }

  get canRedo(): boolean {
    return this.steps.canRedo;
  }

  change(change: Partial<PlanContent>): void {
    this.fault = null;
    const step = { before: this.plan, after: { ...this.plan, ...change } };
    if (isNothing(planChange(step.before, step.after))) return;
    this.steps.add(step);
    this.carry(step);
  }

  changeTask(key: string, change: Partial<Task>): void {
    this.change({ tasks: this.plan.tasks.map((t) => (t.key === key ? { ...t, ...change } : t)) });
  }

  removeTask(key: string): void {
    this.change({ tasks: this.plan.tasks.filter((t) => t.key !== key), moves: this.plan.moves.filter((m) => m.task !== key) });
  }

  /** Adds tasks with their notes. @returns once the notes are kept; where they cannot be, nothing is added and why is told */
  async add(tasks: readonly TaskWithSheet[], more: Partial<PlanContent> = {}): Promise<Task[]> {
    try {
      const made: Task[] = [];
      for (const { task, document } of tasks) {
        const sheet = document === null ? null : nanoid();
        if (sheet) await api.keepSheet(sheet, document!);
        made.push({ ...task, key: nanoid(), sheet });
      }
      this.change({ ...more, tasks: [...this.plan.tasks, ...made] });
      return made;
    } catch (error) {
      this.fault = error instanceof Error ? error.message : String(error);
      return [];
    }
  }

  /** Drags a task to another day; why it cannot be is told. */
  move(task: string, from: Day, to: Day): void {
    const next = moved(this.plan, this.visits, this.today, task, from, to);
    this.fault = typeof next === 'string' ? next : null;
    if (typeof next !== 'string') this.change({ moves: next.moves });
  }

  log(visit: Omit<Visit, 'plan'>): void {
    const whole = { ...visit, plan: this.plan.key };
    this.visits = eachOnce([...this.visits, whole]);
    this.outbox.post('PUT', api.visitAddress(this.plan.key, visit.id), visitContentOf(whole));
    if (visit.pain && !this.plan.stopped) this.change({ stopped: true });
  }

  logMock(mock: Omit<Mock, 'plan'>): void {
    const whole = { ...mock, plan: this.plan.key };
    this.mocks = [...this.mocks.filter((m) => m.id !== mock.id), whole];
    this.outbox.post('PUT', api.mockAddress(this.plan.key, mock.id), mockContentOf(whole));
  }

  undo(): void {
    const step = this.steps.back();
    if (step) this.carry({ before: step.after, after: step.before });
  }

  redo(): void {
    const step = this.steps.again();
    if (step) this.carry(step);
  }

  /** Takes the change over, not the state: what came from elsewhere meanwhile stays. */
  private carry({ before, after }: Step): void {
    const change = planChange(before, after);
    this.plan = changedPlan(this.plan, change);
    this.outbox.post('PATCH', api.planAddress(this.plan.key), change, (plan) => {
      // What this window has done since is on its way.
      if (this.outbox.waiting <= 1) this.plan = plan;
    });
  }
}
