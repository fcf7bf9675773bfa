import { barList } from '../../score/position.ts';
import { capital, listed } from '../../sentences.ts';
import { PRACTICE as W } from '../../style/practice.ts';
import { DRILLS, STARTS } from '../../style/drills.ts';
import { nearestOnScale } from '../../style/tempo-words.ts';
import type { Drill, DrillContext } from '../context.ts';
import { PART_WORDS, type BarDifficulty, type HotSpot } from '../difficulty.ts';
import { tempoOf } from '../drills.ts';
import type { PlanPiece, Task } from './plan.ts';

/** A task before it has its name and its notes. */
export type NewTask = Omit<Task, 'key' | 'sheet'>;

const hardest = (difficulty: readonly BarDifficulty[], from: number, to: number): number =>
  Math.max(0, ...difficulty.slice(from, to + 1).map((b) => b.value));

/** Loud or soft, high for long: for short portions. Handbook 21.6. */
const isLoudHigh = (c: DrillContext, from: number, to: number): boolean =>
  c.difficulty.slice(from, to + 1).some((b) => b.parts.extremes >= W.high && (b.parts.load >= W.load || b.parts['soft-high'] > 0));

/** A ladder for some bars: the harder, the slower it begins. */
function ladderOf(c: DrillContext, difficulty: number): { start: number; goal: number } {
  const goal = nearestOnScale(tempoOf(c.study.score));
  return { start: Math.min(goal, nearestOnScale(goal * (STARTS.easy - (STARTS.easy - STARTS.hard) * difficulty))), goal };
}

/** Some bars as a passage to be practised. @param because what is said of them; null for what was measured */
export function passageTask(c: DrillContext, piece: number, from: number, to: number, because: string | null = null): NewTask {
  const { measures } = c.study.score;
  const difficulty = hardest(c.difficulty, from, to);
  const bars = Array.from({ length: to - from + 1 }, (_, k) => from + k);
  const spot = c.spots.find((s) => s.from <= to && s.to >= from);
  const why = spot ? listed(spot.why.map((w) => PART_WORDS[w])) : 'chosen by hand';
  return {
    kind: 'passage',
    piece,
    title: capital(barList(measures, bars)),
    because: because ?? why,
    how: 'Slowly first, with every mark of the page; then up the ladder. Stop at an error, find the place, and go into it from a bar before.',
    bars: { from, to },
    difficulty,
    minutes: W.passage,
    tempo: ladderOf(c, difficulty),
    drill: null,
    loudHigh: isLoudHigh(c, from, to)
  };
}

/** A drill as a task. */
export const drillTask = (c: DrillContext, piece: number, drill: Drill): NewTask => ({
  kind: 'drill',
  piece,
  title: `${DRILLS[drill.kind].name}, ${barList(c.study.score.measures, barsOf(drill))}`,
  because: drill.because,
  how: drill.how,
  bars: { from: drill.from, to: drill.to },
  difficulty: hardest(c.difficulty, drill.from, drill.to),
  minutes: W.drill,
  tempo: drill.tempo,
  drill: { kind: drill.kind, settings: drill.settings },
  loudHigh: isLoudHigh(c, drill.from, drill.to)
});

const barsOf = ({ from, to }: { from: number; to: number }): number[] => Array.from({ length: to - from + 1 }, (_, k) => from + k);

/** A marking, question or finding as a task of its own. */
export const ownTask = (c: DrillContext, piece: number, from: number, to: number, title: string, how: string): NewTask => ({
  ...passageTask(c, piece, from, to, how),
  kind: 'own',
  title: `${capital(barList(c.study.score.measures, barsOf({ from, to })))}: ${title}`,
  how,
  minutes: W.own
});

/** All that a plan begins with for a piece: its hardest places, run-throughs, and listening. */
export function firstTasks(c: DrillContext, piece: PlanPiece): NewTask[] {
  const whole = { piece: piece.id, bars: null, difficulty: 0, tempo: null, drill: null, loudHigh: false };
  const length = Math.max(1, piece.seconds / 60);
  const spots: HotSpot[] = [...c.spots].sort((a, b) => b.value - a.value).slice(0, W.firstSpots);
  return [
    ...spots.sort((a, b) => a.from - b.from).map((s) => passageTask(c, piece.id, s.from, s.to)),
    {
      ...whole,
      kind: 'listen',
      title: `Listen: ${piece.title}`,
      because: 'what is heard inside comes out',
      how: 'Hear it once with the page, without the instrument; sing what leads.',
      minutes: W.listen
    },
    {
      ...whole,
      kind: 'slow-run',
      title: `Slowly through: ${piece.title}`,
      because: 'slow run-throughs before the date, nothing new',
      how: 'At two thirds of the tempo, with every mark, without a stop.',
      minutes: Math.ceil(length * W.slowRun) + W.aroundRun
    },
    {
      ...whole,
      kind: 'run',
      title: `Through: ${piece.title}`,
      because: 'the whole, as it will be heard',
      how: 'Once, as it will be heard: no stop and no second try. Afterwards note the one place that needs you.',
      minutes: Math.ceil(length) + W.aroundRun
    }
  ];
}
