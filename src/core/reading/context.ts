import type { CadenceFact, ChordFact, Facts, PhraseFact } from '../analysis/facts.ts';
import { firstFrom, toTicks, type SoundingScore, type Tone } from '../analysis/sounding-score.ts';
import { cmp, lte, type Fraction } from '../score/fraction.ts';
import type { Measure, Note, Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { instrumentOf, type InstrumentChoices } from '../style/instruments/instrument-of.ts';
import type { Instrument } from '../style/instruments/instrument.ts';
import type { LocalAnswer, SchoolAnswers } from '../style/schools.ts';
import type { Details } from '../analysis/details.ts';
import type { Study } from '../analysis/study.ts';
import { BREAK } from '../style/rule-weights.ts';
import { PROFILES, type Period, type PeriodProfile } from '../style/profiles.ts';
import { once } from '../once.ts';
import { dynamicPlan } from './dynamic-plan.ts';
import { EMPTY_READING } from './reading.ts';
import { dynamicLevels, levelInForce, type Level } from './in-force.ts';
import { placeWords } from './claims/places.ts';
import { tuneOf } from './tune.ts';

/** The style of a reading, as its rules need it. */
export interface Style {
  period: Period;
  /** Answers that differ from the profile's. */
  schools: SchoolAnswers;
  /** Answers for some bars only, in the order in which they were given. */
  local?: readonly LocalAnswer[];
  /** Rules that are switched off (0) or made stronger or weaker, by id. */
  ruleFactors: Record<string, number>;
  /** Instruments that the teacher has corrected, by part. */
  instruments?: InstrumentChoices;
}

/** Everything that a rule may look at, with the questions that rules ask most. */
export interface RuleContext {
  score: Score;
  facts: Facts;
  period: Period;
  profile: PeriodProfile;
  /** How this reading answers the questions of school, the profile's own answers included. */
  schools: SchoolAnswers;
  details: Details;
  /** The part that the reading is for. */
  part: number;
  instrument: Instrument;
  sounding: SoundingScore;
  /** The part's leading line, ties joined. */
  line: Tone[];
  /** What is struck without a pitch, in order of time. */
  strokes: readonly Note[];
  levels: Level[];
  bar(at: Fraction): Measure;
  /** "bar 12" or "bar 12, beat 3". */
  place(at: Fraction, withBeat?: boolean): string;
  chordAt(at: Fraction): ChordFact | null;
  cadenceOf(phrase: PhraseFact): CadenceFact | null;
  /** Measure in which the page is loudest, and for which most speaks of those that are nearly as loud. */
  peak(): number;
  /** The level in force, for the hand of a staff. */
  level(at: Fraction, hand?: number): Level | null;
  /** Tones of the line that begin within [from, to). */
  between(from: Fraction, to: Fraction): Tone[];
  /** The first tone of the line at or after a moment. */
  firstAt(at: Fraction): Tone | null;
  /** The last tone of the line before a moment. */
  lastBefore(at: Fraction): Tone | null;
  /** Tones of the line, and all tones of the part, that are written in a measure. */
  lineIn(measure: number): Tone[];
  tonesIn(measure: number): Tone[];
  /** The notes of a measure of the part as text: the same text, the same music; empty where it rests. */
  contentOf(measure: number): string;
  /** A printed slur holds these two neighbours together. */
  slurred(a: Tone, b: Tone): boolean;
  /** A printed hairpin touches [from, to]. */
  hairpinIn(from: Fraction, to: Fraction): boolean;
  /** The part has the tune at a note: the leading line of the whole goes through it. */
  hasTune(tone: Tone): boolean;
  /** No rest of half a beat or more stands between neighbours from one tone of the line to another. */
  unbroken(from: Tone, to: Tone): boolean;
}

export function ruleContext(study: Study, style: Style, part = 0): RuleContext {
  const { score, facts, details } = study;
  const { period } = style;
  const sounding = study.soundingPart(part);
  const line = sounding.melody;
  const levels = dynamicLevels(score);
  const owner = score.parts[part];
  const place = new Map(line.map((t, k) => [t.note.id, k]));
  const spans = score.slurs
    .filter((s) => s.kind === 'slur')
    .map((s) => ({ from: place.get(s.from), to: place.get(s.to) }))
    .filter((s): s is { from: number; to: number } => s.from !== undefined && s.to !== undefined);
  const held = new Array<boolean>(line.length).fill(false);
  for (const { from, to } of spans) for (let k = from; k < to; k++) held[k] = true;
  const hairpins = score.hairpins.filter((h) => h.part === part);
  const tune = tuneOf(study);
  const bar = (at: Fraction) => measureAt(score, at);
  const tonesIn = byMeasure(sounding.tones);
  const indexAt = (at: Fraction) => firstFrom(line, toTicks(sounding, at));
  return {
    score,
    facts,
    period,
    profile: PROFILES[period],
    schools: { ...PROFILES[period].schools, ...style.schools },
    details,
    part,
    instrument: instrumentOf(score, owner, style.instruments),
    sounding,
    line,
    strokes: score.notes.filter((n) => n.part === part && n.unpitched && !n.rest && !n.grace && !n.cue),
    levels,
    bar,
    place: (at, withBeat = false) => placeWords(score, at, withBeat),
    chordAt: (at) => findAt(facts.chords, at),
    cadenceOf: (phrase) => facts.cadences.find((c) => c.id === phrase.cadence) ?? null,
    peak: once(() => dynamicPlan(score, facts, { ...EMPTY_READING, period, part }).peak.measure),
    level: (at, hand) => levelInForce(levels, part, at, hand),
    between: (from, to) => line.slice(indexAt(from), indexAt(to)),
    firstAt: (at) => line[indexAt(at)] ?? null,
    lastBefore: (at) => line[indexAt(at) - 1] ?? null,
    lineIn: byMeasure(line),
    tonesIn,
    contentOf: (measure) =>
      tonesIn(measure)
        .map((t) => `${t.note.onset.n}/${t.note.onset.d}:${t.midi}`)
        .join(' '),
    slurred: (a, b) => {
      const k = place.get(a.note.id);
      return k !== undefined && line[k + 1] === b && held[k];
    },
    hasTune: (tone) => tune.has(tone.note.id),
    unbroken: (from, to) => {
      const [a, b] = [place.get(from.note.id)!, place.get(to.note.id)!];
      for (let k = a; k < b; k++) if (line[k + 1].start - line[k].end >= BREAK * sounding.ticksPerQuarter) return false;
      return true;
    },
    hairpinIn: (from, to) => hairpins.some((h) => cmp(h.start, to) < 0 && cmp(h.end, from) > 0)
  };
}

function byMeasure(tones: readonly Tone[]): (measure: number) => Tone[] {
  const found = new Map<number, Tone[]>();
  for (const tone of tones) {
    const list = found.get(tone.note.measure);
    if (list) list.push(tone);
    else found.set(tone.note.measure, [tone]);
  }
  return (measure) => found.get(measure) ?? [];
}

function findAt<T extends { start: Fraction; end: Fraction }>(list: readonly T[], at: Fraction): T | null {
  let low = 0;
  let high = list.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (lte(list[middle].start, at)) low = middle;
    else high = middle - 1;
  }
  return list[low] && lte(list[low].start, at) ? list[low] : null;
}
