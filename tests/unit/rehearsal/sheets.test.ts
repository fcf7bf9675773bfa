import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { checklistOf } from '../../../src/core/rehearsal/checklist.ts';
import { drawn, overTakes, strategyFor, tempoRemark, type Mock } from '../../../src/core/rehearsal/audition.ts';
import { joinWords, setTask } from '../../../src/core/rehearsal/tune-set.ts';
import { firstTasks, ownTask, passageTask } from '../../../src/core/rehearsal/plan/first-tasks.ts';
import { newPlan, type PlanPiece } from '../../../src/core/rehearsal/plan/plan.ts';
import { LISTENING } from '../../../src/core/style/practice.ts';
import { drillContext } from '../../../src/core/rehearsal/drills.ts';
import { abc, demo } from '../helpers.ts';
import { contextOf } from './made.ts';
import { task, TODAY } from './plans.ts';

test('the checklist of a section says what is in it: bars that are named hold what is named', () => {
  const { score } = demo('corrente.abc');
  const c = contextOf(score);
  const sections = checklistOf(c.study, c.technique, 0, []);
  assert.equal(sections.length, c.study.facts.sections.length);
  const all = sections.flatMap((s) => s.checks);
  // A violin part: pitch and the bow are looked over, breath is not.
  const kinds = new Set(all.map((x) => x.kind));
  assert.ok(kinds.has('intonation') && !kinds.has('breath'), [...kinds].join());
  for (const { text } of all) assert.doesNotMatch(text, /undefined|NaN|\bbar bar\b/);
  const top = /top note (\S+), bars? (\d+)/.exec(sections[0].checks.find((x) => x.kind === 'intonation')!.text)!;
  const inBar = score.notes.filter((n) => score.measures[n.measure].number === top[2] && n.pitch);
  assert.ok(inBar.length > 0);
});

test('a plain tune is asked for little, and nothing that it has not', () => {
  const c = contextOf(abc('X:1\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\nC D E F | G F E D | C4 |]'));
  const kinds = checklistOf(c.study, c.technique, 0, []).flatMap((s) => s.checks.map((x) => x.kind));
  for (const kind of ['ornaments', 'articulation', 'dynamics', 'character'] as const) assert.ok(!kinds.includes(kind), kind);
});

const PIECE: PlanPiece = { id: 7, reading: 9, title: 'Corrente', seconds: 95, tempo: null, cuts: '' };

test('a plan begins with the hardest places, run-throughs as long as the piece, and listening', () => {
  const c = contextOf(demo('corrente.abc').score);
  const tasks = firstTasks(c, PIECE);
  const passages = tasks.filter((t) => t.kind === 'passage');
  assert.equal(passages.length, Math.min(8, c.spots.length));
  for (const p of passages) {
    assert.ok(c.spots.some((s) => s.from === p.bars!.from && s.to === p.bars!.to));
    assert.ok(p.tempo!.start < p.tempo!.goal, 'slowly first');
    assert.match(p.title, /^Bars? |^Upbeat/);
  }
  assert.equal(tasks.find((t) => t.kind === 'run')!.minutes, 3, 'two minutes of music and one around it');
  assert.ok(tasks.find((t) => t.kind === 'slow-run')!.minutes > 3);
});

test('what a teacher calls harder is a hard place, and what is no matter is none', () => {
  const { study, technique, spots } = contextOf(demo('corrente.abc').score);
  const [spot] = spots;
  const let_go = Object.fromEntries(Array.from({ length: spot.to - spot.from + 1 }, (_, k) => [spot.from + k, 'no matter' as const]));
  const without = drillContext(study, technique, 0, let_go);
  assert.deepEqual(without.spots, spots.slice(1), 'and nothing else becomes one');
  const easy = study.score.measures.findIndex((m) => !spots.some((s) => m.index >= s.from - 1 && m.index <= s.to + 1));
  const harder = drillContext(study, technique, 0, { [easy]: 'harder' });
  assert.ok(harder.spots.some((s) => s.from <= easy && s.to >= easy));
});

test('a word of the page becomes a task with its bars', () => {
  const c = contextOf(demo('corrente.abc').score);
  const own = ownTask(c, 7, 3, 3, 'crescendo', 'grow to the last note');
  assert.match(own.title, /^Bar \d+: crescendo$/);
  assert.equal(own.how, 'grow to the last note');
  assert.deepEqual(passageTask(c, 7, 2, 4).bars, { from: 2, to: 4 });
});

test('a lot gives every order the same chance, and the same lot the same order', () => {
  const counts = new Map<string, number>();
  for (let seed = 0; seed < 6000; seed++) {
    const order = drawn(['a', 'b', 'c'], seed).join('');
    counts.set(order, (counts.get(order) ?? 0) + 1);
  }
  assert.equal(counts.size, 6);
  for (const n of counts.values()) assert.ok(n > 800 && n < 1200, `${n} of 6000`);
  fc.assert(
    fc.property(fc.array(fc.integer()), fc.integer(), (items, seed) => {
      assert.deepEqual(drawn(items, seed), drawn(items, seed));
      assert.deepEqual([...drawn(items, seed)].sort(), [...items].sort());
    })
  );
});

test('a tempo is held against what was asked for', () => {
  assert.equal(tempoRemark({ low: 88, high: 96 }, 92), null);
  assert.match(tempoRemark({ low: 88, high: 96 }, 84)!, /84: slower than the 88 to 96/);
  assert.match(tempoRemark({ low: 88, high: 88 }, 90)!, /90: quicker than the 88/);
  assert.equal(tempoRemark(null, 90), null);
});

test('the sheet over several takes, and a first strategy from the hardest place', () => {
  const mock = (sheet: Mock['sheet']): Mock => ({ id: 'a', plan: 'p', day: TODAY, order: [], tempi: {}, sheet, listener: '', words: '' });
  const takes = overTakes([mock({ sound: 'no' }), mock({ sound: 'yes' })]);
  assert.deepEqual(takes[0].marks, ['no', 'yes']);
  assert.equal(takes.length, LISTENING.length);
  const plan = {
    ...newPlan('p', null, 'x', TODAY, TODAY),
    tasks: [task('Bars 1–2', { difficulty: 0.2 }), task('Bars 9–11', { difficulty: 0.8 })]
  };
  assert.match(strategyFor(plan), /^Be sure rather than grand in bars 9–11 \(quick notes\)/);
  assert.equal(strategyFor({ ...plan, tasks: [] }), '');
});

test('a set becomes a run-through: its order, its second times, its joins, one tempo, as long as its tunes', () => {
  const pieces = [1, 2].map((id) => ({ ...PIECE, id, title: `Tune ${id}`, seconds: 50 }));
  const tunes = [
    { piece: 2, title: 'Tune 2', times: 2, second: 'without the throw', join: '' },
    { piece: 1, title: 'Tune 1', times: 1, second: '', join: 'up a fourth.' }
  ];
  const made = setTask({ ...newPlan('p', null, 'x', TODAY, TODAY), pieces }, { key: 's', name: 'Evening', tempo: 92, tunes });
  assert.equal(made.how, 'Tune 2 2 times, the second: without the throw. Up a fourth. Tune 1. Quarter = 92 throughout.');
  assert.equal(made.minutes, 4, 'three times fifty seconds and a minute');
});

test('how one tune goes into the next: notes and meter', () => {
  const [march, jig, reel] = ['4/4', '6/8', '4/4'].map((m, k) => abc(`X:1\nM:${m}\nL:1/8\nK:C\n${k === 1 ? 'c' : 'G'}6 |]`));
  assert.equal(joinWords(march, jig), 'from G4 up 5 semitones to C5; 4/4 goes into 6/8: settle the new beat before its first note.');
  assert.match(joinWords(march, reel), /both on G4, so it must be told apart; the beat goes on/);
});
