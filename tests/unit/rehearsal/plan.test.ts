import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { addDays, daysBetween, weekday } from '../../../src/core/rehearsal/plan/day.ts';
import { planDays } from '../../../src/core/rehearsal/plan/days.ts';
import { moved } from '../../../src/core/rehearsal/plan/moves.ts';
import { changedPlan, isNothing, planChange } from '../../../src/core/rehearsal/plan/change.ts';
import { turnsOf } from '../../../src/core/rehearsal/plan/rounds.ts';
import { dueDay, lastDay, Spacing, type Card } from '../../../src/core/rehearsal/plan/spacing.ts';
import { bestBefore, eachOnce, feltAt, taskDays } from '../../../src/core/rehearsal/plan/visit.ts';
import { isPerformance, newPlan, type Plan } from '../../../src/core/rehearsal/plan/plan.ts';
import { PRACTICE, PRACTICE_REASONS } from '../../../src/core/style/practice.ts';
import { SOURCES } from '../../../src/core/style/bibliography.ts';
import { plans, task, TODAY, visit } from './plans.ts';

/** New things may come until three days before a performance, and to the last before a lesson. */
const mayStillBegin = (plan: Plan, day: string): boolean => plan.occasion === 'lesson' || daysBetween(day, plan.date) >= 3;
/** Days from the last visit until the next. */
const interval = (card: Card): number => daysBetween(lastDay(card), dueDay(card));
const isRun = (plan: Plan, key: string): boolean => ['run', 'slow-run'].includes(plan.tasks.find((t) => t.key === key)!.kind);

test('a plan fits the minutes, keeps the days of rest, and ends before the date of a performance', () => {
  fc.assert(
    fc.property(plans, ({ plan, visits }) => {
      const { days } = planDays(plan, visits, TODAY);
      for (const d of days) {
        assert.ok(d.items.reduce((n, i) => n + i.minutes, 0) <= plan.minutes, d.day);
        assert.ok(d.items.every((i) => i.minutes >= PRACTICE.least));
        assert.ok(d.day >= TODAY && d.day <= plan.date);
        if (plan.rest.includes(weekday(d.day))) assert.equal(d.items.length, 0);
        if (isPerformance(plan.occasion) && d.day === plan.date) assert.equal(d.items.length, 0, 'nothing on the day itself');
        assert.equal(new Set(d.items.map((i) => i.task)).size, d.items.length, 'nothing twice in a day');
      }
    })
  );
});

test('nothing new in the last two days before a performance: slow run-throughs and what is known', () => {
  fc.assert(
    fc.property(plans, ({ plan, visits }) => {
      const { days } = planDays(plan, visits, TODAY);
      const known = new Set(visits.map((v) => v.task));
      for (const d of days) {
        for (const i of d.items) {
          if (!mayStillBegin(plan, d.day) && !isRun(plan, i.task)) assert.ok(known.has(i.task), `${i.task} is new on ${d.day}`);
          if (i.why === 'run') assert.ok(mayStillBegin(plan, d.day), 'no quick run in the last two days');
          known.add(i.task);
        }
      }
    })
  );
});

test('all passages appear as long as there is room for a least visit to each, and what finds none is named', () => {
  fc.assert(
    fc.property(plans, ({ plan: dragged, visits }) => {
      // What is put by hand takes room away; a drag that would cost a passage its place is refused, see below.
      const plan = { ...dragged, moves: [] };
      const { days, left } = planDays(plan, visits, TODAY);
      const known = new Set(visits.map((v) => v.task));
      const fresh = plan.tasks.filter((t) => !isRun(plan, t.key) && !known.has(t.key));
      const slots =
        days.filter((d) => d.kind === 'practice' && mayStillBegin(plan, d.day)).length * Math.floor(plan.minutes / PRACTICE.least);
      const placed = new Set(days.flatMap((d) => d.items.map((i) => i.task)));
      if (slots >= fresh.length) for (const t of fresh) assert.ok(placed.has(t.key), `${t.key} has no day`);
      for (const t of fresh) assert.ok(placed.has(t.key) || left.some((l) => l.task === t.key), `${t.key} is nowhere`);
    })
  );
});

test('dragging to another day: it stands there, every promise holds, and nothing is lost', () => {
  let carried = 0;
  let refused = 0;
  fc.assert(
    fc.property(plans, fc.nat(), fc.nat(40), ({ plan, visits }, which, ahead) => {
      const before = planDays(plan, visits, TODAY);
      const all = before.days.flatMap((d) => d.items.map((i) => ({ day: d.day, task: i.task })));
      if (!all.length) return;
      const { day, task: key } = all[which % all.length];
      const to = addDays(TODAY, ahead);
      const next = moved(plan, visits, TODAY, key, day, to);
      if (typeof next === 'string') {
        refused++;
        assert.match(next, /\.$/);
        return;
      }
      carried++;
      const after = planDays(next, visits, TODAY);
      if (to !== day) assert.ok(after.days.find((d) => d.day === to)!.items.some((i) => i.task === key));
      if (to !== day)
        assert.ok(!after.days.find((d) => d.day === day)!.items.some((i) => i.task === key && to > day), 'it is not there twice');
      for (const d of after.days) assert.ok(d.items.reduce((n, i) => n + i.minutes, 0) <= plan.minutes);
      const once = (days: typeof before.days): Set<string> => new Set(days.flatMap((d) => d.items.map((i) => i.task)));
      for (const t of once(before.days))
        if (!isRun(plan, t)) assert.ok(once(after.days).has(t) || visits.some((v) => v.task === t), `${t} is lost`);
      assert.deepEqual(next.tasks, plan.tasks);
    }),
    { numRuns: 300 }
  );
  assert.ok(carried > 50 && refused > 20, `${carried} carried out, ${refused} refused`);
});

test('where later days are full, all that is new begins early; a drag that would cost something its place is refused', () => {
  const fresh = ['a', 'b', 'c', 'd', 'e', 'f'].map((k, n) => task(k, { bars: { from: 9 * n, to: 9 * n } }));
  const known = [1, 2, 3].map((k) => task(`k${k}`, { minutes: 12, bars: { from: 90 + 9 * k, to: 90 + 9 * k } }));
  const full: Plan = {
    ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 3)),
    ...{ minutes: 12, rest: [], tasks: [...fresh, ...known] },
    moves: [1, 2, 3].map((k) => ({ task: `k${k}`, from: TODAY, to: addDays(TODAY, k) }))
  };
  const seen = known.map((t, k) => visit(`v${k}`, { task: t.key, day: addDays(TODAY, -1) }));
  const first = planDays(full, seen, TODAY).days[0].items.map((i) => i.task);
  assert.deepEqual([...first].sort(), ['a', 'b', 'c', 'd', 'e', 'f']);
  const two: Plan = {
    ...full,
    date: addDays(TODAY, 1),
    minutes: 4,
    tasks: fresh.slice(0, 4).map((t) => ({ ...t, minutes: 4 })),
    moves: []
  };
  const there = planDays(two, [], TODAY).days[0].items[0].task;
  assert.match(
    moved(two, [], TODAY, there, TODAY, addDays(TODAY, 1)) as string,
    /^Then there would be no room for \w: every visit takes 2 minutes/
  );
});

test('a drag that goes on from another is one, and one that goes back is none', () => {
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 12)), rest: [], tasks: [task('a'), task('b')] };
  const [first] = planDays(plan, [], TODAY).days.filter((d) => d.items.some((i) => i.task === 'a'));
  const once = moved(plan, [], TODAY, 'a', first.day, addDays(first.day, 2)) as Plan;
  assert.deepEqual(once.moves, [{ task: 'a', from: first.day, to: addDays(first.day, 2) }]);
  const twice = moved(once, [], TODAY, 'a', addDays(first.day, 2), addDays(first.day, 4)) as Plan;
  assert.deepEqual(twice.moves, [{ task: 'a', from: first.day, to: addDays(first.day, 4) }]);
  assert.deepEqual((moved(twice, [], TODAY, 'a', addDays(first.day, 4), first.day) as Plan).moves, []);
  const rested = { ...plan, rest: [weekday(addDays(TODAY, 3))] };
  assert.match(moved(rested, [], TODAY, 'a', first.day, addDays(TODAY, 3)) as string, /day of rest/);
});

test('the hardest begins first, and a run-through closes its day', () => {
  const tasks = [
    task('easy', { difficulty: 0.2 }),
    task('hard', { difficulty: 0.9 }),
    task('run', { kind: 'run', tempo: null, minutes: 5 })
  ];
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 14)), occasion: 'jury', minutes: 20, rest: [], tasks };
  const { days } = planDays(plan, [], TODAY);
  assert.equal(days[0].items[0].task, 'hard');
  const withRun = days.filter((d) => d.items.some((i) => i.task === 'run'));
  assert.ok(withRun.length >= 2);
  for (const d of withRun) assert.equal(d.items.at(-1)!.task, 'run');
  assert.equal(days.at(-1)!.kind, 'performance');
});

test('a bad day brings a passage back sooner than a good one (the spacing scheduler as it is used here)', () => {
  const spacing = new Spacing(60);
  const good = spacing.history([visit('a')], 100)!;
  const bad = spacing.history([visit('a', { clean: 1, missed: 5 })], 100)!;
  assert.ok(interval(bad) < interval(good), `${interval(bad)} and ${interval(good)} days`);
  assert.ok(dueDay(good) > TODAY);
  assert.ok(spacing.known(good, addDays(TODAY, 1)) > spacing.known(good, addDays(TODAY, 9)));
  // Known again and again it stays away longer.
  const twice = spacing.after(good, dueDay(good), 'good');
  assert.ok(interval(twice) > interval(good));
  const well = visit('a', { felt: 'easy' });
  assert.ok(interval(new Spacing(3).history([well], 100)!) < interval(spacing.history([well], 100)!), 'sooner where the date is near');
});

test('after a session the plan is another: what was played today is done, what went badly comes back', () => {
  const plan: Plan = {
    ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 20)),
    minutes: 12,
    rest: [],
    tasks: ['t0', 't1', 't2'].map((k) => task(k))
  };
  const before = planDays(plan, [], TODAY);
  assert.ok(before.days[0].items.some((i) => i.task === 't0'));
  const failed = [visit('v', { clean: 0, missed: 6, ladder: { start: 60, end: 56, best: null } })];
  const after = planDays(plan, failed, TODAY);
  assert.ok(!after.days[0].items.some((i) => i.task === 't0'), 'done today');
  const back = after.days.find((d) => d.items.some((i) => i.task === 't0'))!;
  assert.ok(daysBetween(TODAY, back.day) <= 2, back.day);
  assert.notDeepEqual(after, before);
});

test('passages alternate, three minutes at a time; what is run through is not divided and comes last', () => {
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, TODAY), tasks: [task('a'), task('b'), task('run', { kind: 'run' })] };
  const items = [
    { task: 'run', minutes: 9, why: 'run' as const },
    { task: 'a', minutes: 6, why: 'due' as const },
    { task: 'b', minutes: 7, why: 'due' as const }
  ];
  const turns = turnsOf(items, plan);
  assert.deepEqual(
    turns.map((t) => `${t.task}${t.turn}/${t.of} ${t.minutes}`),
    ['a1/2 3', 'b1/2 4', 'a2/2 3', 'b2/2 3', 'run1/1 9']
  );
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 2, max: 30 }), { maxLength: 8 }), (minutes) => {
      const many = { ...plan, tasks: minutes.map((_, k) => task(`t${k}`)) };
      const turns = turnsOf(
        minutes.map((m, k) => ({ task: `t${k}`, minutes: m, why: 'due' as const })),
        many
      );
      assert.equal(
        turns.reduce((n, t) => n + t.minutes, 0),
        minutes.reduce((n, m) => n + m, 0)
      );
      // Nothing stands twice in a row as long as something else is left.
      turns.forEach((t, k) => {
        if (k && t.task === turns[k - 1].task) assert.ok(turns.slice(k).every((x) => x.task === t.task));
      });
    })
  );
});

test('what is sent twice stands once, and the counts of a day are its visits together', () => {
  const [a, b] = [visit('a'), visit('b', { day: addDays(TODAY, -1), ladder: { start: 60, end: 72, best: 69 } })];
  assert.deepEqual(eachOnce([a, b, { ...a, words: 'again' }]), [a, b]);
  const days = taskDays([a, visit('c', { clean: 1, ladder: { start: 66, end: 66, best: 66 } }), b], 't0');
  assert.deepEqual(
    days.map((d) => [d.day, d.start, d.best, d.clean]),
    [
      [addDays(TODAY, -1), 60, 69, 6],
      [TODAY, 60, 66, 7]
    ]
  );
  assert.equal(bestBefore([a, b], 't0', TODAY), 69);
  assert.equal(bestBefore([a], 't0', TODAY), null);
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 9)), tasks: [task('t0'), task('t1')] };
  assert.deepEqual(planDays(plan, [a, a, a], TODAY), planDays(plan, [a], TODAY));
});

test('how it went is what the player says, else what the counts say', () => {
  assert.equal(feltAt(visit('a', { felt: 'easy', missed: 9 }), 100), 'easy');
  assert.equal(feltAt(visit('a', { clean: 2, missed: 2 }), 100), 'again');
  assert.equal(feltAt(visit('a', { ladder: { start: 60, end: 58, best: 60 } }), 100), 'hard');
  assert.equal(feltAt(visit('a'), 100), 'good');
  assert.equal(feltAt(visit('a', { ladder: { start: 92, end: 100, best: 100 } }), 100), 'easy');
  assert.equal(feltAt(visit('a', { ladder: null }), null), 'good');
});

test('a change of a plan carries over what it names and nothing else, and its reverse undoes it', () => {
  fc.assert(
    fc.property(plans, plans, ({ plan: a }, { plan: b }) => {
      const sorted = (p: Plan): Plan => ({ ...p, tasks: [...p.tasks].sort((x, y) => x.key.localeCompare(y.key)) });
      assert.deepEqual(sorted(changedPlan(a, planChange(a, b))), sorted(b));
      assert.deepEqual(sorted(changedPlan(changedPlan(a, planChange(a, b)), planChange(b, a))), sorted(a));
      assert.ok(isNothing(planChange(a, structuredClone(a))));
    })
  );
  // Two windows: each changed another task, and both changes stand.
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, TODAY), tasks: [task('a'), task('b')] };
  const one = planChange(plan, { ...plan, tasks: [task('a', { minutes: 9 }), task('b')] });
  const two = planChange(plan, { ...plan, minutes: 50, tasks: [task('a')] });
  const both = changedPlan(changedPlan(plan, one), two);
  assert.deepEqual([both.minutes, both.tasks.map((t) => [t.key, t.minutes])], [50, [['a', 9]]]);
});

test('pain stops the plan: nothing is planned until it is taken back', () => {
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 9)), tasks: [task('a')], stopped: true };
  assert.ok(planDays(plan, [], TODAY).days.every((d) => !d.items.length));
});

test('what the plan is laid out by names its studies', () => {
  const named: string[] = PRACTICE_REASONS.map((r) => SOURCES[r.source].short);
  for (const study of ['Carter & Grahn 2016', 'Simmons 2012', 'Duke et al. 2009']) assert.ok(named.includes(study), study);
});

test('days are not all the same: what is not due keeps away a day, and the same bars come twice a day at most', () => {
  fc.assert(
    fc.property(plans, ({ plan, visits }) => {
      // What is begun or put by hand must have its place; all else keeps the measure.
      for (const d of planDays({ ...plan, moves: [] }, visits, TODAY).days) {
        const free = d.items.filter((i) => i.why === 'due' || i.why === 'more');
        for (const i of free) {
          const { bars } = plan.tasks.find((t) => t.key === i.task)!;
          const same = free.filter((x) => {
            const other = plan.tasks.find((t) => t.key === x.task)!.bars!;
            return bars!.from <= other.from && other.from <= bars!.to;
          });
          assert.ok(same.length <= PRACTICE.sameBars + 1, d.day);
        }
      }
    })
  );
  const tasks = ['a', 'b', 'c', 'd', 'e', 'f'].map((k, n) => task(k, { bars: { from: 9 * n, to: 9 * n + 2 }, minutes: 6 }));
  const plan: Plan = { ...newPlan('p', null, 'x', TODAY, addDays(TODAY, 20)), minutes: 18, rest: [], tasks };
  const days = planDays(plan, [], TODAY).days.slice(4, 12);
  const keys = days.map((d) => d.items.map((i) => i.task).join(''));
  assert.ok(new Set(keys).size >= 2, keys.join(' '));
  for (const [k, d] of days.entries()) if (k) assert.notEqual(keys[k], keys[k - 1], `${d.day}: ${keys.join(' ')}`);
});
