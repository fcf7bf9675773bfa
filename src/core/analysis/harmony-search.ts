import { HARMONY } from '../style/harmony-weights.ts';
import { basslines, emissions, harmonySpace, keysAt, type HarmonySpace, type World } from './harmony-space.ts';
import { keySignature, profileWeight, sameKey, type Key } from './keys.ts';
import type { Slot, SoundingScore, Tone } from './sounding-score.ts';
import { symbolFits, symbolsBySlot, type PlacedSymbol } from './symbols.ts';
import { QUALITIES, sameFamily, type ChordType, type Quality } from './vocabulary.ts';

/** What the teacher has settled: it binds the search. Slot ranges are half open. */
export interface HarmonyPins {
  keys: { from: number; to: number; key: Key }[];
  chords: { from: number; to: number; matches: (key: Key, type: ChordType) => boolean }[];
}

/** A run of slots under one chord of one key. */
export interface HarmonySpan {
  /** Half-open range of slots. */
  from: number;
  to: number;
  key: Key;
  type: ChordType;
  /** How much better the chord fits than the best chord on another root or of another kind, per beat. */
  margin: number;
  rival: { root: number; quality: Quality } | null;
}

/** A stretch of slots to be searched, between what is settled before and after it (states; null at the ends). */
interface Window {
  from: number;
  to: number;
  before: number | null;
  after: number | null;
}

/** A range between what a path has settled before and after it. */
const between = (range: { from: number; to: number }, path: Int16Array): Window => ({
  ...range,
  before: range.from > 0 ? path[range.from - 1] : null,
  after: range.to < path.length ? path[range.to] : null
});

const IMPOSSIBLE = -1e9;

/** Everything about a texture that the search needs and that no correction changes. */
export interface HarmonyLattice {
  sounding: SoundingScore;
  signatures: readonly number[];
  /** Slots at which another signature is printed, and its sharps (flats negative). */
  changes: ReadonlyMap<number, number>;
  world: World;
  /** 1 where a section comes to its last note: there a dominant before it may be quick. */
  closing: Uint8Array;
  /** The chord symbol of the file that holds at each slot. */
  symbols: (PlacedSymbol | null)[];
  basses: (Tone | null)[];
  heard: Set<number>[];
  firstDownbeat: number;
}

export function harmonyLattice(
  sounding: SoundingScore,
  printed: { all: readonly number[]; changes: ReadonlyMap<number, number> },
  world: World,
  symbols: readonly PlacedSymbol[],
  closing: Uint8Array = new Uint8Array(sounding.slots.length)
): HarmonyLattice {
  return {
    sounding,
    signatures: printed.all,
    changes: printed.changes,
    world,
    closing,
    symbols: symbolsBySlot(symbols, sounding.slots.length),
    basses: basslines(sounding),
    heard: soundingByMeasure(sounding.slots),
    firstDownbeat: sounding.slots.findIndex((slot) => slot.level === 3 && slot.tones.length > 0)
  };
}

/** Spellings that sound in each measure. */
function soundingByMeasure(slots: readonly Slot[]): Set<number>[] {
  const heard: Set<number>[] = [];
  for (const slot of slots) {
    const set = (heard[slot.measure] ??= new Set());
    for (const tone of slot.tones) if (!tone.note.grace) set.add(tone.fifths);
  }
  return heard;
}

const slotBeats = (sounding: SoundingScore, slot: Slot): number => (slot.end - slot.start) / sounding.ticksPerQuarter;

/** A searched piece: its best path and the spans that the path makes. */
export interface HarmonyResult {
  playable: HarmonyLattice;
  space: HarmonySpace;
  path: Int16Array;
  spans: HarmonySpan[];
  /** Worth of the best path, in the unit of harmony-weights.ts; of the whole piece only. */
  worth: number;
  /** What the piece itself has settled (same-bars.ts): corrections go before it. */
  settled: HarmonyPins;
}

const NO_PINS: HarmonyPins = { keys: [], chords: [] };

/**
 * Keys and chords in one search: the best path through (key, chord) pairs over the slots, where notes
 * reward chords and keys, and changes cost by metrical place, by progression and by distance of keys.
 */
export function searchHarmony(playable: HarmonyLattice, pins: HarmonyPins = NO_PINS): HarmonyResult {
  const space = harmonySpace(
    playable.sounding,
    playable.signatures,
    pins.keys.map((p) => p.key),
    playable.world
  );
  const count = playable.sounding.slots.length;
  const path = new Int16Array(count);
  const whole = { from: 0, to: count, before: null, after: null };
  const { spans, worth } = count ? searchWindow(playable, space, pins, whole, path) : { spans: [], worth: 0 };
  return { playable, space, path, spans, worth, settled: NO_PINS };
}

/** Slots around a correction that are searched again; beyond them the old path stands. */
const REACH_SLOTS = 40;

/** What a range is worth with the music around it under a reading, in the unit of harmony-weights.ts; to be compared with other readings of the range. */
export function worthAround(base: HarmonyResult, range: { from: number; to: number }, pins: HarmonyPins): number {
  const [window] = windowsOf(base.spans, { keys: [{ ...range, key: base.spans[0].key }], chords: [] }, base.path.length);
  return searchWindow(base.playable, base.space, pins, between(window, base.path), base.path.slice()).worth;
}

/**
 * The search with corrections, from one without: only what lies near a correction is searched again, between
 * what is settled on either side. The result depends on the corrections alone, not on their order.
 */
export function searchWithPins(base: HarmonyResult, corrections: HarmonyPins): HarmonyResult {
  const { playable, settled } = base;
  const slots = playable.sounding.slots.length;
  if (!corrections.keys.length && !corrections.chords.length) return base;
  const meet = (a: { from: number; to: number }, b: { from: number; to: number }): boolean => a.from < b.to && b.from < a.to;
  const corrected = [...corrections.keys, ...corrections.chords];
  const known = corrections.keys.every((p) => base.space.keys.some((k) => sameKey(k, p.key)));
  const space = known
    ? base.space
    : harmonySpace(
        playable.sounding,
        playable.signatures,
        corrections.keys.map((p) => p.key),
        playable.world
      );
  const path = base.path.slice();
  const spans: HarmonySpan[] = [];
  let done = 0;
  for (const range of windowsOf(base.spans, corrections, slots)) {
    for (const span of base.spans) if (span.from >= done && span.to <= range.from) spans.push(span);
    const binds = (p: { from: number; to: number }): boolean => meet(p, range) && !corrected.some((own) => meet(p, own));
    const pins: HarmonyPins = {
      keys: [...corrections.keys, ...settled.keys.filter(binds)],
      chords: [...corrections.chords, ...settled.chords.filter(binds)]
    };
    spans.push(...searchWindow(playable, space, pins, between(range, path), path).spans);
    done = range.to;
  }
  for (const span of base.spans) if (span.from >= done) spans.push(span);
  return { playable, space, path, spans: joinEqual(spans), worth: base.worth, settled };
}

/** Ranges around the corrections, widened to whole spans and joined where they touch. */
function windowsOf(spans: readonly HarmonySpan[], pins: HarmonyPins, slots: number): { from: number; to: number }[] {
  const wanted = [...pins.keys, ...pins.chords]
    .map(({ from, to }) => ({ from: Math.max(0, from - REACH_SLOTS), to: Math.min(slots, to + REACH_SLOTS) }))
    .sort((a, b) => a.from - b.from);
  const result: { from: number; to: number }[] = [];
  for (const range of wanted) {
    const from = spans.find((s) => s.to > range.from)?.from ?? 0;
    const to = spans.find((s) => s.to >= range.to)?.to ?? slots;
    const last = result.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else result.push({ from, to });
  }
  return result;
}

function joinEqual(spans: HarmonySpan[]): HarmonySpan[] {
  const result: HarmonySpan[] = [];
  for (const span of spans) {
    const last = result.at(-1);
    if (last && last.type === span.type && sameKey(last.key, span.key)) result[result.length - 1] = { ...last, to: span.to };
    else result.push(span);
  }
  return result;
}

/** Searches one window, writes its states into the path and returns its spans. */
function searchWindow(
  playable: HarmonyLattice,
  space: HarmonySpace,
  pins: HarmonyPins,
  window: Window,
  path: Int16Array
): { spans: HarmonySpan[]; worth: number } {
  const { sounding, basses, heard, firstDownbeat } = playable;
  const { slots } = sounding;
  const { keys, types, tables, offsets, states, chords, chordOf, keyCost, stay, entry } = space;
  const count = window.to - window.from;
  const keyPins = pins.keys.map((p) => ({ ...p, k: keys.findIndex((key) => sameKey(key, p.key)) }));
  const chordPins = pins.chords.map((p) => ({ ...p, mask: maskOf(space, p.matches) }));
  const lineFactor = sounding.singleLine ? HARMONY.changeInLine : 1;
  const change = [HARMONY.change.weak, HARMONY.change.beat, HARMONY.change.strong, HARMONY.change.bar];
  /** What a state loses per beat in this bar, because a note that it rests on does not sound there. */
  const lacking = new Float64Array(states);
  let believedMeasure = -1;
  const underSymbol = new Map<PlacedSymbol, Float64Array>();

  let score = new Float64Array(states).fill(IMPOSSIBLE);
  let next = new Float64Array(states);
  // One block each for all slots: thousands of small arrays would keep the collector busy.
  const back = new Int16Array(count * states);
  const fits = new Float64Array(count * chords.length);
  const beatsOf: number[] = [];
  const bestScore = new Float64Array(keys.length);
  const bestState = new Int32Array(keys.length);
  const active = new Int16Array(states);
  if (window.before !== null) score[window.before] = 0;

  for (let s = window.from; s < window.to; s++) {
    const slot = slots[s];
    const first = s === window.from && window.before === null;
    const row = s - window.from;
    const pointers = back.subarray(row * states, (row + 1) * states);
    const fit = fits.subarray(row * chords.length, (row + 1) * chords.length);
    const beats = slotBeats(sounding, slot);
    if (slot.tones.length) emissions(slot, basses[s], chords, fit, !sounding.singleLine);
    const symbol = playable.symbols[s];
    if (symbol) {
      const stated = underSymbol.get(symbol) ?? symbolFits(symbol, chords);
      underSymbol.set(symbol, stated);
      for (let c = 0; c < stated.length; c++) fit[c] += stated[c];
    }
    beatsOf.push(beats);
    if (slot.measure !== believedMeasure) {
      believedMeasure = slot.measure;
      const set = heard[slot.measure];
      for (let i = 0; i < states; i++) {
        const heardChromatic = space.chromatic[i].length === 0 || space.chromatic[i].some((f) => set.has(f));
        const seventh = space.seventh[i];
        lacking[i] = (heardChromatic ? 0 : HARMONY.noChromaticNote) + (seventh === null || set.has(seventh) ? 0 : HARMONY.noSeventh);
      }
    }
    const usual = change[slot.level] * lineFactor;
    const arrives = symbol ? 0 : playable.closing[s] * HARMONY.closing;
    const cost = !symbol ? usual : symbol.from === s ? usual * HARMONY.symbol.start : usual + HARMONY.symbol.inside;
    const pinnedKey = keyPins.find((p) => s >= p.from && s < p.to)?.k ?? -1;
    const mask = chordPins.find((p) => s >= p.from && s < p.to)?.mask ?? null;
    const tried = keysAt(space, s);
    const printed = playable.changes.get(s);
    for (let k = 0; k < keys.length; k++) {
      let best = -Infinity;
      let at = offsets[k];
      for (let i = offsets[k], end = i + types[k].length; i < end; i++) if (score[i] > best) [best, at] = [score[i], i];
      bestScore[k] = best;
      bestState[k] = at;
    }
    const mayChange = slot.fresh || s === window.from || symbol?.from === s;
    for (let k = 0; k < keys.length; k++) {
      const n = types[k].length;
      const offset = offsets[k];
      const blocked = pinnedKey >= 0 ? pinnedKey !== k : !tried[k] && bestScore[k] <= IMPOSSIBLE;
      if (blocked) {
        next.fill(IMPOSSIBLE, offset, offset + n);
        for (let i = offset; i < offset + n; i++) pointers[i] = i;
        continue;
      }
      // What is printed in a new signature needs no further proof to be in its key.
      const announced = printed !== undefined && keySignature(keys[k]) === printed;
      let enter = -Infinity;
      let enterFrom = 0;
      if (!first && mayChange && (tried[k] || pinnedKey === k)) {
        for (let j = 0; j < keys.length; j++) {
          if (j === k) continue;
          const value = bestScore[j] - (announced ? 0 : keyCost[j][k]);
          if (value > enter) [enter, enterFrom] = [value, bestState[j]];
        }
      }
      const floor = Math.max(bestScore[k], enter) - space.spread - arrives;
      let alive = 0;
      for (let i = 0; i < n; i++) if (score[offset + i] > floor) active[alive++] = i;
      let profile = 0;
      for (const tone of slot.tones) {
        const share = (Math.min(tone.end, slot.end) - Math.max(tone.start, slot.start)) / (slot.end - slot.start);
        profile += share * tone.weight * profileWeight(keys[k], tone.fifths);
      }
      // Under symbols the chords tell of the key; the tune over them chooses their colours.
      profile *= ((symbol ? HARMONY.symbol.profile : 1) * HARMONY.profile * beats) / Math.sqrt(Math.max(1, slot.tones.length));
      const table = tables[k];
      const atHome = space.home.has(keySignature(keys[k])) ? HARMONY.signature : 0;
      for (let c = 0; c < n; c++) {
        const state = offset + c;
        if (mask && !mask[state]) {
          next[state] = IMPOSSIBLE;
          pointers[state] = state;
          continue;
        }
        let best = first ? atHome - types[k][c].cost : score[state];
        let from = state;
        // Without a new note no new chord is heard.
        if (!first && mayChange) {
          const line = c * n;
          const price = cost + entry[state];
          const reward = space.isTonic[state] ? arrives : 0;
          for (let i = 0; i < alive; i++) {
            const a = active[i];
            const value = score[offset + a] + table[line + a] - price + (space.isDominant[offset + a] ? reward : 0);
            if (value > best && a !== c) [best, from] = [value, offset + a];
          }
          const value = enter - price - types[k][c].cost;
          if (value > best) [best, from] = [value, enterFrom];
        }
        next[state] =
          best +
          fit[chordOf[state]] * beats +
          profile +
          (stay[state] + (symbol ? 0 : lacking[state])) * beats +
          (s === firstDownbeat && space.isTonic[state] ? HARMONY.tonicFirst : 0);
        pointers[state] = from;
      }
    }
    [score, next] = [next, score];
  }

  const last = lastState(space, score, window, change[slots[window.to]?.level ?? 0] * lineFactor);
  let { state } = last;
  for (let s = count - 1; s >= 0; s--) {
    path[window.from + s] = state;
    state = back[s * states + state];
  }
  return { spans: spansOf(space, path, window, fits, beatsOf), worth: last.worth };
}

/** The state on which a window ends: at the end of the piece its own best, else the best on the way into what follows. */
function lastState(space: HarmonySpace, score: Float64Array, window: Window, cost: number): { state: number; worth: number } {
  let state = 0;
  let best = -Infinity;
  for (let i = 0; i < space.states; i++) {
    const k = space.keyOfState[i];
    let value = score[i];
    if (window.after === null) {
      value += (space.home.has(keySignature(space.keys[k])) ? HARMONY.homeEnd : 0) + (space.isTonic[i] ? HARMONY.tonicLast : 0);
    } else if (i !== window.after) {
      const target = space.keyOfState[window.after];
      const n = space.types[target].length;
      const to = window.after - space.offsets[target];
      value -= cost + space.entry[window.after];
      if (k === target) value += space.tables[k][to * n + (i - space.offsets[k])];
      else value -= space.keyCost[k][target] + space.types[target][to].cost;
    }
    if (value > best) {
      best = value;
      state = i;
    }
  }
  return { state, worth: best };
}

function maskOf(space: HarmonySpace, matches: (key: Key, type: ChordType) => boolean): Uint8Array | null {
  const mask = new Uint8Array(space.states);
  let any = false;
  space.keys.forEach((key, k) =>
    space.types[k].forEach((type, c) => {
      if (matches(key, type)) {
        mask[space.offsets[k] + c] = 1;
        any = true;
      }
    })
  );
  return any ? mask : null;
}

function spansOf(space: HarmonySpace, path: Int16Array, window: Window, fits: Float64Array, beats: number[]): HarmonySpan[] {
  const { keys, types, offsets, chordOf, chords, keyOfState } = space;
  const spans: HarmonySpan[] = [];
  for (let s = window.from; s < window.to;) {
    let end = s + 1;
    while (end < window.to && path[end] === path[s]) end++;
    const k = keyOfState[path[s]];
    const own = chordOf[path[s]];
    const totals = new Float64Array(chords.length);
    let length = 0;
    for (let i = s - window.from; i < end - window.from; i++) {
      length += beats[i];
      for (let c = 0; c < chords.length; c++) totals[c] += fits[i * chords.length + c] * beats[i];
    }
    let rival = -1;
    for (let c = 0; c < chords.length; c++) {
      if (chords[c].root === chords[own].root && sameFamily(chords[c].quality, chords[own].quality)) continue;
      if (rival < 0 || totals[c] > totals[rival]) rival = c;
    }
    spans.push({
      from: s,
      to: end,
      key: keys[k],
      type: types[k][path[s] - offsets[k]],
      margin: rival < 0 ? 1 : (totals[own] - totals[rival]) / Math.max(0.5, length),
      rival: rival < 0 ? null : { root: chords[rival].root, quality: QUALITIES[chords[rival].quality] }
    });
    s = end;
  }
  return spans;
}
