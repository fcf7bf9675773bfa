import { HARMONY } from '../style/harmony-weights.ts';
import { searchWithPins, worthAround, type HarmonyPins, type HarmonyResult, type HarmonySpan } from './harmony-search.ts';
import { sameKey } from './keys.ts';
import { slotIndexAt, type SoundingScore } from './sounding-score.ts';

type Range = { from: number; to: number };

/** A run of bars at every place that holds the same notes, in order; slots half open. */
interface SameRun {
  bars: number;
  places: Range[];
}

/** What sounds in each measure, as text that is equal where the notes are. */
function contents({ tones, measureStarts, totalTicks }: SoundingScore): string[] {
  const found: string[][] = measureStarts.map(() => []);
  let measure = 0;
  for (const tone of [...tones].sort((x, y) => x.start - y.start || x.midi - y.midi)) {
    while (measure + 1 < measureStarts.length && measureStarts[measure + 1] <= tone.start) measure++;
    for (let m = measure; m < measureStarts.length && (m === measure || measureStarts[m] < tone.end); m++) {
      const from = measureStarts[m];
      const to = measureStarts[m + 1] ?? totalTicks;
      found[m].push(`${tone.start - from},${Math.min(tone.end, to) - from},${tone.midi},${tone.fifths}`);
    }
  }
  return found.map((list) => list.join(' '));
}

/** Every longest run of bars that comes again, with all places at which all of it does. */
export function sameRuns(sounding: SoundingScore): SameRun[] {
  const texts = contents(sounding);
  const slotsFrom = (measure: number): number =>
    measure < sounding.measureStarts.length ? slotIndexAt(sounding, sounding.measureStarts[measure]) : sounding.slots.length;
  const range = (measure: number, bars: number): Range => ({ from: slotsFrom(measure), to: slotsFrom(measure + bars) });
  const first = new Map<string, number>();
  const runs = new Map<string, SameRun>();
  for (let b = 0; b < texts.length;) {
    const a = texts[b] ? first.get(texts[b]) : undefined;
    if (a === undefined) {
      if (texts[b]) first.set(texts[b], b);
      b++;
      continue;
    }
    let bars = 1;
    while (b + bars < texts.length && a + bars < b && texts[b + bars] && texts[a + bars] === texts[b + bars]) bars++;
    const key = `${a}|${bars}`;
    const run = runs.get(key) ?? { bars, places: [range(a, bars)] };
    run.places.push(range(b, bars));
    runs.set(key, run);
    b += bars;
  }
  return [...runs.values()];
}

/** The spans of a range, cut to it, as if it began at slot 0. */
const within = (spans: readonly HarmonySpan[], { from, to }: Range): HarmonySpan[] =>
  spans
    .filter((s) => s.to > from && s.from < to)
    .map((s) => ({ ...s, from: Math.max(s.from, from) - from, to: Math.min(s.to, to) - from }));

const alike = (x: readonly HarmonySpan[], y: readonly HarmonySpan[]): boolean =>
  x.length === y.length && x.every((s, k) => s.from === y[k].from && s.to === y[k].to && s.type === y[k].type && sameKey(s.key, y[k].key));

const pinsOf = (spans: readonly HarmonySpan[], at: number): HarmonyPins => ({
  keys: spans.map((s) => ({ from: at + s.from, to: at + s.to, key: s.key })),
  chords: spans.map((s) => ({ from: at + s.from, to: at + s.to, matches: (key, type) => type === s.type && sameKey(key, s.key) }))
});

/** A few bars may stand in two keys (pivots), and in major and minor of one tonic what lacks the third is the same. */
function mayBeOne(spans: readonly HarmonySpan[], bars: number): boolean {
  if (spans.every((s) => sameKey(s.key, spans[0].key))) return true;
  return bars >= HARMONY.sameBars && !spans.some((s) => spans.some((t) => t.key.tonic === s.key.tonic && t.key.minor !== s.key.minor));
}

/**
 * The same bars have the same chords: where a search reads them differently, the reading that is worth most at all places
 * together holds for all. The result binds later searches as a correction would, but gives way to one.
 */
export function withSameBarsAlike(base: HarmonyResult): HarmonyResult {
  // Under chord symbols the same notes may be harmonised anew.
  if (base.playable.symbols.some((s) => s !== null)) return base;
  const pins: HarmonyPins = { keys: [], chords: [] };
  for (const { bars, places } of sameRuns(base.playable.sounding)) {
    const found = places.map((place) => within(base.spans, place));
    const readings = found.filter((x, k) => x.length && found.findIndex((y) => alike(x, y)) === k);
    if (readings.length < 2) continue;
    if (!mayBeOne(readings.flat(), bars)) continue;
    const worths = readings.map((r) => places.reduce((sum, place) => sum + worthAround(base, place, pinsOf(r, place.from)), 0));
    const best = readings[worths.indexOf(Math.max(...worths))];
    for (const place of places) {
      const { keys, chords } = pinsOf(best, place.from);
      pins.keys.push(...keys);
      pins.chords.push(...chords);
    }
  }
  return pins.keys.length ? { ...searchWithPins(base, pins), settled: pins } : base;
}
