import assert from 'node:assert/strict';
import { afterEach, beforeEach, mock, test } from 'node:test';
import type { PlannedItem } from '../../../src/core/rehearsal/plan/days.ts';
import { newPlan, type Plan } from '../../../src/core/rehearsal/plan/plan.ts';
import type { Visit } from '../../../src/core/rehearsal/plan/visit.ts';
import { CARE } from '../../../src/core/style/practice.ts';
import type { Practice } from '../../../src/lib/practice/practice.svelte.ts';
import { task, TODAY, visit } from '../rehearsal/plans.ts';
import './runes.ts';

const { Session } = await import('../../../src/lib/practice/session.svelte.ts');

beforeEach(() => {
  mock.timers.enable({ apis: ['setInterval', 'Date'], now: Date.parse(`${TODAY}T10:00:00Z`) });
  const store = new Map<string, string>();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => store.get(key) ?? null,
      setItem: (key: string, value: string) => void store.set(key, value),
      removeItem: (key: string) => void store.delete(key)
    }
  });
});
afterEach(() => mock.timers.reset());

/** Seconds go by, one after the other. */
function pass(seconds: number): void {
  for (let k = 0; k < seconds; k++) mock.timers.tick(1000);
}

/** A plan with two passages for today, and what is logged of it. */
function practice(items: PlannedItem[], visits: Visit[] = []): { logged: Omit<Visit, 'plan'>[]; practice: Practice } {
  const plan: Plan = {
    ...newPlan('p', null, 'x', TODAY, TODAY),
    tasks: [task('t0'), task('t1', { loudHigh: true }), task('l', { tempo: null })]
  };
  const logged: Omit<Visit, 'plan'>[] = [];
  const tasks = new Map(plan.tasks.map((t) => [t.key, t]));
  const days = { days: [{ day: TODAY, kind: 'practice', items }], left: [] };
  const log = (v: Omit<Visit, 'plan'>): void => {
    logged.push(v);
    stub.visits = [...stub.visits, { ...v, plan: 'p' }];
  };
  const stub = { plan, visits, tasks, days, today: TODAY, log };
  return { logged, practice: stub as unknown as Practice };
}
const due = (key: string, minutes: number): PlannedItem => ({ task: key, minutes, why: 'due' });

test('a session goes from turn to turn, each left behind with its time, ladder and counts', () => {
  const { practice: p, logged } = practice(
    [due('t0', 6), due('t1', 3)],
    [visit('v', { day: '2026-10-01', ladder: { start: 60, end: 80, best: 76 } })]
  );
  const session = new Session(p);
  assert.deepEqual(
    session.turns.map((t) => t.task),
    ['t0', 't1', 't0']
  );
  assert.equal(session.current.ladder!.at, 66, 'three steps under the best of before');
  for (let k = 0; k < 3; k++) session.clean();
  session.missed();
  pass(90);
  assert.ok(!session.timeIsUp);
  pass(90);
  assert.ok(session.timeIsUp);
  session.say({ words: 'better' });
  session.next();
  assert.deepEqual(
    [logged[0].task, logged[0].seconds, logged[0].clean, logged[0].missed, logged[0].ladder, logged[0].words],
    ['t0', 180, 3, 1, { start: 66, end: 69, best: 66 }, 'better']
  );
  session.next();
  assert.equal(logged.length, 1, 'a turn at which nothing was done leaves nothing behind');
  assert.equal(session.current.ladder!.at, 69, 'the second turn of the day goes on where the first one ended');
  session.clean();
  session.next();
  assert.ok(session.over);
  session.close();
  // Words alone are kept, too.
  const { practice: p2, logged: l2 } = practice([due('t0', 3)]);
  const words = new Session(p2);
  words.say({ hard: 'the leap' });
  words.next();
  assert.equal(l2[0].hard, 'the leap');
  words.close();
});

test('a tap that was not meant is taken back; a page that is opened again goes on where it was', () => {
  const { practice: p } = practice([due('t0', 3)]);
  const session = new Session(p);
  session.clean();
  session.clean();
  session.takeBack();
  session.say({ hard: 'the shift' });
  const again = new Session(p);
  assert.deepEqual([again.current.clean, again.current.hard, again.task!.key], [1, 'the shift', 't0']);
  session.close();
  again.close();
});

test('a break is proposed after 25 minutes, portions when it is loud and high; pain ends all of it', () => {
  const { practice: p, logged } = practice([due('t1', 30), due('t0', 3)]);
  const session = new Session(p);
  session.go();
  pass(CARE.loudHigh * 60);
  assert.ok(session.restLips && !session.breakDue);
  pass((CARE.breakAfter - CARE.loudHigh) * 60);
  assert.ok(session.breakDue);
  session.rest();
  assert.ok(!session.running);
  pass(60);
  assert.equal(session.breakLeft, (CARE.break - 1) * 60);
  session.endRest();
  assert.ok(!session.breakDue && !session.restLips && session.running);
  session.pain();
  assert.ok(session.over);
  assert.deepEqual([logged.length, logged[0].pain], [1, true]);
  session.close();
});
