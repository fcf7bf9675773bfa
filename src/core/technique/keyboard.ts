import { keyAlter } from '../score/accidentals.ts';
import { staffStep } from '../score/pitch.ts';
import { KEYBOARD as PRICE, SCALE_FINGERS, SPANS } from '../style/keyboard-fingers.ts';
import { PriceMemory, Way, type Tally } from './cheapest.ts';
import { height, silenceBefore, type Attack, type PlayerLine } from './player-line.ts';

export type HandName = 'left' | 'right';

/** Fingers of a chord from the lowest key; one for a single key. */
type Grip = readonly number[];
/** The grip before and this one: the rules look at three notes. */
interface Pair {
  before: Grip | null;
  now: Grip;
}

export interface KeyboardFingering {
  hand: HandName;
  /** By attack: a finger for each head from the lowest; 0 where the hand has none left. */
  grips: Grip[];
  prices: number[];
  total: number;
  alternatives: { from: number; to: number; grips: Grip[]; price: number }[];
}

const BLACK = new Set([1, 3, 6, 8, 10]);

/** Keys as a right hand would see them: a left hand's mirrored about a white key between its blacks (D), which keeps colours. */
const MIRROR = 2 * 62;
const keysOf = (a: Attack, hand: HandName): number[] => {
  const keys = a.notes.map((n) => Math.round(height(n)));
  return hand === 'right' ? keys : keys.map((k) => MIRROR - k).reverse();
};
const isBlack = (key: number): boolean => BLACK.has(((key % 12) + 12) % 12);

/** The span from one finger to another, of the table; null for the same finger. */
const spanOf = (f: number, g: number): { span: (typeof SPANS)[string]; up: boolean } | null =>
  f === g ? null : { span: SPANS[f < g ? `${f}${g}` : `${g}${f}`], up: f < g };

const NOTHING = [0, 0] as const;

/** How far an interval of a pair of fingers lies outside bounds, in semitones. */
const outside = (interval: number, [least, most]: readonly [number, number]): number => Math.max(0, least - interval, interval - most);

export interface KeyboardSettings {
  hand: HandName;
  /** Fingers that stay, by attack: for its top key (its lowest, of a left hand). */
  pins: ReadonlyMap<number, number>;
}

/** Keys are named as a right hand sees them, so both hands share it. */
const MEMORY = new PriceMemory();

/** The fingering of one hand. Left hands are right hands in a mirror. */
export function keyboardFingering(line: PlayerLine, { hand, pins }: KeyboardSettings): KeyboardFingering {
  const { attacks } = line;
  const keys = attacks.map((a) => keysOf(a, hand));
  const choices = keys.map((chord, k): Grip[] => {
    const all = gripsOf(chord);
    const pin = pins.get(k);
    const kept = pin === undefined ? all : all.filter((g) => g.at(-1) === pin);
    if (kept.length) return kept;
    return pin === undefined ? all : [[...new Array<number>(chord.length - 1).fill(0), pin]];
  });
  const rests = attacks.map((_, k) => (silenceBefore(line, k) >= PRICE.restSeconds ? PRICE.inRest : 1));
  const usual = scaleFingers(line, hand);
  // Prices hang on the keys alone, until something is pinned.
  const names = keys.map((chord, k) => chord.join(' ') + (pins.has(k) ? ` with ${pins.get(k)}` : ''));
  const known = new Map<string, Pair[]>();
  const layers = choices.map((here, k): Pair[] => {
    if (!k) return here.map((now) => ({ before: null, now }));
    const name = `${names[k - 1]}>${names[k]}`;
    const pairs = known.get(name) ?? choices[k - 1].flatMap((before) => here.map((now) => ({ before, now })));
    known.set(name, pairs);
    return pairs;
  });
  const question = {
    layers,
    memory: MEMORY,
    // Pairs overlap: the one ends with what the other begins with.
    follows: (k: number, before: number): readonly [number, number] => {
      const count = choices[k].length;
      const now = k > 1 ? before % choices[k - 1].length : before;
      return [now * count, (now + 1) * count];
    },
    ownKey: (k: number): string => `${names[k - 1] ?? ''}>${names[k]} ${rests[k]} ${usual[k]}`,
    stepKey: (k: number): string => `${names[k - 2] ?? ''}>${names[k - 1]}>${names[k]} ${rests[k - 1]} ${rests[k]}`,
    own: (k: number, { before, now }: Pair, tally: Tally): void => {
      gripCost(keys[k], now, tally);
      if (usual[k] && now[0] !== usual[k]) tally('not as scales are fingered', PRICE.notAsScales);
      if (before) pairCost(keys[k - 1], before, keys[k], now, rests[k], tally);
    },
    step: (k: number, a: Pair, b: Pair, tally: Tally): void => {
      if (a.before && rests[k] === 1 && rests[k - 1] === 1) tripleCost(keys, k, a.before, a.now, b.now, tally);
    }
  };
  const way = new Way(question);
  const real = (g: Grip): Grip => (hand === 'right' ? g : [...g].reverse());
  const grips = way.path.map((p) => real(p.now));
  const prices = way.prices;
  return {
    hand,
    grips,
    prices,
    total: way.total,
    alternatives: alternativesOf(way).map((a) => ({ ...a, grips: a.grips.map(real) }))
  };
}

/** Fingers that scales are learnt with, inside runs by step in the key of the signature; 0 elsewhere. */
function scaleFingers({ attacks, score }: PlayerLine, hand: HandName): number[] {
  const usual = new Array<number>(attacks.length).fill(0);
  const steps = attacks.map((a) => (a.notes.length === 1 && a.notes[0].pitch && !a.grace ? staffStep(a.notes[0].pitch) : null));
  const direction = (k: number): number => {
    const [a, b] = [steps[k - 1], steps[k]];
    return a == null || b == null || Math.abs(b - a) !== 1 ? 0 : b - a;
  };
  for (let from = 0; from < attacks.length;) {
    let to = from + 1;
    while (to < attacks.length && direction(to) !== 0 && direction(to) === direction(from + 1)) to++;
    const { key } = score.measures[attacks[from].notes[0].measure];
    const run = attacks.slice(from, to).map((a) => a.notes[0].pitch);
    const fingers = SCALE_FINGERS[key.fifths];
    if (to - from >= PRICE.scaleRun && fingers && !key.steps && run.every((p) => p && p.alter === keyAlter(key, p.step))) {
      const tonic = (((key.fifths * 4) % 7) + 7) % 7;
      // At its ends a run begins and ends as it lies.
      for (let k = from + 1; k < to - 1; k++) usual[k] = fingers[hand][(((steps[k]! - tonic) % 7) + 7) % 7];
    }
    from = Math.max(to - 1, from + 1);
  }
  return usual;
}

/** Fingers for keys that are struck together, thumb first; the best by their spans. */
function gripsOf(chord: readonly number[]): Grip[] {
  if (chord.length === 1) return [[1], [2], [3], [4], [5]];
  const grips: number[][] = [];
  const choose = (from: number, grip: number[]): void => {
    if (grip.length === Math.min(5, chord.length)) return void grips.push(grip);
    for (let f = from; f <= 5; f++) choose(f + 1, [...grip, f]);
  };
  choose(1, []);
  // More keys than fingers: the lowest has none, or shares the thumb.
  const full = grips.map((g) => (chord.length > 5 ? [...new Array<number>(chord.length - 5).fill(0), ...g] : g));
  // The thumb takes two keys that lie side by side.
  if (chord.length > 2 && chord[1] - chord[0] <= 2) {
    const upper: number[][] = [];
    const fill = (from: number, grip: number[]): void => {
      if (grip.length === chord.length) return void upper.push(grip);
      for (let f = from; f <= 5; f++) fill(f + 1, [...grip, f]);
    };
    if (chord.length <= 6) fill(2, [1, 1]);
    full.push(...upper);
  }
  const priced = full.map((grip) => {
    let price = 0;
    gripCost(chord, grip, (_, p) => (price += p));
    return { grip, price };
  });
  priced.sort((a, b) => a.price - b.price);
  return priced.slice(0, PRICE.mostGrips).map((p) => p.grip);
}

/** What a grip costs by itself. */
function gripCost(chord: readonly number[], grip: Grip, tally: Tally): void {
  for (const [k, f] of grip.entries()) {
    if (f >= 4 && chord.length === 1) tally('weak finger', PRICE.weakFinger);
    const next = grip[k + 1];
    if (next === undefined || !f) continue;
    const found = spanOf(f, next);
    const interval = chord[k + 1] - chord[k];
    if (found) spanCost(interval, f, next, tally);
  }
  if (grip.length > 2) {
    const [first, last] = [grip.find((f) => f), grip.at(-1)!];
    if (first && first !== last)
      tally('stretch', PRICE.stretch * outside(chord.at(-1)! - chord[grip.indexOf(first)], spanOf(first, last)!.span.practical));
  }
}

/** Stretch, small span and large span of two keys under two fingers; `interval` from the first to the second. */
function spanCost(interval: number, f: number, g: number, tally: Tally): void {
  const found = spanOf(f, g)!;
  const { span } = found;
  const signed = found.up ? interval : -interval;
  tally('stretch', PRICE.stretch * outside(signed, span.comfortable));
  if (span === SPANS['14'] && signed >= PRICE.fifthFrom) tally('the fifth finger is free', PRICE.fifthIsFree);
  tally(
    signed < span.relaxed[0] ? 'small span' : 'large span',
    (f === 1 || g === 1 ? PRICE.spanWithThumb : PRICE.spanWithout) * outside(signed, span.relaxed)
  );
}

/** Chords hang together with their neighbours by their outer key and finger. */
function pairCost(chordA: readonly number[], a: Grip, chordB: readonly number[], b: Grip, rest: number, tally: Tally): void {
  const [p, f, q, g] = [chordA.at(-1)!, a.at(-1)!, chordB.at(-1)!, b.at(-1)!];
  if (!f || !g) return;
  if (f === g) {
    if (p !== q) tally('one finger on two keys', (PRICE.sameFinger + PRICE.sameFingerASemitone * Math.abs(q - p)) * rest);
    return;
  }
  if (p === q) return tally('another finger on the same key', PRICE.changeOnRepeat * rest);
  const interval = q - p;
  spanCost(interval, f, g, (name, price) => tally(name, price * rest));
  if (rest < 1) return;
  const [blackA, blackB] = [isBlack(p), isBlack(q)];
  if ((f === 3 && g === 4) || (f === 4 && g === 3)) {
    if (f === 3) tally('three to four', PRICE.threeToFour);
    if ((f === 3 && !blackA && blackB) || (f === 4 && blackA && !blackB)) tally('four on black', PRICE.fourOnBlack);
  }
  // The thumb passes under, or a finger over it.
  const thumb = f === 1 ? 'from' : g === 1 ? 'to' : null;
  if (thumb && ((thumb === 'to' && interval > 0) || (thumb === 'from' && interval < 0))) {
    if (blackA === blackB) tally('thumb passing', PRICE.thumbPassing);
    else if (thumb === 'to' ? blackB : blackA) tally('thumb passing to a black key', PRICE.thumbPassingToBlack);
  }
  // Thumb and little finger on black keys beside white ones.
  if (f === 1 && blackA && !blackB) tally('thumb on black beside white', PRICE.thumbBesideWhite);
  if (g === 1 && blackB) tally('thumb on black', PRICE.thumbOnBlack + (blackA ? 0 : PRICE.thumbBesideWhite + PRICE.thumbKeepsToWhite));
  if (f === 5 && blackA && !blackB) tally('fifth finger on black beside white', PRICE.fiveBesideWhite);
  if (g === 5 && blackB && !blackA) tally('fifth finger on black beside white', PRICE.fiveBesideWhite);
}

/** Changes of position, and the three weak fingers in a row: rules over three notes. */
function tripleCost(keys: readonly (readonly number[])[], k: number, a: Grip, b: Grip, c: Grip, tally: Tally): void {
  const [one, two, three] = [keys[k - 2], keys[k - 1], keys[k]];
  const [p, q, r] = [one.at(-1)!, two.at(-1)!, three.at(-1)!];
  const [f, g, h] = [a.at(-1)!, b.at(-1)!, c.at(-1)!];
  if (!f || !g || !h) return;
  if (new Set([f, g, h]).size === 3 && f > 2 && g > 2 && h > 2) tally('three, four, five', PRICE.threeFourFive);
  const found = spanOf(f, h);
  // The same finger spans nothing.
  const signed = found?.up === false ? p - r : r - p;
  if (p === r && found) return tally('change of position', PRICE.positionChangeHalf);
  const size = outside(signed, found?.span.comfortable ?? NOTHING);
  if (!size) return;
  const full = g === 1 && (q - p) * (r - q) > 0 && outside(signed, found?.span.practical ?? NOTHING) > 0;
  tally('change of position', full ? PRICE.positionChangeFull : PRICE.positionChangeHalf);
  tally('size of the change', PRICE.positionChangeSize * size);
}

/** Where another finger costs little more, at each change of position. */
const alternativesOf = (way: Way<Pair>): KeyboardFingering['alternatives'] =>
  way
    .detours(
      PRICE.close,
      (k) => k > 0 && way.costsAt(k).some((c) => c.name === 'change of position'),
      (a, b) => a.now.at(-1) !== b.now.at(-1)
    )
    .map(({ from, to, price, options }) => ({ from, to, price, grips: options.map((p) => p.now) }));
