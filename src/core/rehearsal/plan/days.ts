import { PRACTICE as W } from '../../style/practice.ts';
import { addDays, daysBetween, daysFrom, weekday, type Day } from './day.ts';
import { isPerformance, type Plan, type Task } from './plan.ts';
import { dueDay, lastDay, Spacing, type Card } from './spacing.ts';
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
  const all = daysFrom(from, plan.date);
  if (plan.stopped || !all.length) return { days: all.map((day) => frame(plan, day, performance)), left: [] };
  const own = eachOnce(visits).filter((v) => v.plan === plan.key && v.day <= today);
  const filling = new Filling(plan, own, today, all);
  const filled = new Map(filling.fill().map((o) => [o.day, o.items]));
  const days = all.map((day): PlannedDay => {
    const items = filled.get(day);
    return items ? { day, kind: 'practice', items } : frame(plan, day, performance);
  });
  return { days, left: leftOver(plan, days, filling.started) };
}

/** The days of a plan while they are filled, one after the other; each knows what those before it have begun. */
class Filling {
  /** Tasks that were practised before. */
  readonly started: ReadonlySet<string>;
  private readonly byKey: ReadonlyMap<string, Task>;
  private readonly spacing: Spacing;
  /** What is known of each task, as if all went well from now on. */
  private readonly cards = new Map<string, Card | null>();
  private readonly open: Open[];
  private readonly beginning: Open[];
  private readonly pins: Plan['moves'];
  /** Tasks that are not begun, the hardest first. */
  private readonly waiting: Task[];
  private readonly begun: Set<string>;
  private readonly doneToday: ReadonlySet<string>;
  private readonly begunToday: number;
  private sinceRun: number = W.runsEvery;

  constructor(
    private readonly plan: Plan,
    own: readonly Visit[],
    private readonly today: Day,
    days: readonly Day[]
  ) {
    const performance = isPerformance(plan.occasion);
    const until = performance ? addDays(plan.date, -1) : plan.date;
    this.byKey = new Map(plan.tasks.map((t) => [t.key, t]));
    this.spacing = new Spacing(daysBetween(days[0], plan.date));
    for (const t of plan.tasks) {
      const mine = own.filter((v) => v.task === t.key);
      this.cards.set(t.key, this.spacing.history(mine, t.tempo?.goal ?? null));
    }
    // What was done today already is not planned again, and its minutes are gone.
    this.doneToday = new Set(own.filter((v) => v.day === today).map((v) => v.task));
    this.begunToday = [...this.doneToday].filter((task) => !own.some((v) => v.task === task && v.day < today)).length;
    const spent = own.filter((v) => v.day === today).reduce((n, v) => n + v.seconds / 60, 0);
    this.open = days
      .filter((day) => day <= until && !plan.rest.includes(weekday(day)))
      .map((day) => ({
        day,
        free: Math.max(0, Math.floor(day === today ? plan.minutes - spent : plan.minutes)),
        items: [],
        begins: mayBegin(plan, day),
        last: performance && !mayBegin(plan, day)
      }));
    this.beginning = this.open.filter((o) => o.begins);
    this.started = new Set([...this.cards].flatMap(([key, card]) => (card ? key : [])));
    this.begun = new Set(this.started);
    this.pins = placeMoves(plan, this.open, today, this.started);
    this.waiting = plan.tasks.filter((t) => !isRun(t) && !this.started.has(t.key)).sort((a, b) => b.difficulty - a.difficulty);
  }

  fill(): Open[] {
    const runsFrom = Math.floor(this.open.length * W.runsFrom);
    this.open.forEach((o, k) => {
      for (const i of o.items) this.begun.add(i.task);
      if (o.begins) this.begin(o);
      const runs = o.last || (k >= runsFrom && this.sinceRun >= W.runsEvery);
      if (o.last) this.runThrough(o);
      const due = this.due(o);
      // The run has its minutes before all that is due takes them.
      this.putAll(o, due.slice(0, Math.ceil(due.length / 2)), 'due', W.least);
      if (runs && !o.last) this.runThrough(o);
      this.putAll(o, due, 'due', W.least);
      // Minutes that are left begin new things early; then they go to what was longest away.
      if (o.begins) this.beginEarly(o);
      this.keepUp(o);
      this.sinceRun++;
      for (const i of o.items)
        if (this.byKey.has(i.task)) this.cards.set(i.task, this.spacing.after(this.cards.get(i.task) ?? null, o.day, 'good'));
      o.items = inDayOrder(o.items, this.byKey);
    });
    return this.open;
  }

  private put(o: Open, t: Task, why: PlannedWhy, least: number, most = t.minutes): boolean {
    if (o.free < least || o.items.some((i) => i.task === t.key) || (o.day === this.today && this.doneToday.has(t.key))) return false;
    const minutes = Math.min(most, o.free);
    o.items.push({ task: t.key, minutes, why });
    o.free -= minutes;
    return true;
  }

  private putAll(o: Open, tasks: readonly Task[], why: PlannedWhy, least?: number): void {
    for (const t of tasks) if (!this.crowded(t, o)) this.put(o, t, why, least ?? t.minutes);
  }

  /** Begins as many new things as must be, so that all find their day. */
  private begin(o: Open): void {
    const open = this.waiting.filter((t) => !this.begun.has(t.key) && !this.isLater(t, o));
    // Other bars before more of the same ones, as far as there is a choice.
    const left = spread(open, (t) => this.crowded(t, o));
    const at = this.beginning.indexOf(o);
    const later = this.beginning.slice(at + 1).reduce((n, x) => n + Math.floor(x.free / W.least), 0);
    const within = Math.max(1, Math.ceil(this.beginning.length * W.beginsWithin));
    const even = Math.ceil(left.length / Math.max(1, within - at));
    const some = left.slice(0, Math.max(even, left.length - later));
    // All that must begin today gets its least first; what is left over goes to the hardest.
    some.forEach((t, n) => {
      const room = Math.max(W.least, o.free - (some.length - n - 1) * W.least);
      if (this.put(o, t, 'new', W.least, Math.min(t.minutes, room))) this.begun.add(t.key);
    });
  }

  private beginEarly(o: Open): void {
    let fresh = o.items.filter((i) => i.why === 'new').length + (o.day === this.today ? this.begunToday : 0);
    for (const t of this.waiting) {
      if (fresh >= W.mostNew) return;
      if (this.begun.has(t.key) || this.isLater(t, o) || this.crowded(t, o) || !this.put(o, t, 'new', t.minutes)) continue;
      this.begun.add(t.key);
      fresh++;
    }
  }

  /** The run that waits longest, or, in the last days, all of them slowly. */
  private runThrough(o: Open): void {
    const runs = this.plan.tasks.filter((t) => t.kind === (o.last ? 'slow-run' : 'run') && !this.keptAway(t, o));
    const wait = (t: Task): number => this.cards.get(t.key)?.due.getTime() ?? 0;
    for (const t of runs.sort((a, b) => wait(a) - wait(b))) if (this.put(o, t, o.last ? 'slow-run' : 'run', t.minutes)) this.sinceRun = 0;
  }

  /** Tasks that are known, and may stand on a day. */
  private known(o: Open): Task[] {
    return this.plan.tasks.filter((t) => !isRun(t) && this.begun.has(t.key) && this.cards.get(t.key) && !this.keptAway(t, o));
  }

  /** What is due, first that for which most speaks: what is likely forgotten, and what is hard. */
  private due(o: Open): Task[] {
    const found = this.known(o).flatMap((t) => {
      const card = this.cards.get(t.key)!;
      return dueDay(card) <= o.day ? [{ t, worth: 1 - this.spacing.known(card, o.day) + t.difficulty }] : [];
    });
    return found.sort((a, b) => b.worth - a.worth).map(({ t }) => t);
  }

  /** What was longest away, and only then what was played yesterday. */
  private keepUp(o: Open): void {
    const away = this.known(o).map((t) => ({ t, days: daysBetween(lastDay(this.cards.get(t.key)!), o.day) }));
    away.sort((a, b) => b.days - a.days || b.t.difficulty - a.t.difficulty);
    for (const least of [W.apart, 1])
      this.putAll(
        o,
        away.flatMap(({ t, days }) => (days >= least ? t : [])),
        'more'
      );
  }

  /** A task is dragged to a later day. */
  private isLater(t: Task, o: Open): boolean {
    return this.pins.some((p) => p.task === t.key && p.to > o.day);
  }

  /** A task was dragged away from a day, or waits for the one to which it was dragged. */
  private keptAway(t: Task, o: Open): boolean {
    return this.pins.some((p) => p.task === t.key && ((p.from <= o.day && o.day < p.to) || p.from === o.day));
  }

  /** Whether a day has as much on the bars of a task as is good. */
  private crowded(t: Task, o: Open): boolean {
    return o.items.filter((i) => overlap(t, this.byKey.get(i.task))).length >= W.sameBars;
  }
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
function inDayOrder(items: readonly PlannedItem[], tasks: ReadonlyMap<string, Task>): PlannedItem[] {
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
