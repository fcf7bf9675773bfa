/** Plans of two students before the jury, with some weeks of practice behind them. All of it is made up. */
import { nanoid } from 'nanoid';
import { studyOf } from '../src/core/analysis/study.ts';
import { perform } from '../src/core/performance/perform.ts';
import { playableScore } from '../src/core/performance/playable-score.ts';
import type { Player } from '../src/core/players/player.ts';
import { replay } from '../src/core/reading/log.ts';
import { checklistOf } from '../src/core/rehearsal/checklist.ts';
import { beginLadder, cleanRun, missedRun, type Ladder } from '../src/core/rehearsal/ladder.ts';
import { drillContext, drillsOf } from '../src/core/rehearsal/drills.ts';
import type { Mock } from '../src/core/rehearsal/audition.ts';
import { addDays, daysFrom, weekday, type Day } from '../src/core/rehearsal/plan/day.ts';
import { planDays } from '../src/core/rehearsal/plan/days.ts';
import { newPlan, planContentOf, type Plan, type Task } from '../src/core/rehearsal/plan/plan.ts';
import { turnsOf } from '../src/core/rehearsal/plan/rounds.ts';
import { drillAsTask, startOf, type TaskWithSheet } from '../src/core/rehearsal/plan/sheets.ts';
import { bestBefore, visitContentOf, type Visit } from '../src/core/rehearsal/plan/visit.ts';
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { techniqueOfReading } from '../src/core/technique/how-it-lies.ts';
import type { Command } from '../src/core/reading/commands/index.ts';
import type { Database } from '../src/lib/server/db/open.ts';
import { OWNER } from '../src/lib/server/owner.ts';
import { addToLog, keepPlan, keepSheet } from '../src/lib/server/repositories/practice.ts';

export interface DemoPractice {
  file: string;
  title: string;
  occasion: Plan['occasion'];
  minutes: number;
  /** Days from today to those of the week without practice. */
  rest: number[];
  /** Days before today on which it was begun, and after today on which it ends. */
  begun: number;
  ends: number;
  /** Quarters a minute that the jury asks for. */
  asked: { low: number; high: number };
  strategy: string;
  /** What the student wrote, by number of the visit. */
  said: Record<number, Pick<Visit, 'hard' | 'words'>>;
  takes: (Pick<Mock, 'sheet' | 'listener' | 'words'> & { ago: number; tempo: number })[];
}

export const DEMO_PRACTICE: DemoPractice[] = [
  {
    file: 'corrente.abc',
    title: 'Lene: until the autumn jury',
    occasion: 'jury',
    minutes: 35,
    rest: [3],
    begun: 19,
    ends: 9,
    asked: { low: 120, high: 132 },
    strategy: 'Be sure rather than grand at the crossings: a tempo that never breaks there decides all of it.',
    said: {
      3: { hard: 'third finger late', words: '' },
      9: { hard: '', words: 'Better with the bow on open strings first.' },
      17: { hard: 'shift', words: 'It holds at 100 now.' }
    },
    takes: [
      {
        ago: 8,
        tempo: 116,
        sheet: { sound: 'partly', time: 'no', pitch: 'partly', rhythm: 'yes', details: 'partly', calm: 'no' },
        listener: 'Ms Aldering',
        words: 'It ran away in the second half.'
      },
      {
        ago: 2,
        tempo: 122,
        sheet: { sound: 'yes', time: 'partly', pitch: 'yes', rhythm: 'yes', details: 'partly', calm: 'yes' },
        listener: 'the quartet',
        words: 'After the slip it went on as if nothing had been.'
      }
    ]
  },
  {
    file: 'etude.abc',
    title: 'Nora: until the lesson',
    occasion: 'lesson',
    minutes: 25,
    rest: [2, 4],
    begun: 12,
    ends: 5,
    asked: { low: 84, high: 92 },
    strategy: '',
    said: { 2: { hard: 'breath before the run', words: '' }, 6: { hard: '', words: 'Slurs in threes help.' } },
    takes: []
  }
];

/** How often a run comes off, of ten: it grows with the visits to a task and is worse where it is hard. */
const cleanOfTen = (task: Task, before: number): number => Math.min(9, Math.max(4, Math.round(8 - 4 * task.difficulty + before * 0.5)));

/** One turn as it may have been: the ladder as it is climbed. */
function ladderOf(task: Task, best: number | null, minutes: number, before: number): { ladder: Ladder; clean: number; missed: number } {
  let ladder = beginLadder(task.tempo!, best);
  const of = cleanOfTen(task, before);
  const runs = Math.max(3, minutes * 3);
  for (let k = 0; k < runs; k++) ladder = (k * 7 + before) % 10 < of ? cleanRun(ladder) : missedRun(ladder);
  return { ladder, ...ladder.runs };
}

/** What was practised on the days before today, as the plan of each day had it. */
function history(plan: Plan, today: Day, said: DemoPractice['said']): Visit[] {
  const visits: Visit[] = [];
  for (const day of daysFrom(plan.begins, addDays(today, -1))) {
    const items = planDays(plan, visits, day).days[0]?.items ?? [];
    const session = nanoid();
    const before = [...visits];
    for (const turn of turnsOf(items, plan)) {
      const task = plan.tasks.find((t) => t.key === turn.task)!;
      const times = before.filter((v) => v.task === task.key).length;
      const found = task.tempo ? ladderOf(task, bestBefore(before, task.key, day), turn.minutes, times) : null;
      visits.push({
        id: nanoid(),
        plan: plan.key,
        task: task.key,
        session,
        day,
        seconds: turn.minutes * 60 - 11 + (visits.length % 4) * 9,
        ladder: found && { start: found.ladder.start, end: found.ladder.at, best: found.ladder.best },
        clean: found?.clean ?? 1,
        missed: found?.missed ?? 0,
        felt: null,
        ...(said[visits.length] ?? { hard: '', words: '' }),
        pain: false
      });
    }
  }
  return visits;
}

/** Puts a plan with its history into the studio. @param commands the reading that is practised */
export async function addPractice(
  db: Database,
  demo: DemoPractice,
  at: { piece: number; reading: number; document: string; commands: readonly Command[]; player: Player },
  today: Day
): Promise<void> {
  const score = readMusicXml(at.document);
  const reading = replay([...at.commands]);
  const study = studyOf(score, reading.pins);
  const performance = perform(playableScore(study, reading.part, reading.instruments), reading);
  const context = drillContext(study, techniqueOfReading(study, reading, { player: at.player, performance }), reading.part, reading.judged);
  const piece = {
    id: at.piece,
    reading: at.reading,
    title: score.title,
    seconds: Math.round(performance.length),
    tempo: demo.asked,
    cuts: ''
  };
  const made: TaskWithSheet[] = [
    ...startOf(context, { document: at.document, score, reading }, piece),
    // Two at each place, so that there is something to choose.
    ...context.spots
      .flatMap((s) => drillsOf(context, s.from, s.to).slice(0, 2))
      .slice(0, 6)
      .map((d) => drillAsTask(context, at.piece, d))
  ];
  const tasks: Task[] = [];
  for (const { task, document } of made) {
    const sheet = document === null ? null : nanoid();
    if (sheet) await keepSheet(db, OWNER, sheet, document!);
    tasks.push({ ...task, key: nanoid(), sheet });
  }
  const plan: Plan = {
    ...newPlan(nanoid(), at.player.key, demo.title, addDays(today, -demo.begun), addDays(today, demo.ends)),
    ...{
      occasion: demo.occasion,
      minutes: demo.minutes,
      rest: demo.rest.map((d) => weekday(addDays(today, d))),
      strategy: demo.strategy,
      tasks,
      pieces: [piece]
    },
    checklist: checklistOf(study, context.technique, reading.part, reading.markings).map((s, n) => ({
      key: nanoid(),
      piece: at.piece,
      title: `${score.title}: ${s.title}`,
      checks: s.checks.map((c, k) => ({ ...c, key: nanoid(), ticks: (n + k) % 2 ? [] : [addDays(today, -3 - k)] }))
    }))
  };
  const { key } = plan;
  await keepPlan(db, OWNER, key, planContentOf(plan));
  for (const v of history(plan, today, demo.said)) await addToLog(db, OWNER, key, 'visit', v.id, visitContentOf(v));
  for (const { ago, tempo, ...take } of demo.takes)
    await addToLog(db, OWNER, key, 'mock', nanoid(), {
      day: addDays(today, -ago),
      order: [at.piece],
      tempi: { [at.piece]: tempo },
      ...take
    });
}
