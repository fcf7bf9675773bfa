import { PRACTICE as W } from '../../style/practice.ts';
import { addDays, daysBetween, daysFrom, weekday, type Day } from './day.ts';
import { isPerformance, type Plan, type Task } from './plan.ts';
import { dueDay, Spacing } from './spacing.ts';
import { eachOnce, type Visit } from './visit.ts';

/** Why a task stands on a day. */
export const PLANNED = {
  moved: 'put here by hand',
  new: 'new today',
  due: 'due again',
  more: 'to keep it',
  run: 'run-through',
  'slow-run': 'slow run-through'
} as const;
export type PlannedWhy = keyof typeof PLANNED;

export interface PlannedItem {
  task: string;
  minutes: number;
  why: PlannedWhy;
}

export interface PlannedDay {
  day: Day;
  kind: 'practice' | 'rest' | 'performance';
  items: PlannedItem[];
}

export interface PlannedDays {
  days: PlannedDay[];
  /** What found no place, and why. */
  left: { task: string; because: string }[];
}

/** What a day can hold before it is filled. */
interface Open {
  day: Day;
  free: number;
  items: PlannedItem[];
  /** Whether new things may be begun. */
  begins: boolean;
  last: boolean;
}

const isRun = (t: Task): boolean => t.kind === 'run' || t.kind === 'slow-run';

/**
 * What is practised on which day, from today until the date. Handbook 21.2: spread and alternating, difficult first,
 * easy runs last, nothing new in the last two days before a performance. Worked out anew from what really happened.
 */
export function planDays(plan: Plan, visits: readonly Visit[], today: Day): PlannedDays {
  const performance = isPerformance(plan.occasion);
  const from = plan.begins > today ? plan.begins : today;
  const until = performance ? addDays(plan.date, -1) : plan.date;
  const all = daysFrom(from, plan.date);
  if (plan.stopped || !all.length) return { days: all.map((day) => frame(plan, day, performance)), left: [] };
  const own = eachOnce(visits).filter((v) => v.plan === plan.key && v.day <= today);
  const spacing = new Spacing(daysBetween(from, plan.date));
  const cards = new Map(
    plan.tasks.map((t) => [
      t.key,
      spacing.history(
        own.filter((v) => v.task === t.key),
        t.tempo?.goal ?? null
      )
    ])
  );
  /** What was done today already is not planned again, and its minutes are gone. */
  const doneToday = new Set(own.filter((v) => v.day === today).map((v) => v.task));
  const spent = own.filter((v) => v.day === today).reduce((n, v) => n + v.seconds / 60, 0);
  const begunToday = [...doneToday].filter((task) => !own.some((v) => v.task === task && v.day < today)).length;
  const open: Open[] = all
    .filter((day) => day <= until && !plan.rest.includes(weekday(day)))
    .map((day) => ({
      day,
      free: Math.max(0, Math.floor(day === today ? plan.minutes - spent : plan.minutes)),
      items: [],
      begins: mayBegin(plan, day),
      last: performance && !mayBegin(plan, day)
    }));
  const started = new Set([...cards].flatMap(([key, card]) => (card ? key : [])));
  const pins = placeMoves(plan, open, today, started);
  const waiting = plan.tasks.filter((t) => !isRun(t) && !started.has(t.key)).sort((a, b) => b.difficulty - a.difficulty);
  const begun = new Set(started);
  const runsFrom = Math.floor(open.length * W.runsFrom);
  const begins = open.filter((o) => o.begins);
  const within = Math.max(1, Math.ceil(begins.length * W.beginsWithin));
  let sinceRun: number = W.runsEvery;

  open.forEach((o, k) => {
    const put = (t: Task, why: PlannedWhy, least = t.minutes): boolean => {
      if (o.free < least || o.items.some((i) => i.task === t.key) || (o.day === today && doneToday.has(t.key))) return false;
      const minutes = Math.min(t.minutes, o.free);
      o.items.push({ task: t.key, minutes, why });
      o.free -= minutes;
      return true;
    };
    const kept = (t: Task): boolean => pins.some((p) => p.task === t.key && ((p.from <= o.day && o.day < p.to) || p.from === o.day));
    for (const i of o.items) begun.add(i.task);

    if (o.begins) {
      const open = waiting.filter((t) => !begun.has(t.key) && !pins.some((p) => p.task === t.key && p.to > o.day));
      // Other bars before more of the same ones, as far as there is a choice.
      const left = spread(open, (t) => crowded(t, o));
      const at = begins.indexOf(o);
      const later = begins.slice(at + 1).reduce((n, x) => n + Math.floor(x.free / W.least), 0);
      const even = Math.ceil(left.length / Math.max(1, within - at));
      const count = Math.min(left.length, Math.max(even, left.length - later));
      const some = left.slice(0, count);
      // All that must begin today gets its least first; what is left over goes to the hardest.
      const reserve = (n: number): number => (some.length - n - 1) * W.least;
      some.forEach((t, n) => {
        const room = Math.max(W.least, o.free - reserve(n));
        if (o.free < W.least) return;
        if (put({ ...t, minutes: Math.min(t.minutes, room) }, 'new', W.least)) begun.add(t.key);
      });
    }
    const runs = plan.tasks.filter((t) => t.kind === (o.last ? 'slow-run' : 'run') && !kept(t));
    const wantsRun = runs.length > 0 && (o.last || (k >= runsFrom && sinceRun >= W.runsEvery));
    // The longest wait comes first; run-throughs stand at the end of the day but their minutes are kept for them.
    const known = plan.tasks.filter((t) => !isRun(t) && begun.has(t.key) && cards.get(t.key) && !kept(t));
    const due = known.filter((t) => dueDay(cards.get(t.key)!) <= o.day).sort((a, b) => value(b, o.day) - value(a, o.day));
    const placeRuns = (): void => {
      if (!wantsRun) return;
      const turn = [...runs].sort((a, b) => (cards.get(a.key)?.due.getTime() ?? 0) - (cards.get(b.key)?.due.getTime() ?? 0));
      const did = turn.filter((t) => put(t, o.last ? 'slow-run' : 'run'));
      if (did.length) sinceRun = 0;
    };
    if (o.last) placeRuns();
    // The run has its minutes before all that is due takes them.
    for (const t of due.slice(0, Math.ceil(due.length / 2))) if (!crowded(t, o)) put(t, 'due', W.least);
    if (!o.last) placeRuns();
    for (const t of due) if (!crowded(t, o)) put(t, 'due', W.least);
    // Minutes that are left begin new things early; then they go to what was longest away, and only then to what was played yesterday.
    if (o.begins)
      for (const t of waiting) {
        const fresh = o.items.filter((i) => i.why === 'new').length + (o.day === today ? begunToday : 0);
        if (fresh >= W.mostNew) break;
        const later = pins.some((p) => p.task === t.key && p.to > o.day);
        if (!begun.has(t.key) && !later && !crowded(t, o) && put(t, 'new')) begun.add(t.key);
      }
    const rest = known
      .filter((t) => !o.items.some((i) => i.task === t.key))
      .sort((a, b) => daysSince(b, o.day) - daysSince(a, o.day) || b.difficulty - a.difficulty);
    for (const least of [W.apart, 1]) for (const t of rest) if (daysSince(t, o.day) >= least && !crowded(t, o)) put(t, 'more');
    sinceRun++;
    for (const i of o.items) {
      const task = plan.tasks.find((t) => t.key === i.task);
      if (task) cards.set(i.task, spacing.after(cards.get(i.task) ?? null, o.day, 'good'));
    }
    o.items = inDayOrder(o.items, plan);
  });

  /** Whether a day has as much on the bars of a task as is good. */
  function crowded(t: Task, o: Open): boolean {
    const there = o.items.filter((i) =>
      overlap(
        t,
        plan.tasks.find((x) => x.key === i.task)
      )
    );
    return there.length >= W.sameBars;
  }
  function value(t: Task, day: Day): number {
    const card = cards.get(t.key);
    return (card ? 1 - spacing.known(card, day) : 1) + t.difficulty;
  }
  function daysSince(t: Task, day: Day): number {
    const last = cards.get(t.key)?.last_review;
    return last ? daysBetween(new Date(last).toISOString().slice(0, 10), day) : 1;
  }

  const byDay = new Map(open.map((o) => [o.day, o]));
  const days = all.map((day): PlannedDay => {
    const o = byDay.get(day);
    return o ? { day, kind: 'practice', items: o.items } : frame(plan, day, performance);
  });
  return { days, left: leftOver(plan, days, started) };
}

const frame = (plan: Plan, day: Day, performance: boolean): PlannedDay => ({
  day,
  kind: performance && day === plan.date ? 'performance' : plan.stopped || plan.rest.includes(weekday(day)) ? 'rest' : 'practice',
  items: []
});

/** Whether two tasks are on the same bars. */
const overlap = (a: Task, b: Task | undefined): boolean =>
  b !== undefined && a.piece === b.piece && a.bars !== null && b.bars !== null && a.bars.from <= b.bars.to && b.bars.from <= a.bars.to;

/** In the same order, with each that has the bars of two before it put behind the others. */
function spread(tasks: readonly Task[], crowded: (t: Task) => boolean): Task[] {
  const first: Task[] = [];
  const later: Task[] = [];
  for (const t of tasks) (crowded(t) || first.filter((x) => overlap(t, x)).length >= W.sameBars ? later : first).push(t);
  return [...first, ...later];
}

/** Whether new things may be begun on a day. */
export const mayBegin = (plan: Plan, day: Day): boolean => !isPerformance(plan.occasion) || daysBetween(day, plan.date) > W.nothingNew;

/** Puts what was dragged where it was dragged to. @returns the moves that hold */
function placeMoves(plan: Plan, open: Open[], today: Day, started: ReadonlySet<string>): Plan['moves'] {
  const held = plan.moves.filter((m) => m.to >= today && open.some((o) => o.day === m.to));
  return held.filter((m) => {
    const o = open.find((x) => x.day === m.to)!;
    const task = plan.tasks.find((t) => t.key === m.task);
    const minutes = Math.min(task?.minutes ?? 0, o.free);
    // The date may have come nearer since.
    const fits = o.begins || task?.kind === 'slow-run' || (task?.kind !== 'run' && started.has(m.task));
    if (o.items.some((i) => i.task === m.task)) return true;
    if (!task || !fits || minutes < W.least) return false;
    o.items.push({ task: m.task, minutes, why: 'moved' });
    o.free -= minutes;
    return true;
  });
}

/** What is hard comes first, listening between, run-throughs last. */
function inDayOrder(items: readonly PlannedItem[], plan: Plan): PlannedItem[] {
  const tasks = new Map(plan.tasks.map((t) => [t.key, t]));
  const rank = (i: PlannedItem): number => {
    const t = tasks.get(i.task);
    return !t ? 0 : isRun(t) ? -2 : t.kind === 'listen' ? -1 : t.difficulty;
  };
  return [...items].sort((a, b) => rank(b) - rank(a));
}

function leftOver(plan: Plan, days: readonly PlannedDay[], started: ReadonlySet<string>): PlannedDays['left'] {
  const placed = new Set(days.flatMap((d) => d.items.map((i) => i.task)));
  const can = days.some((d) => d.kind === 'practice' && mayBegin(plan, d.day));
  return plan.tasks.flatMap((t) => {
    if (placed.has(t.key) || started.has(t.key)) return [];
    if (isRun(t) && t.minutes > plan.minutes) return [{ task: t.key, because: `it takes ${t.minutes} minutes, a day has ${plan.minutes}` }];
    if (isRun(t)) return [];
    return [{ task: t.key, because: can ? 'the minutes until the date are full' : 'it is too late to begin something new' }];
  });
}
