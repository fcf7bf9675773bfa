import type { Facts } from '../analysis/facts.ts';
import { add, cmp, fromNumber, lte, sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { DYNAMIC_STEPS, dynamicStep, STEP_DB } from '../style/dynamics.ts';
import { PLAN } from '../style/plan-weights.ts';
import { PROFILES } from '../style/profiles.ts';
import type { Reading } from './reading.ts';
import { dynamicLevels, isForHand } from './in-force.ts';
import { peakBar } from './peak.ts';
import { swellsOf } from './swells.ts';

/** A corner of the plan: time in quarters, level in steps (0 = pppp … 9 = ffff); a jump is two corners at one time. */
export interface PlanPoint {
  time: number;
  level: number;
}

/** A hairpin with what it may spend. Levels in steps. */
export interface PlannedHairpin {
  id: string;
  up: boolean;
  start: Fraction;
  end: Fraction;
  from: number;
  to: number;
  /** Steps between its beginning and the loudest (or softest) that the plan holds: what there is to grow into. */
  room: number;
  editorial: boolean;
  /** No mark says how far it goes; the profile's usual span is taken. */
  open: boolean;
}

export interface PlannedBar {
  measure: number;
  /** Level at the middle of the bar. */
  level: number;
  pulled: boolean;
}

/** The loudness of one part over the whole piece. */
export interface DynamicPlan {
  points: PlanPoint[];
  hairpins: PlannedHairpin[];
  bars: PlannedBar[];
  /** Where it is loudest: measure index and level. */
  peak: { measure: number; level: number };
  softest: number;
  loudest: number;
  /** Steps by which accompanying voices stay below. */
  background: number;
}

const LAST = DYNAMIC_STEPS.length - 1;
const clamp = (value: number): number => Math.max(0, Math.min(LAST, value));

/** Level at a time, between the corners. */
export function levelOf(points: readonly PlanPoint[], time: number): number {
  let low = 0;
  let high = points.length - 1;
  if (high < 0) return 4.5;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (points[middle].time <= time) low = middle;
    else high = middle - 1;
  }
  const a = points[low];
  const b = points[low + 1];
  if (!b || time <= a.time || b.time === a.time) return a.level;
  return a.level + ((b.level - a.level) * (time - a.time)) / (b.time - a.time);
}

/** "mf", "mf+", "p−": a level in the piece's own signs. */
export function levelName(level: number): string {
  const whole = clamp(Math.round(level));
  const rest = level - whole;
  return DYNAMIC_STEPS[whole] + (rest > 0.2 ? '+' : rest < -0.2 ? '−' : '');
}

/** Decibels of a level relative to mf. Handbook 5.1. */
export const levelDb = (level: number): number => (level - dynamicStep('mf')!) * STEP_DB;

/** What the marks alone say: levels hold, hairpins go to their goals. */
function markedCurve(score: Score, facts: Facts, reading: Reading, hand: number): { points: PlanPoint[]; hairpins: PlannedHairpin[] } {
  const { part } = reading;
  const profile = PROFILES[reading.period];
  const levels = dynamicLevels(score, reading.markings).filter((l) => l.part === part && isForHand(l, hand));
  const marks = swellsOf(score, facts, reading.markings, levels, part, hand);
  const first = dynamicStep(profile.opening ?? 'mf') ?? 5;
  let step = levels[0] && cmp(levels[0].start, score.measures[0].start) === 0 ? levels[0].step : first;
  const points: PlanPoint[] = [{ time: 0, level: step }];
  const hairpins: PlannedHairpin[] = [];
  const events = [
    ...levels.map((l) => ({ at: l.start, order: 1, level: l.step, pin: null })),
    ...marks.map((h) => ({ at: h.start, order: 2, level: 0, pin: h }))
  ].sort((a, b) => cmp(a.at, b.at) || a.order - b.order);
  let done = 0;
  let back: { level: number; time: number } | null = null;
  const comeBack = (): void => {
    if (!back) return;
    points.push({ time: back.time, level: step }, { time: back.time, level: back.level });
    step = back.level;
    back = null;
  };
  for (const e of events) {
    const time = toNumber(e.at);
    if (back && time >= back.time) comeBack();
    if (!e.pin) {
      // A mark inside a hairpin is its goal and has been drawn with it.
      if (time < done) continue;
      back = null;
      points.push({ time, level: step });
      step = e.level;
      points.push({ time, level: step });
      continue;
    }
    const { pin } = e;
    if (time < done) continue;
    const until = toNumber(add(pin.end, measureAt(score, pin.end).length));
    const inside = levels.find((l) => cmp(l.start, pin.start) > 0 && lte(l.start, pin.end) && l.step !== step && l.step > step === pin.up);
    const goal = inside ?? levels.find((l) => lte(pin.end, l.start) && toNumber(l.start) <= until);
    // Without a goal, a short hairpin inflects one figure and an editorial one shapes its phrase: the level in force
    // comes back after the figure, or with the next phrase.
    const short = toNumber(sub(pin.end, pin.start)) <= toNumber(measureAt(score, pin.start).length);
    const fits = goal && goal.step !== step && goal.step > step === pin.up;
    const inflects = !fits && short && pin.editorial && !pin.words;
    const by = inflects ? PLAN.inflection : profile.hairpinSteps * PLAN.bySize[pin.size];
    const to = pin.toNothing ? Math.min(PLAN.nothing, clamp(step - PLAN.dying)) : fits ? goal.step : clamp(step + (pin.up ? 1 : -1) * by);
    done = toNumber(pin.end);
    points.push({ time, level: step }, { time: done, level: to });
    const { id, up, start, end, editorial } = pin;
    hairpins.push({ id, up, start, end, editorial, from: step, to, room: 0, open: !goal && !pin.toNothing });
    if (inflects) points.push({ time: done, level: step });
    else if (!fits && pin.editorial && !pin.words)
      back = { level: step, time: toNumber(facts.phrases.find((p) => cmp(p.start, pin.end) >= 0)?.start ?? pin.end) };
    if (!inflects) step = to;
  }
  comeBack();
  return { points, hairpins };
}

/** The arch of each phrase, where no hairpin shapes it: louder toward its goal, softer at its ends (handbook 7.3). */
function withArches(points: PlanPoint[], facts: Facts, hairpins: readonly PlannedHairpin[], height: number): PlanPoint[] {
  if (!height) return points;
  const result = [...points];
  for (const phrase of facts.phrases) {
    const from = toNumber(phrase.start);
    const to = toNumber(phrase.end);
    if (to - from < 2 || hairpins.some((h) => toNumber(h.start) < to && toNumber(h.end) > from)) continue;
    const goal = from + PLAN.archPeak * (to - from);
    // A level that changes inside the phrase keeps its own edge.
    if (points.some((p) => p.time > from && p.time < to)) continue;
    const level = levelOf(points, from);
    result.push({ time: from, level }, { time: from, level: level - height / 2 });
    result.push(
      { time: goal, level: level + height / 2 },
      { time: to, level: level - height / 2 },
      { time: to, level: levelOf(points, to) }
    );
  }
  return result
    .map((p, k) => ({ p, k }))
    .sort((a, b) => a.p.time - b.p.time || a.k - b.k)
    .map(({ p }) => p);
}

/** The loudest moment of each measure. */
function loudestIn(score: Score, points: readonly PlanPoint[]): number[] {
  const levels = score.measures.map((m) => {
    const from = toNumber(m.start);
    const to = from + toNumber(m.length);
    return Math.max(levelOf(points, from + 1e-6), levelOf(points, to - 1e-6));
  });
  for (const p of points) {
    const k = measureAt(score, fromNumber(p.time)).index;
    if (p.time > toNumber(score.measures[k].start) + 1e-9) levels[k] = Math.max(levels[k], p.level);
  }
  return levels;
}

/** Length of the piece in quarters, as written. */
const endOf = (score: Score): number => {
  const last = score.measures[score.measures.length - 1];
  return toNumber(last.start) + toNumber(last.length);
};

/** Pulled bars stand where they were pulled to; the difference eases off on either side. */
function pulled(score: Score, points: PlanPoint[], levels: Record<number, number>): PlanPoint[] {
  const middles = Object.entries(levels)
    .map(([m, level]) => ({ measure: score.measures[Number(m)], level }))
    .filter((x) => x.measure)
    .map(({ measure, level }) => {
      const at = toNumber(measure.start) + toNumber(measure.length) / 2;
      return { at, bar: toNumber(measure.length) || 4, by: level - levelOf(points, at) };
    })
    .sort((a, b) => a.at - b.at);
  if (!middles.length) return points;
  const offset = (time: number): number => {
    const k = middles.findIndex((m) => m.at >= time);
    const next = k < 0 ? undefined : middles[k];
    const before = k < 0 ? middles.at(-1) : middles[k - 1];
    const reach = (m: { bar: number }) => m.bar * PLAN.easeBars;
    if (next && before && next.at - before.at <= reach(next) + reach(before)) {
      const share = (time - before.at) / (next.at - before.at);
      return before.by + (next.by - before.by) * share;
    }
    const ease = (m: { at: number; bar: number; by: number } | undefined): number =>
      m ? m.by * Math.max(0, 1 - Math.abs(time - m.at) / reach(m)) : 0;
    return ease(before) + ease(next);
  };
  const end = endOf(score);
  const times = new Set<number>(points.map((p) => p.time));
  for (const m of middles)
    for (const t of [m.at - m.bar * PLAN.easeBars, m.at, m.at + m.bar * PLAN.easeBars]) times.add(Math.max(0, Math.min(end, t)));
  const result: PlanPoint[] = [];
  for (const time of [...times].sort((a, b) => a - b)) {
    const own = points.filter((p) => p.time === time);
    for (const p of own.length ? own : [{ time, level: levelOf(points, time) }]) result.push({ time, level: p.level + offset(time) });
  }
  return result;
}

/** Levels above the middle are drawn together so that none goes over the ceiling; what is soft stays. */
function under(points: PlanPoint[], ceiling: number): PlanPoint[] {
  const most = Math.max(...points.map((p) => p.level));
  if (most <= ceiling) return points;
  const middle = Math.min(ceiling, points.reduce((s, p) => s + p.level, 0) / points.length);
  return points.map((p) =>
    p.level <= middle ? p : { ...p, level: middle + ((p.level - middle) * (ceiling - middle)) / Math.max(1e-9, most - middle) }
  );
}

/**
 * The dynamic plan of a reading: from printed and editorial marks, the arches of its phrases, and what the
 * instructor pulled at. A hand of a keyboard has its own, where something is said to it alone. Levels in steps of the dynamic scale; times in quarters as written. Handbook 5.
 */
export function dynamicPlan(score: Score, facts: Facts, reading: Reading, hand = 1): DynamicPlan {
  const { points: marked, hairpins } = markedCurve(score, facts, reading, hand);
  let points = withArches(marked, facts, hairpins, PLAN.arch[reading.period]);
  points = pulled(score, points, reading.plan.levels);
  const { peak: wanted, ceiling } = reading.plan;
  const middleOf = (m: number): number => toNumber(score.measures[m].start) + toNumber(score.measures[m].length) / 2;
  if (wanted !== null && score.measures[wanted]) {
    const at = middleOf(wanted);
    const others = Math.max(...points.map((p) => p.level));
    const top = Math.min(LAST, Math.max(levelOf(points, at), others));
    points = pulled(score, under(points, top - PLAN.overOthers), { [wanted]: top });
  }
  points = (ceiling === null ? points : under(points, ceiling)).map((p) => ({ ...p, level: clamp(p.level) }));
  const end = endOf(score);
  points.push({ time: end, level: points[points.length - 1].level });
  const bars = score.measures.map((m) => ({
    measure: m.index,
    level: levelOf(points, middleOf(m.index)),
    pulled: m.index in reading.plan.levels
  }));
  const loudest = Math.max(...points.map((p) => p.level));
  const softest = Math.min(...points.map((p) => p.level));
  const peak = wanted !== null && score.measures[wanted] ? wanted : peakBar(score, facts, reading.part, loudestIn(score, points));
  return {
    points,
    hairpins: hairpins.map((h) => {
      const from = levelOf(points, toNumber(h.start) + 1e-6);
      return { ...h, from, to: levelOf(points, toNumber(h.end) - 1e-6), room: h.up ? loudest - from : from - softest };
    }),
    bars,
    peak: { measure: Math.max(0, peak), level: loudest },
    softest,
    loudest,
    background: PLAN.background
  };
}
