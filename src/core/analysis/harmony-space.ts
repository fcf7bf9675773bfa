import { fifthsPc } from '../score/pitch.ts';
import { HARMONY } from '../style/harmony-weights.ts';
import { keyDistance, keysNear, keySignature, profileWeight, sameKey, type Key } from './keys.ts';
import type { Slot, SoundingScore, Tone } from './sounding-score.ts';
import { chromaticTones, QUALITIES, TONES, VOCABULARIES, type ChordType, type VocabularyName } from './vocabulary.ts';

/** Windows of about two bars vote for keys; a key is tried near the windows in which it was among the best. */
const WINDOW_SLOTS = 16;
const KEYS_A_WINDOW = 5;
const MOST_KEYS = 14;
/** Sharps or flats beyond which no key is written. */
const MOST_SIGNS = 7;
/** Keys of one window that are tried besides those of the signature. */
const NEAR_KEYS = 6;

/** In what kind of tonality a piece is read: which chords it has, and its one key where it has only one. */
export interface World {
  vocabulary: VocabularyName;
  key: Key | null;
}
export const COMMON: World = { vocabulary: 'common', key: null };

/** The states of the search, (key, chord) pairs numbered through, with everything about them that does not depend on time. */
export interface HarmonySpace {
  keys: Key[];
  /** Chord types of each key. */
  types: readonly (readonly ChordType[])[];
  /** Rewards of one chord after another, transposed: tables[k][to * n + from]. */
  tables: Float64Array[];
  /** How much the way into a chord can matter at most. */
  spread: number;
  /** First state of each key. */
  offsets: number[];
  states: number;
  keyOfState: Int16Array;
  /** Absolute chords behind the states, each evaluated once per slot. */
  chords: { root: number; quality: number }[];
  chordOf: Int32Array;
  keyCost: number[][];
  /** Places on the line of fifths of which one must sound for a state to be believed; empty for plain chords. */
  chromatic: number[][];
  /** Place on the line of fifths of each state's seventh; null for triads. */
  seventh: (number | null)[];
  /** Reward per beat of staying on a state, and cost of entering it. */
  stay: Float64Array;
  entry: Float64Array;
  isTonic: Uint8Array;
  /** V and V7. */
  isDominant: Uint8Array;
  home: Set<number>;
  /** For each window of slots, which keys are tried there. */
  near: Uint8Array[];
}

const windowOf = (slot: number): number => Math.floor(slot / (WINDOW_SLOTS / 2));
/** Which keys are tried at a slot. */
export const keysAt = (space: HarmonySpace, slot: number): Uint8Array => space.near[Math.min(windowOf(slot), space.near.length - 1)];

/** How well each key near the signatures fits each window, best first. */
function windowVotes(sounding: SoundingScore, keys: readonly Key[]): Key[][] {
  const { slots } = sounding;
  const votes: Key[][] = [];
  for (let s = 0; s < slots.length || votes.length === 0; s += WINDOW_SLOTS / 2) {
    const amounts = new Map<number, number>();
    for (let k = s; k < Math.min(s + WINDOW_SLOTS, slots.length); k++)
      for (const tone of slots[k].tones) amounts.set(tone.fifths, (amounts.get(tone.fifths) ?? 0) + tone.weight);
    const totals = keys.map((key) => {
      let sum = 0;
      for (const [fifths, amount] of amounts) sum += amount * profileWeight(key, fifths);
      return { key, sum };
    });
    votes.push(totals.sort((a, b) => b.sum - a.sum).map((t) => t.key));
  }
  return votes;
}

/** Signatures printed in the piece bound the keys that are tried; pinned keys come last, so that they never move the others. */
export function harmonySpace(sounding: SoundingScore, signatures: readonly number[], pinned: readonly Key[], world: World): HarmonySpace {
  const nearby = keysNear(signatures, 5).filter((k) => Math.abs(keySignature(k)) <= MOST_SIGNS || signatures.includes(keySignature(k)));
  const votes = windowVotes(sounding, nearby);
  const totals = new Map<Key, number>();
  for (const window of votes)
    window.slice(0, KEYS_A_WINDOW).forEach((key, rank) => totals.set(key, (totals.get(key) ?? 0) + KEYS_A_WINDOW - rank));
  const atHome = nearby.filter((k) => signatures.includes(keySignature(k)));
  const best = [...totals].sort((a, b) => b[1] - a[1]).map(([key]) => key);
  const unique = (list: readonly Key[]): Key[] => list.filter((k, i) => list.findIndex((o) => sameKey(o, k)) === i);
  const tried = world.key ? [world.key] : unique([...atHome, ...best]).slice(0, MOST_KEYS);
  const keys = unique([...tried, ...pinned]);
  const near = votes.map((window, w) => {
    const near = new Uint8Array(keys.length);
    const around = [window, votes[w - 1], votes[w + 1]].flatMap((v) => v?.slice(0, NEAR_KEYS) ?? []);
    keys.forEach((key, k) => {
      const isNear = [...around, ...atHome, ...pinned, ...(world.key ? [world.key] : [])].some((o) => sameKey(o, key));
      if (isNear) near[k] = 1;
    });
    return near;
  });
  const home = new Set(world.key ? [keySignature(world.key)] : signatures.slice(0, 1));
  return { ...statesOf(sounding, keys, world.vocabulary), home, near };
}

function statesOf(sounding: SoundingScore, keys: Key[], name: VocabularyName): Omit<HarmonySpace, 'home' | 'near'> {
  const vocabularies = keys.map((k) => VOCABULARIES[name][k.minor ? 'minor' : 'major']);
  const types = vocabularies.map((v) => v.types);
  const offsets: number[] = [];
  let states = 0;
  for (const t of types) {
    offsets.push(states);
    states += t.length;
  }
  const chordIndex = new Map<string, number>();
  const chords: { root: number; quality: number }[] = [];
  const chordOf = new Int32Array(states);
  const keyOfState = new Int16Array(states);
  const stay = new Float64Array(states);
  const entry = new Float64Array(states);
  const isTonic = new Uint8Array(states);
  const isDominant = new Uint8Array(states);
  const chromatic: number[][] = [];
  const seventh: (number | null)[] = [];
  keys.forEach((key, k) =>
    types[k].forEach((type, c) => {
      const state = offsets[k] + c;
      const root = key.tonic + type.root;
      const quality = QUALITIES.indexOf(type.quality);
      const id = `${root}|${quality}`;
      let index = chordIndex.get(id);
      if (index === undefined) {
        index = chords.length;
        chords.push({ root, quality });
        chordIndex.set(id, index);
      }
      chordOf[state] = index;
      keyOfState[state] = k;
      isTonic[state] = type.role === 'tonic' ? 1 : 0;
      isDominant[state] = type.role === 'dominant' && type.root === 1 ? 1 : 0;
      const plainSeventh = sounding.singleLine && ['maj7', 'min7', 'hdim7'].includes(type.quality);
      stay[state] = (type.role === 'tonic' ? HARMONY.tonicPerBeat : 0) - (plainSeventh ? HARMONY.seventhInLinePerBeat : 0);
      entry[state] = plainSeventh ? HARMONY.seventhInLine : 0;
      chromatic.push(chromaticTones(type, key.minor).map((f) => key.tonic + f));
      const top = TONES[type.quality][3];
      seventh.push(top === undefined || type.role === 'colour' ? null : root + top);
    })
  );
  const inLine = sounding.singleLine ? HARMONY.keyChangeInLine : 1;
  return {
    keys,
    types,
    tables: vocabularies.map((v) => v.rewards),
    spread: Math.max(...vocabularies.map((v) => v.spread)),
    offsets,
    states,
    keyOfState,
    chords,
    chordOf,
    keyCost: keys.map((a) => keys.map((b) => inLine * (HARMONY.keyChange + HARMONY.keyDistance * keyDistance(a, b)))),
    chromatic,
    seventh,
    stay,
    entry,
    isTonic,
    isDominant
  };
}

/** Tables by quality and by distance from the root on the line of fifths, shifted by the reach. */
const FIT_REACH = 80;
const FITS = QUALITIES.map((q) => fitTable((relative) => toneFit(TONES[q], relative, HARMONY.tone, HARMONY.foreign)));
const FITS_IN_LINE = QUALITIES.map((q) => fitTable((relative) => toneFit(TONES[q], relative, HARMONY.toneInLine, HARMONY.foreignInLine)));
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
function toneFit(tones: readonly number[], relative: number, rewards: readonly number[], foreign: number): number {
  const exact = tones.indexOf(relative);
  if (exact >= 0) return rewards[Math.min(exact, 3)];
  const alike = tones.findIndex((t) => fifthsPc(t) === fifthsPc(relative));
  return alike >= 0 ? rewards[Math.min(alike, 3)] * HARMONY.otherSpelling : foreign;
}

/** Reward of every chord of the search in one slot, per beat. */
export function emissions(slot: Slot, bass: Tone | null, chords: HarmonySpace['chords'], out: Float64Array, bassCounts: boolean): void {
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
    const fits = bassCounts ? FITS[quality] : FITS_IN_LINE[quality];
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
    if (bass) sum += (bassCounts ? 1 : HARMONY.lowInLine) * BASS_FITS[quality][bass.fifths - root + FIT_REACH];
    out[k] = sum;
  }
}

/**
 * The bass as it is understood: a low note struck on a beat goes on counting under the notes above it (a
 * broken chord, a waltz bass) until a strong beat or until something moves in its own region.
 */
export function basslines(sounding: SoundingScore): (Tone | null)[] {
  if (sounding.singleLine) return lowNotes(sounding);
  let held: Tone | null = null;
  return sounding.slots.map((slot) => {
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

/** In a line alone: a note on a beat that leaps down and up again stands below all the notes after it in its bar. */
function lowNotes(sounding: SoundingScore): (Tone | null)[] {
  let held: Tone | null = null;
  let measure = -1;
  return sounding.slots.map((slot) => {
    if (slot.measure !== measure) {
      measure = slot.measure;
      held = null;
    }
    const struck = slot.tones.find((t) => t.start === slot.start);
    if (struck && slot.level >= 1) {
      const up = struck.next ? struck.next.midi - struck.midi : 0;
      const down = struck.previous ? struck.previous.midi - struck.midi : HARMONY.lowLeap;
      if (up >= HARMONY.lowLeap && down >= HARMONY.lowLeap - 2) held = struck;
      else if (held && struck.midi < held.midi) held = null;
    }
    return held;
  });
}
