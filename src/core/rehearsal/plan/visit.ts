import { PRACTICE as W } from '../../style/practice.ts';
import type { Day } from './day.ts';

/** How it went, where the player says so. */
export const FELT = { again: 'not yet', hard: 'hard', good: 'well', easy: 'easily' } as const;
export type Felt = keyof typeof FELT;

/** One visit to a task as it really was: what a session leaves behind. */
export interface Visit {
  /** Given by the window that made it, so that what is sent twice stands once. */
  id: string;
  plan: string;
  task: string;
  /** The session that it belongs to. */
  session: string;
  day: Day;
  seconds: number;
  /** Where the ladder began, where it ended, and the quickest tempo that was clean often enough; null without a ladder. */
  ladder: { start: number; end: number; best: number | null } | null;
  clean: number;
  missed: number;
  felt: Felt | null;
  /** What was hard, and own words. */
  hard: string;
  words: string;
  pain: boolean;
}

/** What is said of a visit, without its name and its plan. */
export type VisitContent = Omit<Visit, 'id' | 'plan'>;
export const visitContentOf = ({ id: _id, plan: _plan, ...content }: Visit): VisitContent => content;

/** How well a task was known at a visit: what the player said, else what the counts and the ladder say. */
export function feltAt(visit: Visit, goal: number | null): Felt {
  if (visit.felt) return visit.felt;
  const tries = visit.clean + visit.missed;
  if (tries && visit.missed / tries >= W.missed) return 'again';
  if (!visit.ladder) return 'good';
  if (visit.ladder.best === null || visit.ladder.end < visit.ladder.start) return 'hard';
  return goal !== null && visit.ladder.best >= goal ? 'easy' : 'good';
}

/** Each visit once: the first that came with its name stands. */
export function eachOnce(visits: readonly Visit[]): Visit[] {
  const known = new Map<string, Visit>();
  for (const v of visits) if (!known.has(v.id)) known.set(v.id, v);
  return [...known.values()];
}

/** A player's way with one task over the days: the quickest clean tempo, clean runs and minutes of each. */
export interface TaskDay {
  day: Day;
  start: number | null;
  best: number | null;
  clean: number;
  missed: number;
  minutes: number;
}

export function taskDays(visits: readonly Visit[], task: string): TaskDay[] {
  const days = new Map<Day, TaskDay>();
  for (const v of visits) {
    if (v.task !== task) continue;
    const d = days.get(v.day) ?? { day: v.day, start: null, best: null, clean: 0, missed: 0, minutes: 0 };
    const best = Math.max(d.best ?? 0, v.ladder?.best ?? 0) || null;
    days.set(v.day, {
      ...d,
      start: d.start ?? v.ladder?.start ?? null,
      best,
      clean: d.clean + v.clean,
      missed: d.missed + v.missed,
      minutes: d.minutes + v.seconds / 60
    });
  }
  return [...days.values()].sort((a, b) => a.day.localeCompare(b.day));
}

/** The quickest clean tempo of a task before today; null where there was none. */
export const bestBefore = (visits: readonly Visit[], task: string, today: Day): number | null =>
  taskDays(visits, task).findLast((d) => d.day < today && d.best !== null)?.best ?? null;
