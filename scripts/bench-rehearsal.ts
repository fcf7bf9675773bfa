import { analyse } from '../src/core/analysis/analyse.ts';
import { studyOf } from '../src/core/analysis/study.ts';
import { PAPERS } from '../src/core/reading/page-settings.ts';
import { drillContext, drillsOf, makeDrill } from '../src/core/rehearsal/drills.ts';
import { addDays } from '../src/core/rehearsal/plan/day.ts';
import { planDays } from '../src/core/rehearsal/plan/days.ts';
import { newPlan, type Task } from '../src/core/rehearsal/plan/plan.ts';
import { readAbc } from '../src/core/score/abc/read.ts';
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { techniqueOf } from '../src/core/technique/technique.ts';
import { openEngraver } from '../src/lib/server/jobs/pages/engraver.ts';
import { eighths } from './bench-technique.ts';

/** How long difficulty, drills and plans take; the first two were asked for under 300 ms each. */
export async function rehearsal(
  timed: (work: () => unknown, times?: number) => number,
  say: (what: string, value: string, limit: string) => void
): Promise<void> {
  const score = readMusicXml(readAbc(eighths('Violin')));
  const study = studyOf(score);
  void study.details;
  const technique = techniqueOf(study, { part: 0, instrument: null, period: 'classical', schools: {}, tempo: 160, pins: new Map() });
  const last = score.measures.length - 1;
  const offered = timed(() => drillsOf(drillContext(study, technique, 0), 0, last), 5);
  const ratio = offered / timed(() => analyse(score), 3);
  say(
    `Difficulty and offered drills, ${last + 1} bars; against the analysis`,
    `${offered.toFixed(0)} ms ${ratio.toFixed(2)} ×`,
    '≤ 300 ms'
  );

  const context = drillContext(study, technique, 0);
  const line = (await openEngraver())(PAPERS.A4[0], 20);
  let group = 2;
  const changed = timed(() => {
    const drill = makeDrill(context, 'groups', 0, 7, { group: 2 + (group++ % 6) });
    if (drill) line.alone(drill.document);
  }, 10);
  say('One drill changed and engraved', `${changed.toFixed(0)} ms`, '≤ 300 ms');

  const task = (key: number): Task => ({
    ...{ key: `t${key}`, kind: 'passage', piece: 1, title: '', because: '', how: '', drill: null, sheet: null, loudHigh: false },
    ...{ bars: { from: key * 3, to: key * 3 + 2 }, difficulty: (key % 10) / 10, minutes: 6, tempo: { start: 60, goal: 100 } }
  });
  const from = '2026-01-05';
  const plan = { ...newPlan('p', null, '', from, addDays(from, 60)), minutes: 60, tasks: Array.from({ length: 60 }, (_, k) => task(k)) };
  const days = timed(() => planDays(plan, [], from), 10);
  say('The days of a plan, 60 tasks over 60 days', `${days.toFixed(0)} ms`, '≤ 100 ms');
}
