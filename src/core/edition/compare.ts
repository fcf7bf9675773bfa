import { pairUp } from '../collation/pair-up.ts';
import type { Account, LoudnessAccount, Performance } from '../performance/perform.ts';
import type { Reading } from '../reading/reading.ts';
import { inWords } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { eq, sub } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { barLabel, measureAt, positionIn, beatWords } from '../score/position.ts';
import { PROFILES } from '../style/profiles.ts';
import { SCHOOLS, type School } from '../style/schools.ts';

/** One side of a comparison: a reading as it is, or as it was frozen, and how it sounds. */
export interface Side {
  reading: Reading;
  performance: Performance;
}

/** A bar in which two readings differ, or sound and last differently. Seconds; decibels relative to mezzo forte, null where silent. */
export interface ComparedBar {
  measure: number;
  bar: string;
  added: string[];
  removed: string[];
  changed: { from: string; to: string }[];
  seconds: [number, number];
  db: [number | null, number | null];
}

export interface ReadingComparison {
  /** Every bar that is played, in order. */
  bars: ComparedBar[];
  /** Seconds in all. */
  length: [number, number];
  /** What holds for the whole piece: period, answers, text. */
  whole: { what: string; from: string; to: string }[];
}

const samePlace = (a: Marking, b: Marking): boolean => eq(a.start, b.start) && a.part === b.part && a.staff === b.staff;
const sameEnd = (a: Marking, b: Marking): boolean => (a.end && b.end ? eq(a.end, b.end) : !a.end && !b.end) && a.endNote === b.endNote;
const reasons = (m: Marking): string => [...m.because.map((b) => b.text), m.remark ?? ''].join('|');

/** Pairs of markings that are the same one in both readings: by place and kind first, then by id, where one was moved. */
function pair(a: readonly Marking[], b: readonly Marking[]): { pairs: [Marking, Marking][]; onlyA: Marking[]; onlyB: Marking[] } {
  const pairs: [Marking, Marking][] = [];
  let onlyA = [...a];
  const onlyB = [...b];
  const take = (alike: (x: Marking, y: Marking) => boolean): void => {
    onlyA = pairUp(onlyA, onlyB, alike, (x, y) => pairs.push([x, y]));
  };
  take((x, y) => x.kind === y.kind && samePlace(x, y) && x.note === y.note && x.value === y.value && sameEnd(x, y));
  take((x, y) => x.id === y.id);
  take((x, y) => x.kind === y.kind && samePlace(x, y) && x.note === y.note);
  return { pairs, onlyA, onlyB };
}

/** Compares two readings of one score bar by bar: what was added, removed and changed, and what each would sound and last. */
export function compareReadings(score: Score, a: Side, b: Side): ReadingComparison {
  const bars = new Map<number, ComparedBar>();
  const barOf = (measure: number): ComparedBar => {
    let found = bars.get(measure);
    if (!found) {
      const [x, y] = [a, b].map((s) => s.performance.bars.find((p: Account) => p.measure === measure));
      const [p, q] = [a, b].map((s) => s.performance.loudness.find((l: LoudnessAccount) => l.measure === measure));
      found = {
        measure,
        bar: barLabel(score.measures, score.measures[measure]),
        added: [],
        removed: [],
        changed: [],
        seconds: [x?.planned ?? 0, y?.planned ?? 0],
        db: [p?.planned ?? null, q?.planned ?? null]
      };
      bars.set(measure, found);
    }
    return found;
  };
  score.measures.forEach((m) => barOf(m.index));
  const at = (m: Marking): string => {
    const measure = measureAt(score, m.start);
    return `beat ${beatWords(positionIn(measure, sub(m.start, measure.start)).beat)}`;
  };
  const inBar = (m: Marking): ComparedBar => barOf(measureAt(score, m.start).index);
  const says = (m: Marking): string => `${at(m)}: ${inWords(m)}`;
  const { pairs, onlyA, onlyB } = pair(a.reading.markings, b.reading.markings);
  for (const m of onlyA) inBar(m).removed.push(says(m));
  for (const m of onlyB) inBar(m).added.push(says(m));
  for (const [x, y] of pairs) {
    const moved = !samePlace(x, y);
    if (moved || x.value !== y.value || x.kind !== y.kind) {
      const place = (m: Marking): string => (moved ? `${barLabel(score.measures, measureAt(score, m.start))}, ${says(m)}` : says(m));
      inBar(y).changed.push({ from: place(x), to: place(y) });
    } else if (!sameEnd(x, y)) {
      const end = (m: Marking): string => `${says(m)} to ${m.end ? barLabel(score.measures, measureAt(score, m.end)) : 'its note'}`;
      const same = end(x) === end(y);
      inBar(y).changed.push({ from: end(x), to: same ? `${end(y)}, another moment of it` : end(y) });
    } else if (reasons(x) !== reasons(y)) inBar(y).changed.push({ from: `${says(x)}, its reason`, to: 'another reason' });
  }
  return {
    bars: [...bars.values()].sort((x, y) => x.measure - y.measure),
    length: [a.performance.length, b.performance.length],
    whole: wholeOf(a.reading, b.reading)
  };
}

function wholeOf(a: Reading, b: Reading): ReadingComparison['whole'] {
  const lines: ReadingComparison['whole'] = [];
  const add = (what: string, from: string, to: string): void => {
    if (from !== to) lines.push({ what, from, to });
  };
  add('Style', PROFILES[a.period].name, PROFILES[b.period].name);
  for (const school of SCHOOLS as readonly School[]) {
    const answer = (r: Reading): string => {
      const value = r.schools[school.key as keyof Reading['schools']]?.option;
      return value === undefined ? 'not decided' : (school.options.find((o) => o.value === value)?.label ?? value);
    };
    add(school.question, answer(a), answer(b));
  }
  const tempo = (r: Reading): string => (r.requested ? `${r.requested.low} to ${r.requested.high}` : 'none');
  add('Tempo asked for', tempo(a), tempo(b));
  const taken = (r: Reading): string => {
    const count = r.sourceChoices.filter((c) => c.take === 'theirs').length;
    return count ? `${count} taken from other sources` : 'the first source throughout';
  };
  add('Text', taken(a), taken(b));
  const text = (x: unknown): string => (x === null ? 'drafted' : JSON.stringify(x));
  if (text(a.preface) !== text(b.preface)) add('Preface', a.preface ? 'in own words' : 'drafted', b.preface ? 'in other words' : 'drafted');
  return lines;
}
