import assert from 'node:assert/strict';
import { afterEach, mock, test } from 'node:test';
import { setImmediate as turn } from 'node:timers/promises';
import fc from 'fast-check';
import './runes.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import type { Performance } from '../../../src/core/performance/perform.ts';
import { EMPTY_READING, type Reading } from '../../../src/core/reading/reading.ts';
import { Latest } from '../../../src/lib/workspace/latest.ts';
import { PieceStudy } from '../../../src/lib/workspace/piece-study.svelte.ts';
import { Playing } from '../../../src/lib/workspace/playing.svelte.ts';
import { Selection } from '../../../src/lib/workspace/selection.svelte.ts';
import { StudyService, type StudyPort } from '../../../src/lib/workspace/study-service.ts';
import { demo } from '../helpers.ts';

/** A question that is answered, or fails, when the test says so. */
interface Asked {
  name: string;
  args: unknown[];
  answer(value: unknown): void;
  fail(error: Error): void;
}

/** A worker whose answers come in the order that a test wants. */
function slowPort(): { port: StudyPort; asked: Asked[]; take(name: string): Asked } {
  const asked: Asked[] = [];
  const ask = (name: string, args: unknown[]): Promise<unknown> => new Promise((answer, fail) => asked.push({ name, args, answer, fail }));
  const port = new Proxy(
    {},
    {
      get:
        (_, name) =>
        (...args: unknown[]) =>
          ask(String(name), args)
    }
  ) as StudyPort;
  const take = (name: string): Asked => {
    const k = asked.findIndex((a) => a.name === name);
    assert.notEqual(k, -1, `${name} has been asked`);
    return asked.splice(k, 1)[0];
  };
  return { port, asked, take };
}

const facts = (name: string): Facts => ({ name }) as unknown as Facts;
const studied = (name: string): object => ({ facts: facts(name), proposals: [], questions: [] });
const played = (name: string): Performance => ({ name }) as unknown as Performance;

afterEach(() => mock.timers.reset());

test('of questions under way only the last one’s answer counts, in whatever order answers come', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.shuffledSubarray([0, 1, 2, 3, 4], { minLength: 5 }),
      fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
      async (order, fails) => {
        const latest = new Latest();
        const under: Asked[] = [];
        const taken: unknown[] = [];
        for (let k = 0; k < 5; k++)
          void latest.ask(
            () => new Promise((answer, fail) => under.push({ name: '', args: [], answer, fail })),
            (value) => taken.push(value),
            (error) => taken.push((error as Error).message)
          );
        for (const k of order) {
          if (fails[k]) under[k].fail(new Error(`wrong ${k}`));
          else under[k].answer(k);
          await turn();
        }
        assert.deepEqual(taken, [fails[4] ? 'wrong 4' : 4]);
      }
    )
  );
});

function study(reading: () => Reading) {
  const slow = slowPort();
  const told: string[] = [];
  let first = 0;
  const part = new PieceStudy(
    slow.port,
    facts('stored'),
    reading,
    () => null,
    (s) => told.push(s),
    () => first++
  );
  return { ...slow, part, told, firsts: () => first };
}

test('the study: a failure is told, ends the waiting, and the next change is asked again', async () => {
  let reading = EMPTY_READING;
  const { part, take, asked, told, firsts } = study(() => reading);
  part.refresh();
  take('studied').fail(new Error('The worker ended.'));
  await turn();
  assert.deepEqual(told, ['The worker ended.']);
  assert.equal(part.busy, false);
  assert.equal((part.facts as unknown as { name: string }).name, 'stored');
  part.refresh();
  take('studied').answer(studied('first'));
  await turn();
  assert.equal((part.facts as unknown as { name: string }).name, 'first');
  assert.equal(firsts(), 1);
  // What does not touch the study is not asked again.
  reading = { ...reading, preface: { type: 'doc', content: [] } };
  part.refresh();
  assert.deepEqual(asked, []);
});

test('the study: an answer that was overtaken by a correction is not shown', async () => {
  let reading = EMPTY_READING;
  const { part, take } = study(() => reading);
  part.refresh();
  const old = take('studied');
  reading = { ...reading, part: 1 };
  part.refresh();
  take('studied').answer(studied('new'));
  await turn();
  old.answer(studied('old'));
  await turn();
  assert.equal((part.facts as unknown as { name: string }).name, 'new');
});

test('the proof is asked once a room wants it, after the first study, and anew with every reading', async () => {
  let reading = EMPTY_READING;
  const { part, take, asked } = study(() => reading);
  part.refresh();
  part.needFindings();
  assert.equal(asked.filter((a) => a.name === 'findings').length, 0);
  take('studied').answer(studied('first'));
  await turn();
  take('findings').answer([]);
  await turn();
  assert.deepEqual(part.findings, []);
  reading = { ...reading, plan: { ...reading.plan, peak: 3 } };
  part.refresh();
  part.refresh();
  assert.equal(asked.filter((a) => a.name === 'findings').length, 1);
});

test('the survey is worked out here only where something was corrected, and forgotten with the correction', async () => {
  let reading = EMPTY_READING;
  const { part, take, asked } = study(() => reading);
  part.refresh();
  assert.equal(
    asked.some((a) => a.name === 'survey'),
    false
  );
  reading = { ...reading, instruments: { 0: 'viola' } };
  part.refresh();
  take('survey').answer({ groups: [] });
  await turn();
  assert.deepEqual(part.survey, { groups: [] });
  reading = EMPTY_READING;
  part.refresh();
  assert.equal(part.survey, null);
});

function playing() {
  const slow = slowPort();
  const told: string[] = [];
  const player = {
    playing: false,
    started: [] as unknown[],
    refreshed: 0,
    start: (w: unknown) => player.started.push(w),
    refresh: () => player.refreshed++
  };
  mock.timers.enable({ apis: ['setTimeout'] });
  const part = new Playing(
    slow.port,
    player,
    () => EMPTY_READING,
    (s) => told.push(s)
  );
  const wait = async (): Promise<void> => {
    mock.timers.tick(300);
    await turn();
  };
  return { ...slow, part, player, told, wait };
}

test('a performance that fails does not stop the later ones', async () => {
  const { part, take, told, wait, player } = playing();
  part.allow();
  part.need();
  await wait();
  take('performed').fail(new Error('It cannot be played.'));
  await turn();
  assert.deepEqual(told, ['It cannot be played.']);
  assert.equal(part.performed, null);
  part.refresh();
  await wait();
  take('performed').answer(played('plan'));
  await turn();
  take('page').answer(played('page'));
  await turn();
  assert.deepEqual(part.performed, { plan: played('plan'), page: played('page') });
  assert.equal(player.refreshed, 1);
});

test('one performance at a time; what changes meanwhile is played next, the page to the letter is kept', async () => {
  const { part, take, asked, wait, player } = playing();
  part.allow();
  part.need();
  await wait();
  part.refresh();
  part.refresh();
  await wait();
  assert.equal(asked.length, 1);
  take('performed').answer(played('first'));
  await turn();
  take('page').answer(played('page'));
  await turn();
  player.playing = true;
  await wait();
  take('performed').answer(played('second'));
  await turn();
  assert.deepEqual(asked, []);
  assert.deepEqual(part.performed, { plan: played('second'), page: played('page') });
});

test('nothing is performed before a room wants it and proposals stand', async () => {
  const { part, asked, wait } = playing();
  part.refresh();
  part.allow();
  await wait();
  assert.equal(asked.length, 0);
  part.need();
  await wait();
  assert.deepEqual(
    asked.map((a: Asked) => a.name),
    ['performed']
  );
});

test('the selection stays in the piece, and its open end moves', () => {
  const { score } = demo('andantino.abc');
  const selection = new Selection(() => score);
  const last = score.measures.length - 1;
  fc.assert(
    fc.property(fc.array(fc.record({ by: fc.integer({ min: -9, max: 9 }), extend: fc.boolean() }), { maxLength: 30 }), (steps) => {
      selection.bar(0);
      let anchor = 0;
      let end = 0;
      for (const { by, extend } of steps) {
        selection.step(by, extend);
        end = Math.max(0, Math.min(last, end + by));
        if (!extend) anchor = end;
        assert.deepEqual([selection.from, selection.to], [Math.min(anchor, end), Math.max(anchor, end)]);
        const { from, to } = selection.stretch();
        // What hangs on the end of the piece belongs to its last bar.
        assert.deepEqual([selection.holds(from), selection.holds(to)], [true, selection.to === last]);
      }
    })
  );
  selection.note('a');
  selection.note('b');
  selection.note('a');
  assert.deepEqual([...selection.notes], ['b']);
});

test('the service in the worker: one study for proposals, proof and playing; a correction makes another', () => {
  const service = new StudyService();
  const score = JSON.parse(service.open(demo('andantino.abc').text, null));
  assert.ok(score.notes.length > 0);
  const reading = { ...EMPTY_READING, plan: { ...EMPTY_READING.plan, peak: 2 } };
  const plan = service.performed(reading);
  assert.equal(service.performed({ ...reading }), plan);
  assert.equal(service.page(reading), service.page({ ...reading, plan: { ...reading.plan, peak: 4 } }));
  assert.ok(Array.isArray(service.findings(reading, null)));
  const { facts: before } = service.studied(reading);
  assert.equal(service.studied({ ...reading, plan: { ...reading.plan, peak: 5 } }).facts, before);
  const corrected = { ...reading, instruments: { 0: 'double-bass' as const } };
  assert.notEqual(service.page(corrected), service.page(reading));
  assert.match(JSON.stringify(service.survey(corrected)), /double bass/);
});
