import { fifthsPc } from '../score/pitch.ts';
import { HARMONY } from '../style/harmony-weights.ts';
import { keyDistance, keysNear, keySignature, profileWeight, type Key } from './keys.ts';
import type { Slot, Texture, Tone } from './texture.ts';
import { chromaticTones, PROGRESSION_SPREAD, PROGRESSIONS, TONES, VOCABULARY, type ChordType, type Quality } from './vocabulary.ts';

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

const QUALITIES = Object.keys(TONES) as Quality[];
/** Tables by quality and by distance from the root on the line of fifths, shifted by the reach. */
const FIT_REACH = 80;
const FITS = QUALITIES.map((q) => fitTable((relative) => toneFit(TONES[q], relative)));
const BASS_FITS = QUALITIES.map((q) =>
  fitTable((relative) => {
    const place = TONES[q].indexOf(relative);
    return place >= 0 ? HARMONY.bass[Math.min(place, 3)] : HARMONY.bassForeign;
  })
);
const HAS_SIXTH = QUALITIES.map((q) => TONES[q].includes(10));

function fitTable(fit: (relative: number) => number): Float64Array {
  return Float64Array.from({ length: 2 * FIT_REACH + 1 }, (_, k) => fit(k - FIT_REACH));
}

/** Reward of a note for a chord: by its place in it, less in other spelling, a loss if it is foreign. */
function toneFit(tones: readonly number[], relative: number): number {
  const exact = tones.indexOf(relative);
  if (exact >= 0) return HARMONY.tone[Math.min(exact, 3)];
  const alike = tones.findIndex((t) => fifthsPc(t) === fifthsPc(relative));
  return alike >= 0 ? HARMONY.tone[Math.min(alike, 3)] * HARMONY.otherSpelling : HARMONY.foreign;
}

const ROOT_LOW = -24;
const chordId = (root: number, quality: number): number => (root - ROOT_LOW) * QUALITIES.length + quality;

/** Signatures printed in the piece bound the keys that are tried. */
function candidateKeys(signatures: number[], texture: Texture, pins: HarmonyPins): Key[] {
  const keys = keysNear(signatures, 5).filter((k) => Math.abs(keySignature(k)) <= 9);
  const pinned = pins.keys.map((p) => p.key);
  // Windows of about two bars vote for the keys that fit them; the rest need not be searched.
  const votes = new Map<Key, number>();
  const window = 16;
  for (let s = 0; s < texture.slots.length; s += window / 2) {
    const totals = keys.map((key) => {
      let sum = 0;
      for (let k = s; k < Math.min(s + window, texture.slots.length); k++) {
        for (const tone of texture.slots[k].tones) sum += tone.weight * profileWeight(key, tone.fifths);
      }
      return { key, sum };
    });
    totals.sort((a, b) => b.sum - a.sum);
    totals.slice(0, 5).forEach(({ key }, rank) => votes.set(key, (votes.get(key) ?? 0) + 5 - rank));
  }
  const home = keys.filter((k) => signatures.includes(keySignature(k)));
  const best = [...votes].sort((a, b) => b[1] - a[1]).map(([key]) => key);
  const chosen = new Set<string>();
  return [...pinned, ...home, ...best]
    .filter((k) => {
      const id = `${k.tonic}|${k.minor}`;
      return chosen.has(id) ? false : chosen.add(id) !== undefined;
    })
    .slice(0, 14 + pinned.length);
}

/**
 * The bass as it is understood: a low note struck on a beat goes on counting under the notes above it (a
 * broken chord, a waltz bass) until a strong beat or until something moves in its own region.
 */
function basslines(slots: readonly Slot[]): (Tone | null)[] {
  let held: Tone | null = null;
  return slots.map((slot) => {
    let lowest: Tone | null = null;
    for (const tone of slot.tones) if (!lowest || tone.midi < lowest.midi) lowest = tone;
    if (!lowest) {
      held = null;
      return null;
    }
    if (!held || slot.level >= 2 || lowest.midi <= held.midi + HARMONY.bassRegion) held = lowest;
    return held;
  });
}

/** Reward of every chord of the search in one slot, per beat. */
function emissions(
  slot: Slot,
  bass: Tone | null,
  chords: { root: number; quality: number }[],
  out: Float64Array,
  bassCounts: boolean
): void {
  const weights = new Map<number, number>();
  const length = slot.end - slot.start;
  let total = 0;
  for (const tone of slot.tones) {
    const share = (Math.min(tone.end, slot.end) - Math.max(tone.start, slot.start)) / length;
    weights.set(tone.fifths, (weights.get(tone.fifths) ?? 0) + share * tone.weight);
    total += share;
  }
  const scale = total > 1 ? 1 / Math.sqrt(total) : 1;
  const rootReward = bassCounts ? HARMONY.rootSounds : HARMONY.rootSoundsInLine;
  const spellings = [...weights.keys()];
  const amounts = [...weights.values()];
  for (let k = 0; k < chords.length; k++) {
    const { root, quality } = chords[k];
    const fits = FITS[quality];
    let sum = 0;
    let rootSounds = false;
    let sixthSounds = false;
    for (let n = 0; n < spellings.length; n++) {
      const relative = spellings[n] - root;
      sum += amounts[n] * fits[relative + FIT_REACH];
      if (relative === 0) rootSounds = true;
      else if (relative === 10) sixthSounds = true;
    }
    sum *= scale;
    if (!sixthSounds && HAS_SIXTH[quality]) sum += HARMONY.noAugmentedSixth;
    if (rootSounds) sum += rootReward;
    if (bass) sum += BASS_FITS[quality][bass.fifths - root + FIT_REACH];
    out[k] = sum;
  }
}

/**
 * Keys and chords in one search: the best path through (key, chord) pairs over the slots, where notes
 * reward chords and keys, and changes cost by metrical place, by progression and by distance of keys.
 */
export function searchHarmony(texture: Texture, signatures: number[], pins: HarmonyPins): HarmonySpan[] {
  const { slots } = texture;
  if (slots.length === 0) return [];
  const keys = candidateKeys(signatures, texture, pins);
  const types = keys.map((k) => (k.minor ? VOCABULARY.minor : VOCABULARY.major));
  const tables = keys.map((k) => (k.minor ? PROGRESSIONS.minor : PROGRESSIONS.major));
  const offsets: number[] = [];
  let states = 0;
  for (const t of types) {
    offsets.push(states);
    states += t.length;
  }
  // Absolute chords behind the states, each evaluated once per slot.
  const chordIndex = new Map<number, number>();
  const chords: { root: number; quality: number }[] = [];
  const chordOf = new Int32Array(states);
  keys.forEach((key, k) =>
    types[k].forEach((type, c) => {
      const root = key.tonic + type.root;
      const quality = QUALITIES.indexOf(type.quality);
      const id = chordId(root, quality);
      let index = chordIndex.get(id);
      if (index === undefined) {
        index = chords.length;
        chords.push({ root, quality });
        chordIndex.set(id, index);
      }
      chordOf[offsets[k] + c] = index;
    })
  );
  const keyCost = keys.map((a) => keys.map((b) => HARMONY.keyChange + HARMONY.keyDistance * keyDistance(a, b)));
  const allowedKey = pinnedKeys(slots.length, keys, pins);
  const allowedChord = pinnedChords(slots.length, keys, types, offsets, states, pins);
  const chromatic = types.map((list, k) => list.map((t) => chromaticTones(t, keys[k].minor).map((f) => keys[k].tonic + f)));
  const heardIn = soundingByMeasure(slots);
  const plainSeventh = types.map((list) =>
    list.map((t) => texture.singleLine && (t.quality === 'maj7' || t.quality === 'min7' || t.quality === 'hdim7'))
  );
  const stay = types.map((list, k) =>
    list.map((t, c) => (t.role === 'tonic' ? HARMONY.tonicPerBeat : 0) - (plainSeventh[k][c] ? HARMONY.seventhInLinePerBeat : 0))
  );
  const lineFactor = texture.singleLine ? HARMONY.changeInLine : 1;

  let score = new Float64Array(states);
  let next = new Float64Array(states);
  const back: Int16Array[] = [];
  const fits: Float64Array[] = [];
  const home = new Set(signatures.slice(0, 1));
  keys.forEach((key, k) =>
    types[k].forEach((type, c) => {
      score[offsets[k] + c] = (home.has(keySignature(key)) ? HARMONY.signature : 0) - type.cost;
    })
  );
  const bestScore = new Float64Array(keys.length);
  const bestState = new Int32Array(keys.length);
  const basses = texture.singleLine ? slots.map(() => null) : basslines(slots);
  const firstDownbeat = slots.findIndex((slot) => slot.level === 3 && slot.tones.length > 0);
  slots.forEach((slot, s) => {
    const pointers = new Int16Array(states);
    const fit = new Float64Array(chords.length);
    const beats = slotBeats(texture, slot);
    if (slot.tones.length) emissions(slot, basses[s], chords, fit, !texture.singleLine);
    fits.push(fit);
    const cost = [HARMONY.change.weak, HARMONY.change.beat, HARMONY.change.strong, HARMONY.change.bar][slot.level] * lineFactor;
    for (let k = 0; k < keys.length; k++) {
      let best = -Infinity;
      let at = offsets[k];
      for (let i = offsets[k]; i < offsets[k] + types[k].length; i++) {
        if (score[i] > best) [best, at] = [score[i], i];
      }
      bestScore[k] = best;
      bestState[k] = at;
    }
    for (let k = 0; k < keys.length; k++) {
      const n = types[k].length;
      const offset = offsets[k];
      const table = tables[k];
      let enter = -Infinity;
      let enterFrom = 0;
      if (s > 0 && slot.fresh) {
        for (let j = 0; j < keys.length; j++) {
          if (j === k) continue;
          const value = bestScore[j] - keyCost[j][k];
          if (value > enter) [enter, enterFrom] = [value, bestState[j]];
        }
      }
      const active: number[] = [];
      const floor = Math.max(bestScore[k], enter) - PROGRESSION_SPREAD;
      for (let i = 0; i < n; i++) if (score[offset + i] > floor) active.push(i);
      const blocked = allowedKey[s] !== null && allowedKey[s] !== k;
      let profile = 0;
      if (!blocked) {
        for (const tone of slot.tones) {
          const share = (Math.min(tone.end, slot.end) - Math.max(tone.start, slot.start)) / (slot.end - slot.start);
          profile += share * tone.weight * profileWeight(keys[k], tone.fifths);
        }
        profile *= (HARMONY.profile * beats) / Math.sqrt(Math.max(1, slot.tones.length));
      }
      for (let c = 0; c < n; c++) {
        const state = offset + c;
        if (blocked || (allowedChord[s] && !allowedChord[s]![state])) {
          next[state] = -1e9;
          pointers[state] = state;
          continue;
        }
        const entry = plainSeventh[k][c] ? HARMONY.seventhInLine : 0;
        let best = score[state];
        let from = state;
        // Without a new note no new chord is heard.
        if (s > 0 && slot.fresh) {
          for (const a of active) {
            if (a === c) continue;
            const value = score[offset + a] + table[a * n + c] - cost - entry;
            if (value > best) [best, from] = [value, offset + a];
          }
          const value = enter - cost - types[k][c].cost - entry;
          if (value > best) [best, from] = [value, enterFrom];
        }
        next[state] =
          best +
          fit[chordOf[state]] * beats +
          profile +
          (stay[k][c] + (isBelievable(chromatic[k][c], heardIn[slot.measure]) ? 0 : HARMONY.noChromaticNote)) * beats +
          (s === firstDownbeat && types[k][c].role === 'tonic' ? HARMONY.tonicFirst : 0);
        pointers[state] = from;
      }
    }
    back.push(pointers);
    [score, next] = [next, score];
  });
  const path = trace(score, back, keys, types, offsets, home);
  return spansOf(
    path,
    keys,
    types,
    offsets,
    chordOf,
    chords,
    fits,
    slots.map((slot) => slotBeats(texture, slot))
  );
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

const isBelievable = (chromatic: readonly number[], heard: Set<number>): boolean =>
  chromatic.length === 0 || chromatic.some((f) => heard.has(f));

const slotBeats = (texture: Texture, slot: Slot): number => (slot.end - slot.start) / texture.ticksPerQuarter;

function pinnedKeys(count: number, keys: Key[], pins: HarmonyPins): (number | null)[] {
  const allowed = new Array<number | null>(count).fill(null);
  for (const pin of pins.keys) {
    const k = keys.findIndex((key) => key.tonic === pin.key.tonic && key.minor === pin.key.minor);
    for (let s = pin.from; s < Math.min(pin.to, count); s++) allowed[s] = k;
  }
  return allowed;
}

function pinnedChords(
  count: number,
  keys: Key[],
  types: ChordType[][],
  offsets: number[],
  states: number,
  pins: HarmonyPins
): (Uint8Array | null)[] {
  const allowed = new Array<Uint8Array | null>(count).fill(null);
  for (const pin of pins.chords) {
    const mask = new Uint8Array(states);
    let any = false;
    keys.forEach((key, k) =>
      types[k].forEach((type, c) => {
        if (pin.matches(key, type)) {
          mask[offsets[k] + c] = 1;
          any = true;
        }
      })
    );
    if (any) for (let s = pin.from; s < Math.min(pin.to, count); s++) allowed[s] = mask;
  }
  return allowed;
}

function trace(score: Float64Array, back: Int16Array[], keys: Key[], types: ChordType[][], offsets: number[], home: Set<number>): number[] {
  let state = 0;
  let best = -Infinity;
  keys.forEach((key, k) =>
    types[k].forEach((type, c) => {
      const bonus = (home.has(keySignature(key)) ? HARMONY.homeEnd : 0) + (type.role === 'tonic' ? HARMONY.tonicLast : 0);
      if (score[offsets[k] + c] + bonus > best) {
        best = score[offsets[k] + c] + bonus;
        state = offsets[k] + c;
      }
    })
  );
  const path = new Array<number>(back.length);
  for (let s = back.length - 1; s >= 0; s--) {
    path[s] = state;
    state = back[s][state];
  }
  return path;
}

function spansOf(
  path: number[],
  keys: Key[],
  types: ChordType[][],
  offsets: number[],
  chordOf: Int32Array,
  chords: { root: number; quality: number }[],
  fits: Float64Array[],
  beats: number[]
): HarmonySpan[] {
  const spans: HarmonySpan[] = [];
  for (let s = 0; s < path.length;) {
    let end = s + 1;
    while (end < path.length && path[end] === path[s]) end++;
    let k = keys.length - 1;
    while (offsets[k] > path[s]) k--;
    const own = chordOf[path[s]];
    const totals = new Float64Array(chords.length);
    let length = 0;
    for (let i = s; i < end; i++) {
      length += beats[i];
      for (let c = 0; c < chords.length; c++) totals[c] += fits[i][c] * beats[i];
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

/** A triad and its seventh chord are no rivals. */
const sameFamily = (a: number, b: number): boolean => {
  const x = TONES[QUALITIES[a]];
  const y = TONES[QUALITIES[b]];
  return x[1] === y[1] && x[2] === y[2];
};
