import type { Judgement } from '../reading/commands/judge-bars.ts';
import type { Study } from '../analysis/study.ts';
import { isSyncopated } from '../score/meter.ts';
import { midi } from '../score/pitch.ts';
import { DIFFICULTY as W } from '../style/drills.ts';
import { height, lasts, topOf } from '../technique/player-line.ts';
import type { Technique } from '../technique/technique.ts';
import { can } from '../style/instruments/instrument.ts';
import { keyAlter } from '../score/accidentals.ts';

export const DIFFICULTY_PARTS = [
  'speed',
  'leaps',
  'hand',
  'crossings',
  'accidentals',
  'rhythm',
  'load',
  'span',
  'extremes',
  'soft-high'
] as const;
export type DifficultyPart = (typeof DIFFICULTY_PARTS)[number];

/** How hard a bar is, and of what; all from 0 to 1. */
export interface BarDifficulty {
  measure: number;
  value: number;
  parts: Record<DifficultyPart, number>;
}

/** In a sentence: "quick", "wide leaps". */
export const PART_WORDS: Record<DifficultyPart, string> = {
  speed: 'quick notes',
  leaps: 'leaps',
  hand: 'an awkward way of the hands',
  crossings: 'crossings over a string',
  accidentals: 'altered notes',
  rhythm: 'a rhythm of different values',
  load: 'much for the breath or lips',
  span: 'wide spans',
  extremes: 'the end of the range',
  'soft-high': 'soft and high at once'
};

const most = (x: number): number => Math.max(0, Math.min(1, x));

/** The difficulty of each bar from its named parts. Handbook 21.1. */
export function difficultyOf({ score }: Study, t: Technique): BarDifficulty[] {
  const { attacks } = t.line;
  const byBar = score.measures.map(() => [] as number[]);
  attacks.forEach((a, k) => {
    if (!a.grace) byBar[a.notes[0].measure].push(k);
  });
  const prices = pricesByBar(t, score.measures.length);
  const crossings = score.measures.map(() => 0);
  for (const c of t.strings?.crossings ?? []) crossings[attacks[c.at].notes[0].measure]++;
  const spans = score.measures.map(() => 0);
  for (const w of t.wide) spans[w.attack.notes[0].measure] = Math.max(spans[w.attack.notes[0].measure], w.semitones / W.span);
  const late = new Set((t.breath?.late ?? []).map((k) => attacks[k].notes[0].measure));
  const leaps = leapsByBar(t, score.measures.length);
  // The lowest notes cost those who blow or sing; on nine notes of pipes nothing is at an end.
  const { range } = t.movements.length ? { range: null } : t.instrument;
  const blows = can(t.instrument, 'breathes', 'sings');
  return score.measures.map(({ index, key }): BarDifficulty => {
    const own = byBar[index];
    const of = own.map((k) => attacks[k]);
    const seconds = of.reduce((n, a) => n + lasts(a), 0);
    const notes = of.flatMap((a) => a.notes).filter((n) => n.pitch);
    const altered = notes.filter((n) => n.pitch!.alter !== keyAlter(key, n.pitch!.step)).length;
    const values = new Set(of.map((a) => a.notes[0]).map((n) => `${n.duration.n}/${n.duration.d}`)).size;
    const displaced = of.filter((a) => isSyncopated(score.measures[index], a.notes[0].onset, a.notes[0].duration)).length;
    const tuplets = notes.some((n) => n.timeModification) ? 1 : 0;
    const tops = of.map((a) => height(topOf(a)));
    const high = range ? midi(range.highFrom) : Infinity;
    const low = range && blows ? midi(range.low) + 2 : -Infinity;
    const parts: BarDifficulty['parts'] = {
      speed: seconds > 0 ? most(of.length / seconds / W.speed) : 0,
      leaps: most(leaps[index] / (W.leaps / 2)),
      // In a bar of few notes a single price is not yet hard.
      hand: own.length ? most(prices[index] / Math.max(own.length, W.fewNotes) / W.hand) : 0,
      crossings: most(crossings[index] / W.crossings),
      accidentals: notes.length ? most(altered / notes.length / W.accidentals) : 0,
      rhythm: most((Math.max(0, values - 1) + 2 * tuplets + displaced) / W.rhythm),
      load: most(Math.max(t.load?.[index] ?? 0, late.has(index) ? 1 : 0)),
      span: most(spans[index]),
      extremes: tops.length ? tops.filter((h) => h >= high || h <= low).length / tops.length : 0,
      'soft-high': tops.length ? own.filter((k, i) => tops[i] >= high && t.soft(k)).length / tops.length : 0
    };
    const sorted = Object.values(parts).sort((a, b) => b - a);
    const value = own.length ? W.hardest * sorted[0] + (W.next * (sorted[0] + sorted[1] + sorted[2])) / 3 : 0;
    return { measure: index, value: most(value), parts };
  });
}

/**
 * Mean leap in each bar beyond a third, in semitones; under a hand on keys beyond an octave, for what lies under it is no leap. Of two
 * hands that of the one that leaps more.
 */
function leapsByBar(t: Technique, count: number): number[] {
  const found = new Array<number>(count).fill(0);
  const free = t.keyboard.length ? W.octave : W.third;
  for (const { attacks } of t.keyboard.length ? t.keyboard.map((k) => k.line) : [t.line]) {
    const own = Array.from({ length: count }, () => ({ sum: 0, leaps: 0 }));
    attacks.forEach((a, k) => {
      if (a.grace || k === 0) return;
      const bar = own[a.notes[0].measure];
      bar.sum += Math.max(0, Math.abs(height(topOf(a)) - height(topOf(attacks[k - 1]))) - free);
      bar.leaps++;
    });
    own.forEach(({ sum, leaps }, k) => (found[k] = Math.max(found[k], leaps ? sum / leaps : 0)));
  }
  return found;
}

/** What the cheapest ways of hands, bow, sticks and keys cost in each bar. */
function pricesByBar(t: Technique, count: number): number[] {
  const prices = new Array<number>(count).fill(0);
  const { attacks } = t.line;
  const add = (measure: number, price: number): void => void (prices[measure] += price);
  t.strings?.costs.forEach((costs, k) =>
    add(
      attacks[k].notes[0].measure,
      costs.reduce((n, c) => n + c.price, 0)
    )
  );
  for (const s of t.bow?.strokes ?? []) add(attacks[s.from].notes[0].measure, s.costs.reduce((n, c) => n + c.price, 0) / 2);
  for (const { line, fingering } of t.keyboard)
    fingering.prices.forEach((p, k) => add(line.attacks[k].notes[0].measure, Number.isFinite(p) ? Math.min(p, W.keysShift) / 4 : 0));
  for (const of of [t.brass, t.winds, t.sticks]) of?.prices.forEach((p, k) => add(attacks[k].notes[0].measure, p));
  return prices;
}

/** A run of hard bars, cut at phrases, with a bar before and after it where no repeat or double bar lies between. */
export interface HotSpot {
  from: number;
  to: number;
  value: number;
  why: DifficultyPart[];
}

/** How hard bars are with what the teacher says of them. */
export const judgedDifficulty = (bars: readonly BarDifficulty[], judged: Readonly<Record<number, Judgement>>): BarDifficulty[] =>
  bars.map((b) => {
    const as = judged[b.measure];
    return as === undefined ? b : { ...b, value: as === 'no matter' ? 0 : most(b.value + (as === 'harder' ? W.judged : -W.judged)) };
  });

/**
 * Where the piece is hardest. Handbook 21.1.
 * @param joins where phrases begin, and where something begins behind a repeat or double bar, by measure
 * @param measured without the teacher's word: what is left out makes nothing else hard
 * @param judged bars that the teacher calls harder are always one
 */
export function hotSpots(
  measured: readonly BarDifficulty[],
  { phraseStarts, walls }: { phraseStarts: ReadonlySet<number>; walls: ReadonlySet<number> },
  judged: Readonly<Record<number, Judgement>> = {}
): HotSpot[] {
  const played = measured.filter((b) => b.value > 0);
  if (!played.length) return [];
  const mean = played.reduce((n, b) => n + b.value, 0) / played.length;
  const deviation = Math.sqrt(played.reduce((n, b) => n + (b.value - mean) ** 2, 0) / played.length);
  const limit = Math.max(W.least, mean + W.above * deviation);
  const bars = judgedDifficulty(measured, judged);
  const spots: HotSpot[] = [];
  for (const b of bars) {
    if (b.value < limit && judged[b.measure] !== 'harder') continue;
    const last = spots.at(-1);
    // A single easier bar between does not divide; a new phrase does.
    if (last && b.measure - last.to <= 2 && !phraseStarts.has(b.measure) && !walls.has(b.measure))
      [last.to, last.value] = [b.measure, Math.max(last.value, b.value)];
    else spots.push({ from: b.measure, to: b.measure, value: b.value, why: [] });
  }
  return spots.map((s) => {
    const inside = bars.slice(s.from, s.to + 1);
    const sums = DIFFICULTY_PARTS.map((part) => ({ part, sum: inside.reduce((n, b) => n + b.parts[part], 0) }));
    const why = sums
      .sort((a, b) => b.sum - a.sum)
      .filter((x, k) => x.sum > 0 && (k === 0 || x.sum >= W.tellable * inside.length))
      .slice(0, W.told);
    const from = walls.has(s.from) ? s.from : Math.max(0, s.from - 1);
    const to = walls.has(s.to + 1) ? s.to : Math.min(bars.length - 1, s.to + 1);
    return { from, to, value: s.value, why: why.map((x) => x.part) };
  });
}
