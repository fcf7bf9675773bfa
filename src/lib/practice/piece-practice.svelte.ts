import { nanoid } from 'nanoid';
import { addDays, dayOf } from '$core/rehearsal/plan/day';
import { newPlan, type Plan, type PlanPiece, type Task } from '$core/rehearsal/plan/plan';
import { api } from '../api';
import type { TaskWish } from '../workspace/study-service';
import { sentenceOf } from '../workspace/latest';
import type { Workspace } from '../workspace/workspace.svelte';
import { sharedOutbox } from './outbox.svelte';
import { Practice } from './practice.svelte';

/** Days until the lesson of a plan that is begun by a task alone. */
const NEXT_LESSON = 7;

/** The plans that a piece is practised in, and the one that its tasks go to. */
export class PiecePractice {
  /** All plans; null until they are known. */
  plans = $state.raw<Plan[] | null>(null);
  /** The plan that is open here. */
  open = $state.raw<Practice | null>(null);
  busy = $state(false);
  readonly outbox = sharedOutbox();

  constructor(private readonly workspace: Workspace) {}

  get pieceId(): number {
    return this.workspace.data.pieceId;
  }

  /** Plans that this piece is in and that are not over, the soonest first. */
  get own(): Plan[] {
    const today = dayOf(new Date());
    const known = (this.plans ?? []).map((p) => (p.key === this.open?.plan.key ? this.open.plan : p));
    const mine = known.filter((p) => p.date >= today && p.pieces.some((x) => x.id === this.pieceId));
    return mine.sort((a, b) => a.date.localeCompare(b.date));
  }

  /** Fetches the plans, and opens the one that tasks go to: of whom the reading is for, if there is one. */
  async need(): Promise<void> {
    if (this.plans) return;
    try {
      const plans = await api.plans();
      this.plans ??= plans;
      const { player } = this.workspace.reading;
      const isTheirs = (p: Plan): boolean => player !== null && p.player === player.key;
      const today = dayOf(new Date());
      const wanted = this.own.find(isTheirs) ?? this.own[0] ?? plans.find((p) => isTheirs(p) && p.date >= today);
      if (wanted && !this.open) await this.choose(wanted.key);
    } catch (error) {
      this.workspace.notice = sentenceOf(error);
    }
  }

  async choose(key: string): Promise<void> {
    try {
      this.open = new Practice(await api.practiceState(key), this.outbox);
    } catch (error) {
      this.workspace.notice = sentenceOf(error);
    }
  }

  /** Begins a plan with this piece in it: its hard places, run-throughs and a checklist. */
  async begin(about: Pick<Plan, 'title' | 'player' | 'occasion' | 'date' | 'minutes' | 'rest'>): Promise<void> {
    this.busy = true;
    const plan: Plan = { ...newPlan(nanoid(), about.player, about.title, dayOf(new Date()), about.date), ...about };
    const practice = Practice.begun(plan, this.outbox);
    this.plans = [...(this.plans ?? []), plan];
    this.open = practice;
    await this.join(practice);
    this.busy = false;
  }

  /** Takes this piece into the open plan. */
  async join(practice: Practice): Promise<void> {
    const start = await this.workspace.study.planStart(this.asPiece());
    if (!start) return;
    const { piece } = start;
    await practice.add(start.tasks, {
      pieces: [...practice.plan.pieces.filter((p) => p.id !== piece.id), piece],
      checklist: [
        ...practice.plan.checklist,
        ...start.sections.map((s) => ({
          key: nanoid(),
          piece: piece.id,
          title: `${piece.title}: ${s.title}`,
          checks: s.checks.map((c) => ({ ...c, key: nanoid(), ticks: [] }))
        }))
      ]
    });
  }

  /** Makes a task in one act: in the open plan, or in a new one until the next lesson. */
  async toTask(wish: TaskWish): Promise<Task | null> {
    await this.need();
    // As long as the plans are not known, none is begun beside them.
    if (!this.plans) return null;
    const made = await this.workspace.study.task(this.pieceId, wish);
    if (!made) return null;
    const practice = this.open ?? this.untilTheLesson();
    const more = practice.plan.pieces.some((p) => p.id === this.pieceId) ? {} : { pieces: [...practice.plan.pieces, this.asPiece()] };
    const [task] = await practice.add([made], more);
    if (!task) {
      this.workspace.notice = practice.fault;
      return null;
    }
    this.workspace.notice = `In the plan “${practice.plan.title}”: ${task.title}.`;
    return task;
  }

  private untilTheLesson(): Practice {
    const today = dayOf(new Date());
    const { player } = this.workspace.reading;
    const plan = newPlan(
      nanoid(),
      player?.key ?? null,
      `${player?.name ?? 'Practice'} until the next lesson`,
      today,
      addDays(today, NEXT_LESSON)
    );
    this.plans = [...(this.plans ?? []), plan];
    this.open = Practice.begun(plan, this.outbox);
    return this.open;
  }

  private asPiece(): PlanPiece {
    const { workspace } = this;
    return {
      id: this.pieceId,
      reading: workspace.data.readingId,
      title: workspace.score?.title || 'The piece',
      seconds: Math.round(workspace.playing.performed?.plan.length ?? 0),
      tempo: null,
      cuts: ''
    };
  }
}
