import fc from 'fast-check';
import { addDays, type Day } from '../../../src/core/rehearsal/plan/day.ts';
import { newPlan, type Plan, type Task } from '../../../src/core/rehearsal/plan/plan.ts';
import type { Visit } from '../../../src/core/rehearsal/plan/visit.ts';

export const TODAY: Day = '2026-10-05';

export const task = (key: string, over: Partial<Task> = {}): Task => ({
  key,
  kind: 'passage',
  piece: 1,
  title: key,
  because: 'quick notes',
  how: 'slowly',
  bars: { from: 0, to: 1 },
  difficulty: 0.5,
  minutes: 6,
  tempo: { start: 60, goal: 100 },
  drill: null,
  sheet: null,
  loudHigh: false,
  ...over
});

export const visit = (id: string, over: Partial<Visit> = {}): Visit => ({
  id,
  plan: 'p',
  task: 't0',
  session: 's',
  day: TODAY,
  seconds: 300,
  ladder: { start: 60, end: 66, best: 63 },
  clean: 6,
  missed: 1,
  felt: null,
  hard: '',
  words: '',
  pain: false,
  ...over
});

/** Plans as they come: any occasion, any number of tasks, any day of rest, with visits before today. */
export const plans: fc.Arbitrary<{ plan: Plan; visits: Visit[] }> = fc
  .record({
    days: fc.nat(40),
    minutes: fc.integer({ min: 5, max: 90 }),
    rest: fc.uniqueArray(fc.nat(6), { maxLength: 3 }),
    occasion: fc.constantFrom('lesson', 'jury', 'audition', 'concert'),
    passages: fc.array(
      fc.record({
        difficulty: fc.double({ min: 0, max: 1, noNaN: true }),
        minutes: fc.integer({ min: 2, max: 12 }),
        bars: fc.nat(30).map((from) => ({ from, to: from + 2 }))
      }),
      {
        maxLength: 25
      }
    ),
    runs: fc.array(fc.record({ slow: fc.boolean(), minutes: fc.integer({ min: 2, max: 30 }) }), { maxLength: 3 }),
    moves: fc.array(fc.record({ task: fc.nat(24), from: fc.nat(40), to: fc.nat(40) }), { maxLength: 6 }),
    seen: fc.array(fc.record({ task: fc.nat(24), ago: fc.integer({ min: 1, max: 20 }), missed: fc.nat(9) }), { maxLength: 30 })
  })
  .map(({ days, minutes, rest, occasion, passages, runs, moves, seen }) => ({
    plan: {
      ...newPlan('p', 'nora', 'Until the jury', addDays(TODAY, -21), addDays(TODAY, days)),
      occasion: occasion as Plan['occasion'],
      minutes,
      rest,
      moves: moves.map((m) => ({ task: `t${m.task}`, from: addDays(TODAY, m.from), to: addDays(TODAY, m.to) })),
      tasks: [
        ...passages.map((p, k) => task(`t${k}`, p)),
        ...runs.map((r, k) => task(`r${k}`, { kind: r.slow ? 'slow-run' : 'run', minutes: r.minutes, tempo: null, bars: null }))
      ]
    },
    visits: seen
      .filter((s) => s.task < passages.length)
      .map((s, k) => visit(`v${k}`, { task: `t${s.task}`, day: addDays(TODAY, -s.ago), missed: s.missed }))
  }));
