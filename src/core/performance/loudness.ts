import { handsApart } from '../reading/hands.ts';
import { dynamicLevels, isForHand } from '../reading/in-force.ts';
import { dynamicPlan, levelDb, levelOf, type DynamicPlan } from '../reading/dynamic-plan.ts';
import { toTicks } from '../analysis/sounding-score.ts';
import { cmp } from '../score/fraction.ts';
import { TO_THE_FRONT } from '../style/terms/front.ts';
import { soundOf } from '../markings/describe.ts';
import type { Reading } from '../reading/reading.ts';
import { dynamicStep, isForced, STEP_DB, VELOCITY } from '../style/dynamics.ts';
import type { EffectKey } from '../style/effects.ts';
import { SIGN_SOUNDS } from '../style/articulations.ts';
import { INFLECTIONS, type Inflection } from '../style/inflections.ts';
import { EMPHASIS, LOUDNESS } from '../style/performance-weights.ts';
import { PLAN } from '../style/plan-weights.ts';
import type { Settings } from './settings.ts';
import type { PlayableTone, PlayableScore } from './playable-score.ts';
import { searchBy } from '../search.ts';

/** The effects on loudness, in the order of their shares. */
export const LOUDNESS_EFFECTS = [
  'plan',
  'meter',
  'line',
  'harmony',
  'accent',
  'balance',
  'second-time',
  'touch'
] as const satisfies readonly EffectKey[];

const ACCENT = LOUDNESS_EFFECTS.indexOf('accent');

/** Loudness of one note in decibels relative to mezzo forte. */
export interface Loudness {
  /** As the bare marks have it: levels that hold, nothing between them. */
  literal: number;
  /** By effect, in the order of LOUDNESS_EFFECTS. */
  shares: Float64Array;
  /** Change of the plan from the note's beginning to its end, and what an accent loses. */
  swell: number;
}

/** Asks for the loudness of notes under one reading. */
export interface LoudnessMarks {
  /** By part and staff, from 1: the hands of a keyboard are apart only where something is said to one of them. */
  plans: DynamicPlan[][];
  /** Printed levels by part and staff in order of time: ticks and decibels. */
  levels: { at: number; db: number }[][][];
  accents: Map<string, number>;
  /** Stretches in which a part is marked to sing, by part, in ticks. */
  expressive: { from: number; to: number }[][];
  /** Where a sforzando stands, as "part|tick". */
  forced: ReadonlySet<string>;
  /** Amounts of the effects where they are the same everywhere, in the order of LOUDNESS_EFFECTS. */
  amounts: number[] | null;
}

/** The plans of all parts; that of the reading's own part can be given, for it is known already. */
export function loudnessMarks(
  playable: PlayableScore,
  reading: Reading,
  settings: Settings,
  own: DynamicPlan | null = null
): LoudnessMarks {
  const { score, facts } = playable;
  const free = { levels: {}, peak: null, ceiling: null };
  const marks = dynamicLevels(score);
  const apart = handsApart(score, reading);
  const byHand = <T>(part: number, of: (hand: number) => T): T[] => {
    const both = of(1);
    const result: T[] = [];
    for (let staff = 1; staff <= score.parts[part].staves; staff++)
      result[staff] = staff > 1 && apart.has(`${part} ${staff}`) ? of(staff) : both;
    return result;
  };
  const plans = score.parts.map((p) => {
    const asRead = p.index === reading.part ? reading : { ...reading, part: p.index, plan: free };
    return byHand(p.index, (hand) => (hand === 1 && p.index === reading.part && own ? own : dynamicPlan(score, facts, asRead, hand)));
  });
  const accents = new Map<string, number>();
  for (const m of reading.markings) {
    const { accent, inflects } = soundOf(m);
    if (accent && m.note) accents.set(m.note, Math.max(accent, accents.get(m.note) ?? 0));
    const softer = inflects && (INFLECTIONS[inflects] as Inflection).softer;
    if (softer && m.note) accents.set(m.note, -softer);
  }
  const levels = score.parts.map((p) =>
    byHand(p.index, (hand) =>
      marks
        .filter((l) => l.part === p.index && isForHand(l, hand))
        .map((l) => ({ at: toTicks(playable.sounding, l.start), db: levelDb(l.step) }))
    )
  );
  const amounts = settings.even ? LOUDNESS_EFFECTS.map((e) => settings.amount(e, 0)) : null;
  return { plans, levels, accents, expressive: expressiveStretches(playable, reading), forced: forcedNotes(playable, reading), amounts };
}

/** Where a part of several is marked to sing: from the words to the next level of the part. */
function expressiveStretches(playable: PlayableScore, reading: Reading): LoudnessMarks['expressive'] {
  const { score, sounding } = playable;
  if (score.parts.length < 2) return score.parts.map(() => []);
  const printed = score.directions.flatMap((d) => (d.kind === 'words' ? [{ part: d.part, start: d.start, text: d.text }] : []));
  const own = reading.markings.flatMap((m) => {
    const { words } = soundOf(m);
    return words === undefined ? [] : [{ part: m.part, start: m.start, text: words }];
  });
  const words = [...printed, ...own].filter((w) => TO_THE_FRONT.test(w.text));
  const marks = dynamicLevels(score, reading.markings);
  return score.parts.map((p) =>
    words
      .filter((w) => w.part === p.index)
      .map((w) => {
        const next = marks.find((l) => l.part === p.index && cmp(l.start, w.start) > 0);
        return { from: toTicks(sounding, w.start), to: next ? toTicks(sounding, next.start) : sounding.totalTicks };
      })
  );
}

/** Sforzandi, printed and editorial, as "part|tick". */
function forcedNotes(playable: PlayableScore, reading: Reading): Set<string> {
  const printed = playable.score.directions.flatMap((d) => (d.kind === 'dynamic' && isForced(d.value) ? [d] : []));
  const editorial = reading.markings.filter((m) => isForced(soundOf(m).sign ?? ''));
  return new Set([...printed, ...editorial].map((d) => `${d.part}|${toTicks(playable.sounding, d.start)}`));
}

const byTime = searchBy((level: LoudnessMarks['levels'][number][number][number]) => level.at);

/** The printed level in force at a tick, in decibels; mezzo forte where none is given yet. */
function inForce(levels: LoudnessMarks['levels'][number][number], ticks: number): number {
  const last = levels[byTime.lastBegun(levels, ticks)];
  return last && last.at <= ticks ? last.db : 0;
}

const clampTo = (value: number, most: number): number => Math.max(-most, Math.min(most, value));

/** Loudness of one tone, with the share of every effect; written to `out`, which is made once for many. */
export function loudnessOf(
  playable: PlayableScore,
  t: PlayableTone,
  l: LoudnessMarks,
  settings: Settings,
  reading: Reading,
  pass: number,
  out: Loudness
): void {
  const { tone } = t;
  const { note } = tone;
  const at = tone.start;
  const tpq = playable.sounding.ticksPerQuarter;
  const literal = inForce(l.levels[note.part][note.staff] ?? l.levels[note.part][1], at);
  const points = (l.plans[note.part]?.[note.staff] ?? l.plans[note.part]?.[1])?.points ?? [];
  // The level just after the note begins: a mark on the note itself holds for it.
  const begins = levelDb(levelOf(points, at / tpq + 1e-6));
  const ends = levelDb(levelOf(points, tone.end / tpq - 1e-6));
  const emphasis = EMPHASIS[reading.period];
  const meter = t.newHarmony ? LOUDNESS.newHarmony : t.thirdBeat ? LOUDNESS.thirdBeat : LOUDNESS.meter[3 - t.level];
  const before = tone.previous;
  const resolves = before && before.end === tone.start && Math.abs(before.height - tone.height) === 1;
  const harmony =
    t.role === 'appoggiatura' || t.role === 'suspension'
      ? LOUDNESS.dissonance
      : t.connecting
        ? LOUDNESS.connecting
        : resolves && playable.leaning.has(before.note.id)
          ? LOUDNESS.resolution
          : 0;
  let accent = l.accents.get(note.id) ?? 0;
  for (const m of note.marks ?? []) accent = Math.max(accent, SIGN_SOUNDS[m.name]?.accent ?? 0);
  if (l.forced.has(`${note.part}|${at}`)) {
    const strong = settings.school('sforzando', at) === 'absolute' ? levelDb(dynamicStep('f')! + 1) - begins : 0;
    accent = Math.max(accent, LOUDNESS.sforzandoSteps * STEP_DB, strong);
  }
  // One part on one staff has no background.
  const front = t.front || (playable.score.parts.length === 1 && playable.score.parts[0].staves === 1);
  const repeats = settings.school('repeats', at);
  const again = pass > 0 ? (repeats === 'echo' ? LOUDNESS.echo : repeats === 'vary-dynamics' ? LOUDNESS.varied : 0) : 0;
  const values = out.shares;
  // In the order of LOUDNESS_EFFECTS.
  values[0] = begins - literal;
  values[1] = t.level === 0 && emphasis.offBeat !== undefined ? emphasis.offBeat : meter * emphasis.meter;
  values[2] = clampTo(t.above * LOUDNESS.perSemitone, LOUDNESS.mostLine) * emphasis.line;
  values[3] = harmony * emphasis.harmony;
  values[4] = accent;
  const expressive = l.expressive[note.part].some((x) => x.from <= at && at < x.to);
  values[5] = expressive ? LOUDNESS.expressive : front ? 0 : -PLAN.background * STEP_DB;
  values[6] = again;
  values[7] = t.slur === 3 && settings.school('slur-pairs', at) === 'lift-second' ? LOUDNESS.second : 0;
  let sum = literal;
  for (let k = 0; k < values.length; k++) {
    values[k] *= l.amounts ? l.amounts[k] : settings.amount(LOUDNESS_EFFECTS[k], at);
    sum += values[k];
  }
  // What leaves the range of the scale is taken from the largest share.
  const over = sum - Math.max(LOUDNESS.softest, Math.min(LOUDNESS.loudest, sum));
  if (over) {
    const k = values.reduce((best, v, i) => (Math.abs(v) > Math.abs(values[best]) && Math.sign(v) === Math.sign(over) ? i : best), 0);
    values[k] -= over;
  }
  out.literal = literal;
  out.swell = (ends - begins) * settings.amount('plan', at) - Math.max(0, values[ACCENT]) * LOUDNESS.decay;
}

/** Decibels over mf at which the velocities end. */
const LOUDEST_VELOCITY = (STEP_DB * Math.log(127 / VELOCITY.mf)) / Math.log(VELOCITY.f / VELOCITY.mf);

/**
 * How the levels of a piece are drawn together so that its loudest has room: what lies over mf keeps its order and its proportions,
 * and nothing is cut off. Handbook 5.1: levels are relative to each other in this piece.
 */
export function withinRange(levels: readonly number[]): (db: number) => number {
  const most = levels.reduce((a, b) => Math.max(a, b), 0);
  const ratio = most > LOUDEST_VELOCITY ? LOUDEST_VELOCITY / most : 1;
  return (db) => (db > 0 ? db * ratio : db);
}

/** MIDI velocity of a loudness: f = 90 and mf = 64 as MusicXML's percentages have it (handbook 5.2), each step in the same ratio. */
export function velocityOf(db: number): number {
  const value = VELOCITY.mf * (VELOCITY.f / VELOCITY.mf) ** (db / STEP_DB);
  return Math.max(1, Math.min(127, Math.round(value)));
}

/** Loudness as brightness from 0 (dull) to 1, for samplers that can use it. */
export const brightnessOf = (db: number): number =>
  Math.max(0, Math.min(1, (db - LOUDNESS.softest) / (LOUDNESS.loudest - LOUDNESS.softest)));
