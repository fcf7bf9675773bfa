import './named-engine.ts';
import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { PDFDocument } from 'pdf-lib';
import { addDays } from '../../../src/core/rehearsal/plan/day.ts';
import { planDays } from '../../../src/core/rehearsal/plan/days.ts';
import { planChange } from '../../../src/core/rehearsal/plan/change.ts';
import { newPlan, planContentOf, type Plan } from '../../../src/core/rehearsal/plan/plan.ts';
import { visitContentOf } from '../../../src/core/rehearsal/plan/visit.ts';
import { calendarOf } from '../../../src/lib/server/calendar.ts';
import { valid } from '../../../src/lib/server/http.ts';
import { openDatabase } from '../../../src/lib/server/db/open.ts';
import { OWNER } from '../../../src/lib/server/owner.ts';
import { bookFile } from '../../../src/lib/server/jobs/book-file.ts';
import { bookPartsOf, todayOf } from '../../../src/lib/server/practice-params.ts';
import { addToLog, keepSheet } from '../../../src/lib/server/repositories/practice.ts';
import { mockContent, planChangeContent, planContent, visitContent } from '../../../src/lib/server/schemas.ts';
import { Studio } from '../../../src/lib/server/studio.ts';
import { drillsIn } from '../rehearsal/made.ts';
import { task, TODAY, visit } from '../rehearsal/plans.ts';
import { demo } from '../helpers.ts';
import { refusedAs } from './refused.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvelo-practice-'));
const db = await openDatabase(undefined, folder);
after(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});
const { practice } = new Studio(db, OWNER);

const PLAN: Plan = {
  ...newPlan('p', 'nora', 'Until the jury', TODAY, addDays(TODAY, 14)),
  occasion: 'jury',
  pieces: [{ id: 1, reading: 1, title: 'Corrente', seconds: 90, tempo: { low: 100, high: 112 }, cuts: '' }],
  tasks: [task('t0', { sheet: 's0' }), task('t1')]
};
test('a plan is kept; two windows change it, and both changes stand; another person has none of it', async () => {
  await practice.keepPlan('p', planContentOf(PLAN));
  await practice.keepPlan('p', planContentOf(PLAN));
  assert.deepEqual(await practice.plans(), [PLAN]);
  const one = planChange(PLAN, { ...PLAN, minutes: 45 });
  const two = planChange(PLAN, { ...PLAN, tasks: [PLAN.tasks[0], { ...PLAN.tasks[1], minutes: 9 }] });
  await practice.changePlan('p', one);
  const after = await practice.changePlan('p', two);
  assert.deepEqual([after.minutes, after.tasks[1].minutes], [45, 9]);
  const other = new Studio(db, 'somebody else').practice;
  assert.deepEqual(await other.plans(), []);
  assert.match(await refusedAs(() => other.changePlan('p', one)), /^404 This plan is not here/);
  assert.match(await refusedAs(() => other.state('p')), /^404/);
});

test('a visit sent twice stands once, and what was practised outlives a plan that is taken away and back', async () => {
  const v = visitContentOf(visit('v1'));
  for (let k = 0; k < 3; k++) await practice.addVisit('p', 'v1', v);
  await practice.addVisit('p', 'v1', { ...v, words: 'sent again, otherwise' });
  await practice.addMock('p', 'm1', {
    day: TODAY,
    order: [1],
    tempi: { 1: 104 },
    sheet: { sound: 'yes' },
    listener: 'Ms Brandt',
    words: ''
  });
  const { visits, mocks } = await practice.state('p');
  assert.deepEqual(visits, [visit('v1')]);
  assert.equal(mocks[0].listener, 'Ms Brandt');
  const before = await practice.plan('p');
  await practice.removePlan('p');
  assert.match(await refusedAs(() => practice.state('p')), /^404/);
  await practice.keepPlan('p', planContentOf(before));
  assert.equal((await practice.state('p')).visits.length, 1);
});

test('what is sent is checked, and what is wrong is named', async () => {
  const plan = (change: object): Promise<string> => refusedAs(() => valid(planContent, { ...planContentOf(PLAN), ...change }, 'The plan'));
  assert.equal(await plan({}), 'taken');
  assert.match(await plan({ date: '2026-13-01' }), /date/);
  assert.match(await plan({ minutes: 0 }), /minutes/);
  assert.match(await plan({ rest: [0, 1, 2, 3, 4, 5, 6] }), /rest/);
  assert.match(await plan({ tasks: [{ ...PLAN.tasks[0], bars: { from: 5, to: 2 } }] }), /bars/);
  assert.match(await plan({ tasks: [{ ...PLAN.tasks[0], tempo: { start: 100, goal: 60 } }] }), /tempo/);
  const change = (value: object): Promise<string> => refusedAs(() => valid(planChangeContent, value, 'The change'));
  assert.equal(await change({ set: { minutes: 20 }, put: { tasks: { t0: null } } }), 'taken');
  assert.match(await change({ set: { key: 'other' }, put: {} }), /key/);
  assert.match(await change({ set: {}, put: { players: {} } }), /players/);
  const v = visitContentOf(visit('v'));
  assert.match(await refusedAs(() => valid(visitContent, { ...v, seconds: -1 }, 'The visit')), /seconds/);
  assert.match(await refusedAs(() => valid(visitContent, { ...v, felt: 'great' }, 'The visit')), /felt/);
  assert.match(
    await refusedAs(() =>
      valid(mockContent, { day: TODAY, order: [], tempi: {}, sheet: { sound: 'maybe' }, listener: '', words: '' }, 'It')
    ),
    /sound/
  );
  // A change that is well in itself may still not make a plan that is not.
  assert.match(
    await refusedAs(() =>
      practice.changePlan('p', {
        set: {},
        put: { tasks: Object.fromEntries(Array.from({ length: 300 }, (_, k) => [`more${k}`, task(`more${k}`)])) }
      })
    ),
    /^400 The plan/
  );
});

test('a day and the parts of a book are asked for in the address', async () => {
  const at = (query: string): URL => new URL(`http://x/${query}`);
  assert.equal(todayOf(at('?today=2026-10-05')), '2026-10-05');
  assert.match(await refusedAs(() => todayOf(at('?today=tomorrow'))), /^400 Say which day/);
  assert.match(await refusedAs(() => todayOf(at('?today=2026-99-99'))), /^400/);
  assert.deepEqual(bookPartsOf(at('')), ['days', 'checks', 'listening', 'sheets']);
  assert.deepEqual(bookPartsOf(at('?parts=sheets,days')), ['days', 'sheets']);
  assert.match(await refusedAs(() => bookPartsOf(at('?parts=songs'))), /no songs/);
});

test('the calendar has each day once, whole days under names that stay (RFC 5545)', () => {
  const { days } = planDays(PLAN, [], TODAY);
  const text = calendarOf(PLAN, days);
  assert.match(text, /^BEGIN:VCALENDAR\r\n/);
  assert.match(text, /END:VCALENDAR\r?\n?$/);
  for (const line of text.split('\r\n')) assert.ok(Buffer.byteLength(line) <= 75, line);
  const uids = [...text.matchAll(/UID:(\S+)/g)].map((m) => m[1]);
  const busy = days.filter((d) => d.items.length || d.kind === 'performance');
  assert.deepEqual(
    uids,
    busy.map((d) => `p-${d.day}@nuvelo`)
  );
  assert.deepEqual(
    [...text.matchAll(/DTSTART;VALUE=DATE:(\d{8})/g)].map((m) => m[1]),
    busy.map((d) => d.day.replaceAll('-', ''))
  );
  assert.match(text, /SUMMARY:Jury: Until the jury/);
});

test('the book holds the days, the checklists and every sheet with its reason', async () => {
  const drills = drillsIn(demo('corrente.abc').score).slice(0, 3);
  const plan: Plan = {
    ...PLAN,
    tasks: drills.map((d, k) => task(`d${k}`, { kind: 'drill', title: `Drill ${k}`, because: d.because, sheet: `s${k}` })),
    checklist: [{ key: 'c', piece: 1, title: 'Section A', checks: [{ key: 'x', kind: 'rhythm', text: 'Rhythm: steady', ticks: [] }] }]
  };
  const sheets = Object.fromEntries(drills.map((d, k) => [`s${k}`, d.document]));
  const { days } = planDays(plan, [], TODAY);
  const all = await bookFile({ plan, player: 'Nora', days, parts: ['days', 'checks', 'listening', 'sheets'], sheets });
  assert.equal(Buffer.from(all.subarray(0, 5)).toString(), '%PDF-');
  const onlyDays = await bookFile({ plan, player: 'Nora', days, parts: ['days'], sheets });
  const pages = async (file: Uint8Array): Promise<number> => (await PDFDocument.load(file)).getPageCount();
  assert.ok((await pages(all)) > (await pages(onlyDays)));
  assert.ok(all.length > onlyDays.length + 10_000, 'the music is drawn');
});

test('a sheet is kept as it was handed out', async () => {
  await keepSheet(db, OWNER, 's', '<one/>');
  await keepSheet(db, OWNER, 's', '<two/>');
  assert.equal(await practice.sheet('s'), '<one/>');
  assert.match(await refusedAs(() => practice.sheet('none')), /^404/);
  await addToLog(db, 'somebody else', 'p', 'visit', 'v1', visit('v1'));
  assert.equal((await practice.state('p')).visits.length, 1, 'names of one person are not those of another');
});
