import { LIKENESS } from '../style/likeness.ts';
import { heightOf, type Beat } from './grid.ts';
import { sharedLength } from './overlap.ts';

/** Two places with the same music, as ranges of beats of equal length; `steps` is the staff interval from a to b. */
export interface BeatPair {
  a: number;
  b: number;
  length: number;
  steps: number;
  likeness: number;
  /** The second stands displaced by less than a beat. */
  displaced?: true;
}

const EMPTY = -10_000;

/** The grid as numbers, for the many comparisons. */
interface Numbers {
  lead: Int32Array;
  rhythm: Int32Array;
  bass: Int32Array;
  entries: Int32Array;
}

function numbersOf(beats: readonly Beat[]): Numbers {
  const numbers: Numbers = {
    lead: new Int32Array(beats.length).fill(EMPTY),
    rhythm: new Int32Array(beats.length),
    bass: new Int32Array(beats.length).fill(EMPTY),
    entries: new Int32Array(beats.length)
  };
  beats.forEach((b, k) => {
    if (b.lead) numbers.lead[k] = heightOf(b.lead);
    if (b.bass && b.bass !== b.lead) numbers.bass[k] = heightOf(b.bass);
    numbers.rhythm[k] = b.rhythm;
    numbers.entries[k] = b.entries.length;
  });
  return numbers;
}

/** How alike two beats are when the second is `steps` higher: 0 to 1; null when both are silent. */
export function beatLikeness(a: Beat, b: Beat, steps: number): number | null {
  if (!a.lead && !b.lead) return null;
  if (!a.lead || !b.lead) return 0;
  const L = LIKENESS;
  const from = heightOf(a.lead);
  const to = heightOf(b.lead);
  let value = 0;
  if (to - from === steps) value += L.lead;
  else if (b.steps.includes(from + steps) || a.steps.includes(to - steps)) value += L.leadElsewhere;
  let shared = 0;
  for (const s of a.steps) if (b.steps.includes(s + steps)) shared++;
  value += (L.others * shared) / Math.max(a.steps.length, b.steps.length);
  if (a.rhythm === b.rhythm) value += L.rhythm;
  else if (a.rhythm && b.rhythm && (a.rhythm & b.rhythm) === Math.min(a.rhythm, b.rhythm)) value += L.rhythm / 2;
  if (a.bass && b.bass) {
    if ((((heightOf(b.bass) - heightOf(a.bass) - steps) % 7) + 7) % 7 === 0) value += L.bass;
  } else value += value * L.bass;
  return value;
}

/** A place on a diagonal (lag) at which leading notes agree at one interval for a while. */
interface Hint {
  lag: number;
  steps: number;
  at: number;
  weight: number;
}

/** Stretches of every diagonal that agree in their leading notes, the most promising first. */
function hints(numbers: Numbers, bar: number): Hint[] {
  const { lead, entries } = numbers;
  const n = lead.length;
  const look = LIKENESS.lookBeats;
  const least = Math.max(3, Math.ceil(look * LIKENESS.lookShare));
  const found: Hint[] = [];
  const counts = new Int32Array(129);
  /** Intervals of the window's beats, the oldest overwritten by the newest. */
  const slots = new Int16Array(look);
  const lastHint: (Hint | null)[] = new Array<Hint | null>(129).fill(null);
  // In long pieces only shifts by half a bar are looked for, in very long ones by a bar.
  const half = bar % 2 === 0 ? bar / 2 : 1;
  const stride = n > 2 * LIKENESS.longPieceBeats ? bar : n > LIKENESS.longPieceBeats ? half : 1;
  for (let lag = Math.max(2, stride); lag < n - 2; lag += stride) {
    counts.fill(0);
    lastHint.fill(null);
    // A sliding window over the diagonal counts how often each interval stands between the leading notes.
    for (let i = 0; i + lag < n; i++) {
      const leaving = i >= look ? slots[i % look] : -1;
      if (leaving >= 0) counts[leaving]--;
      const a = lead[i];
      const b = lead[i + lag];
      const slot = a !== EMPTY && b !== EMPTY && (entries[i] || entries[i + lag]) ? b - a + 64 : -1;
      slots[i % look] = slot >= 0 && slot < 129 ? slot : -1;
      if (slot < 0 || slot >= 129 || ++counts[slot] < least) continue;
      const last = lastHint[slot];
      if (last && i - last.at <= 2 * look) {
        if (counts[slot] > last.weight) last.weight = counts[slot];
        if (counts[slot] === look) last.at = i;
      } else found.push((lastHint[slot] = { lag, steps: slot - 64, at: i, weight: counts[slot] }));
    }
  }
  return found.sort((a, b) => b.weight - a.weight || Math.abs(a.steps) - Math.abs(b.steps)).slice(0, LIKENESS.mostHints);
}

/** The stretch around a hint in which the sum of likeness over the going rate is greatest. */
function stretch(beats: readonly Beat[], { lag, steps, at }: Hint, most: number): BeatPair {
  const gain = (i: number): number => (beatLikeness(beats[i], beats[i + lag], steps) ?? LIKENESS.goOn) - LIKENESS.goOn;
  const reach = (from: number, way: 1 | -1): number => {
    let sum = 0;
    let peak = 0;
    let end = from;
    for (let i = from; i >= 0 && i + lag < beats.length && Math.abs(i - from) < most; i += way) {
      sum += gain(i);
      if (sum > peak) {
        peak = sum;
        end = i + way;
      }
      // Far below its best the stretch has ended there.
      if (sum < peak - LIKENESS.drop) break;
    }
    return end;
  };
  const middle = Math.max(0, at - 2);
  const end = reach(middle, 1);
  const start = reach(middle - 1, -1) + 1;
  const pair = { a: start, b: start + lag, length: Math.max(0, end - start), steps, likeness: 0 };
  return { ...pair, likeness: likenessAlong(beats, pair) };
}

/** Mean likeness of the beats of two places. */
function likenessAlong(beats: readonly Beat[], { a, b, length, steps }: BeatPair): number {
  let total = 0;
  let count = 0;
  for (let k = 0; k < length; k++) {
    const value = beatLikeness(beats[a + k], beats[b + k], steps);
    if (value === null) continue;
    total += value;
    count++;
  }
  return count ? total / count : 0;
}

/** Likeness of rhythm and figure alone, as any two bars of a prelude have: the leading notes agree too seldom, or are all one note. */
function isNoise(beats: readonly Beat[], { a, b, length, steps, likeness }: BeatPair, bars: number): boolean {
  const L = LIKENESS;
  const heights = new Set<number>();
  let both = 0;
  let agree = 0;
  for (let k = 0; k < length; k++) {
    const [x, y] = [beats[a + k].lead, beats[b + k].lead];
    if (!x || !y) continue;
    both++;
    if (heightOf(y) - heightOf(x) !== steps) continue;
    agree++;
    heights.add(heightOf(x));
  }
  const share = agree / Math.max(1, both);
  if (steps % 7 === 0) return share < L.leadsAgree || heights.size < 2 || (heights.size < 3 && likeness < L.fewHeights);
  const long = bars >= 4 && likeness >= L.longElsewhere && share >= L.leadsAgree - 0.05;
  return heights.size < 3 || (share < L.leadsAgreeElsewhere && !long);
}

/** Of a class of places all neighbours stay, and the first one with each; the other pairs say nothing new. */
function neighboursAndFirst(pairs: readonly BeatPair[]): BeatPair[] {
  const same = (x: number, y: number, length: number): boolean => Math.abs(x - y) <= 0.25 * length;
  return pairs.filter((p) => {
    const isBetween = pairs.some(
      (q) => same(q.a, p.a, p.length) && q.b < p.b && pairs.some((r) => same(r.a, q.b, p.length) && same(r.b, p.b, p.length))
    );
    const hasBefore = pairs.some((q) => same(q.b, p.a, p.length) && q.a < p.a);
    return !(isBetween && hasBefore);
  });
}

/** Music that returns at once, again and again, as its consecutive pairs. */
function chained(beats: readonly Beat[], pair: BeatPair, lag: number): BeatPair[] {
  const pairs: BeatPair[] = [];
  for (let at = 0; at < pair.length; at += lag) {
    const length = Math.min(lag, pair.length - at);
    if (at > 0 && length <= 0.6 * lag) break;
    const part = { ...pair, a: pair.a + at, b: pair.b + at, length };
    pairs.push(pair.length > lag ? { ...part, likeness: likenessAlong(beats, part) } : part);
  }
  return pairs;
}

const overlapOf = (a: number, aLength: number, b: number, bLength: number): number =>
  sharedLength(a, a + aLength, b, b + bLength) / Math.min(aLength, bLength);

/**
 * Places with the same music: at the same or another pitch, decorated otherwise, thinned, shifted in the bar.
 * Found on the leading notes of the beats, then held against the notes, rhythm and bass of every beat.
 * @param bar beats of a usual bar
 */
export function findPairs(beats: readonly Beat[], bar: number): BeatPair[] {
  if (beats.length < 4) return [];
  const L = LIKENESS;
  const numbers = numbersOf(beats);
  const notes = (from: number, length: number): number => {
    let sum = 0;
    for (let k = from; k < from + length; k++) sum += numbers.entries[k];
    return sum;
  };
  const candidates: BeatPair[] = [];
  const explored = new Map<string, BeatPair[]>();
  const consider = (pair: BeatPair, { lag, steps }: Hint): void => {
    const bars = pair.length / bar;
    const elsewhere = steps % 7 !== 0;
    if (bars < (elsewhere ? L.shortestBarsElsewhere : L.shortestBars) - 0.51 / bar) return;
    if (Math.min(notes(pair.a, pair.length), notes(pair.b, pair.length)) < L.fewestNotes * (elsewhere ? 1.3 : 1)) return;
    if (pair.likeness < (elsewhere ? L.otherPitch : L.samePitch)) return;
    // What follows at once, shorter than two bars or at another pitch and shorter than four, is a sequence or an echo.
    if (lag <= pair.length + bar / 2 && bars < (elsewhere ? 4 : 2)) return;
    if (lag % bar !== 0 && pair.likeness < L.otherPitch + 0.08) return;
    if (isNoise(beats, pair, bars)) return;
    candidates.push(pair);
  };
  for (const hint of hints(numbers, bar)) {
    const { lag, steps } = hint;
    const known = explored.get(`${lag}|${steps}`) ?? [];
    if (known.some((p) => hint.at >= p.a && hint.at < p.a + p.length)) continue;
    const found = stretch(beats, hint, L.mostBars * bar);
    explored.set(`${lag}|${steps}`, [...known, found]);
    for (const pair of chained(beats, found, lag)) consider(pair, hint);
  }
  const value = (p: BeatPair): number =>
    p.length * (p.likeness - 0.35) * (p.steps % 7 === 0 ? 1.1 : 1) * ((p.b - p.a) % bar === 0 ? 1.1 : 1);
  candidates.sort((x, y) => value(y) - value(x));
  const kept: BeatPair[] = [];
  for (const c of candidates) {
    if (kept.length >= L.mostPlaces) break;
    const shadow = kept.some(
      (k) => overlapOf(k.a, k.length, c.a, c.length) > L.overlap && overlapOf(k.b, k.length, c.b, c.length) > L.overlap
    );
    // A weaker claim on a place that is already explained at the same pitch is a coincidence.
    const explained =
      c.steps % 7 !== 0 &&
      kept.some(
        (k) => k.steps % 7 === 0 && k.likeness > c.likeness && overlapOf(k.b, k.length, c.b, c.length) > 0.9 && k.length >= c.length
      );
    if (!shadow && !explained) kept.push(c);
  }
  return neighboursAndFirst(kept).sort((x, y) => x.a - y.a || x.b - y.b);
}
