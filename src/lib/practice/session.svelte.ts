import { nanoid } from 'nanoid';
import { atStep, beginLadder, cleanRun, missedRun, type Ladder } from '$core/rehearsal/ladder';
import type { Day } from '$core/rehearsal/plan/day';
import type { Task } from '$core/rehearsal/plan/plan';
import { turnsOf, type Turn } from '$core/rehearsal/plan/rounds';
import { bestBefore, type Felt } from '$core/rehearsal/plan/visit';
import { CARE, PRACTICE } from '$core/style/practice';
import { forget, keep, kept } from '../kept';
import type { Practice } from './practice.svelte';

const KEY = 'nuvelo-session-';
/** A pause between two ticks that is longer than this was sleep, not practice. Milliseconds. */
const LONGEST_TICK = 60_000;

/** One turn at a task while it lasts. */
interface Current {
  ladder: Ladder | null;
  clean: number;
  missed: number;
  seconds: number;
  felt: Felt | null;
  hard: string;
  words: string;
}

/** What of a session this browser keeps, so that it goes on where it was. */
interface Kept {
  id: string;
  day: Day;
  turns: Turn[];
  at: number;
  current: Current;
  /** Seconds since the last break, and of loud and high playing without one. */
  sinceBreak: number;
  loud: number;
}

/** A session of one day: turn after turn, each left behind as a visit. It is kept in this browser at every step. */
export class Session {
  private state = $state.raw<Kept>() as Kept;
  running = $state(false);
  /** Until when a break lasts, in milliseconds; null while there is none. */
  breakUntil = $state<number | null>(null);
  /** Seconds that are left of it. */
  breakLeft = $state(0);
  private undone = $state.raw<Current[]>([]);
  private last = 0;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(private readonly practice: Practice) {
    this.state = this.continued() ?? this.fresh();
  }

  get turns(): readonly Turn[] {
    return this.state.turns;
  }

  get at(): number {
    return this.state.at;
  }

  get turn(): Turn | null {
    return this.state.turns[this.state.at] ?? null;
  }

  get task(): Task | null {
    return (this.turn && this.practice.tasks.get(this.turn.task)) ?? null;
  }

  get current(): Current {
    return this.state.current;
  }

  get over(): boolean {
    return this.turn === null;
  }

  /** The minutes of this turn have passed. */
  get timeIsUp(): boolean {
    return this.turn !== null && this.current.seconds >= this.turn.minutes * 60;
  }

  get breakDue(): boolean {
    return this.breakUntil === null && this.state.sinceBreak >= CARE.breakAfter * 60;
  }

  get restLips(): boolean {
    return this.state.loud >= CARE.loudHigh * 60;
  }

  get canTakeBack(): boolean {
    return this.undone.length > 0;
  }

  /** The time runs. */
  go(): void {
    if (this.running || this.over) return;
    this.running = true;
    this.last = Date.now();
    this.timer ??= setInterval(() => this.tick(), 1000);
  }

  pause(): void {
    this.tick();
    this.running = false;
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  clean(): void {
    this.go();
    this.step((c) => ({ ...c, clean: c.clean + 1, ladder: c.ladder && cleanRun(c.ladder) }));
  }

  missed(): void {
    this.go();
    this.step((c) => ({ ...c, missed: c.missed + 1, ladder: c.ladder && missedRun(c.ladder) }));
  }

  tempo(by: 1 | -1): void {
    this.step((c) => ({ ...c, ladder: c.ladder && atStep(c.ladder, by) }));
  }

  /** The last tap was not meant. */
  takeBack(): void {
    const before = this.undone.at(-1);
    if (!before) return;
    this.undone = this.undone.slice(0, -1);
    this.put({ current: { ...before, seconds: this.current.seconds, words: this.current.words, hard: this.current.hard } });
  }

  say(said: Partial<Pick<Current, 'felt' | 'hard' | 'words'>>): void {
    this.put({ current: { ...this.current, ...said } });
  }

  /** On to the next turn; what was done is logged, unless nothing was. */
  next(pain = false): void {
    this.tick();
    const { turn, current } = this;
    if (!turn) return;
    const said = current.felt || current.words || current.hard;
    if (pain || current.clean || current.missed || said || current.seconds >= PRACTICE.shortest)
      this.practice.log({
        id: nanoid(),
        task: turn.task,
        session: this.state.id,
        day: this.state.day,
        seconds: Math.round(current.seconds),
        ladder: current.ladder && { start: current.ladder.start, end: current.ladder.at, best: current.ladder.best },
        clean: current.clean,
        missed: current.missed,
        felt: current.felt,
        hard: current.hard,
        words: current.words,
        pain
      });
    const at = pain ? this.state.turns.length : this.state.at + 1;
    this.undone = [];
    const loud = this.practice.tasks.get(this.state.turns[at]?.task ?? '')?.loudHigh ? this.state.loud : 0;
    this.put({ at, current: this.beginning(this.state.turns, at), loud });
    if (this.over) {
      this.running = false;
      forget(KEY + this.practice.plan.key);
    }
  }

  /** It hurts: everything stops, and the plan with it. */
  pain(): void {
    this.next(true);
  }

  rest(): void {
    this.pause();
    this.breakUntil = Date.now() + CARE.break * 60_000;
    this.breakLeft = CARE.break * 60;
    this.timer ??= setInterval(() => this.tick(), 1000);
  }

  endRest(): void {
    this.breakUntil = null;
    this.put({ sinceBreak: 0, loud: 0 });
    this.go();
  }

  /** The plan has more for today than this session had. */
  again(): void {
    this.state = this.fresh();
  }

  private tick(): void {
    const now = Date.now();
    if (this.breakUntil !== null) this.breakLeft = Math.max(0, Math.round((this.breakUntil - now) / 1000));
    if (!this.running) return;
    const passed = Math.min(LONGEST_TICK, now - this.last) / 1000;
    this.last = now;
    const loud = this.task?.loudHigh ? this.state.loud + passed : 0;
    this.put({ current: { ...this.current, seconds: this.current.seconds + passed }, sinceBreak: this.state.sinceBreak + passed, loud });
  }

  private step(change: (c: Current) => Current): void {
    if (this.over) return;
    this.undone = [...this.undone, this.current];
    this.put({ current: change(this.current) });
  }

  private put(change: Partial<Kept>): void {
    this.state = { ...this.state, ...change };
    keep(KEY + this.practice.plan.key, JSON.stringify(this.state));
  }

  private beginning(turns: readonly Turn[], at: number): Current {
    const task = this.practice.tasks.get(turns[at]?.task ?? '');
    const { visits, today } = this.practice;
    const ladder = task?.tempo ? beginLadder(task.tempo, bestBefore(visits, task.key, today)) : null;
    // A second turn of the day goes on where the first one ended.
    const earlier = task && visits.findLast((v) => v.task === task.key && v.day === today && v.ladder);
    const goesOn = ladder && earlier?.ladder ? { ...ladder, start: earlier.ladder.start, at: earlier.ladder.end } : ladder;
    return { ladder: goesOn, clean: 0, missed: 0, seconds: 0, felt: null, hard: '', words: '' };
  }

  private fresh(): Kept {
    const { plan, days, today } = this.practice;
    const turns = turnsOf(days.days.find((d) => d.day === today)?.items ?? [], plan);
    return { id: nanoid(), day: today, turns, at: 0, current: this.beginning(turns, 0), sinceBreak: 0, loud: 0 };
  }

  /** The session that was under way today in this browser. */
  private continued(): Kept | null {
    try {
      const found = JSON.parse(kept(KEY + this.practice.plan.key) ?? 'null') as Kept | null;
      const there = found?.turns.every((t) => this.practice.tasks.has(t.task)) ?? false;
      return found && there && found.day === this.practice.today && found.at < found.turns.length ? found : null;
    } catch {
      return null;
    }
  }
}
