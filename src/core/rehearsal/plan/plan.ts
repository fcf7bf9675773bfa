import type { DrillKind } from '../../style/drills.ts';
import type { CheckKind } from '../../style/practice.ts';
import type { DrillSettings } from '../context.ts';
import type { Day } from './day.ts';

/** What a plan leads to. Before a lesson new things may be begun to the last; before the others not. */
export const OCCASIONS = { lesson: 'lesson', jury: 'jury', audition: 'audition', concert: 'concert' } as const;
export type Occasion = keyof typeof OCCASIONS;
export const isPerformance = (occasion: Occasion): boolean => occasion !== 'lesson';

/** A piece that a plan is for. */
export interface PlanPiece {
  /** Number of the piece, and of the reading that is practised. */
  id: number;
  reading: number;
  title: string;
  /** Seconds that it lasts as it is read. */
  seconds: number;
  /** Quarters a minute from which to which it is asked for; null where nothing is asked. */
  tempo: { low: number; high: number } | null;
  /** What is left out or begins elsewhere, in the teacher's words. */
  cuts: string;
}

export const TASK_KINDS = {
  passage: 'passage',
  drill: 'drill',
  run: 'run-through',
  'slow-run': 'slow run-through',
  listen: 'listening',
  own: 'task'
} as const;
export type TaskKind = keyof typeof TASK_KINDS;

/** Something to be practised, again and again until the date. */
export interface Task {
  /** Its name in the plan, given once. */
  key: string;
  kind: TaskKind;
  piece: number;
  title: string;
  because: string;
  how: string;
  /** Measures of the piece, both included; null for all of it. */
  bars: { from: number; to: number } | null;
  /** From 0 to 1: the hardest of its bars. */
  difficulty: number;
  /** Minutes of one visit. */
  minutes: number;
  /** Quarters a minute on the metronome's scale; null where there is no ladder. */
  tempo: { start: number; goal: number } | null;
  /** What it was made by, so that it can be made anew otherwise. */
  drill: { kind: DrillKind; settings: Partial<DrillSettings> } | null;
  /** Its notes, kept as they were handed out; null where the edition itself is played from. */
  sheet: string | null;
  /** Loud and high: it is for short portions. */
  loudHigh: boolean;
}

/** A task that was dragged from one day to another. */
export interface Move {
  task: string;
  from: Day;
  to: Day;
}

/** What a section is looked over for; a tick is the day on which it was well. */
export interface Check {
  key: string;
  kind: CheckKind | null;
  text: string;
  ticks: Day[];
}

export interface CheckSection {
  key: string;
  piece: number;
  title: string;
  checks: Check[];
}

/** Tunes that are played one after the other. */
export interface TuneSet {
  key: string;
  name: string;
  /** The one tempo of all, in quarters a minute; null where it is not settled. */
  tempo: number | null;
  tunes: SetEntry[];
}

export interface SetEntry {
  piece: number;
  title: string;
  /** How often it is played, and what is played otherwise the second time. */
  times: number;
  second: string;
  /** How one goes into it, and the sheet of that join. */
  join: string;
}

/** Practice of one player until a date. */
export interface Plan {
  key: string;
  /** Key of the player, as players are known; null for nobody in particular. */
  player: string | null;
  title: string;
  occasion: Occasion;
  begins: Day;
  date: Day;
  /** Minutes a day, and weekdays without practice, 0 Sunday to 6 Saturday. */
  minutes: number;
  rest: number[];
  pieces: PlanPiece[];
  tasks: Task[];
  moves: Move[];
  checklist: CheckSection[];
  sets: TuneSet[];
  /** Where to be sure rather than grand, in one sentence. */
  strategy: string;
  /** Pain was said: nothing is planned until this is taken back. */
  stopped: boolean;
}

/** A plan without anything in it yet. */
export const newPlan = (key: string, player: string | null, title: string, begins: Day, date: Day): Plan => ({
  key,
  player,
  title,
  occasion: 'lesson',
  begins,
  date,
  minutes: 30,
  rest: [0],
  ...{ pieces: [], tasks: [], moves: [], checklist: [], sets: [] },
  strategy: '',
  stopped: false
});

/** What is said of a plan, without its name. */
export type PlanContent = Omit<Plan, 'key'>;
export const planContentOf = ({ key: _, ...content }: Plan): PlanContent => content;

/** The tasks of a plan in the order of its pieces and bars; what is of the whole piece comes last. */
export function inPlanOrder(plan: Plan): Task[] {
  const place = new Map(plan.pieces.map((p, k) => [p.id, k]));
  const at = (t: Task): number => t.bars?.from ?? Infinity;
  return [...plan.tasks].sort(
    (a, b) =>
      (place.get(a.piece) ?? 99) - (place.get(b.piece) ?? 99) || (at(a) === at(b) ? 0 : at(a) - at(b)) || a.title.localeCompare(b.title)
  );
}
