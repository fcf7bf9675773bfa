import { listed } from '../sentences.ts';
import { midi, pitchName, staffStep, type Pitch } from '../score/pitch.ts';
import type { Note } from '../score/model.ts';
import { STRING_PRICES as PRICE, type StringHand, type STRING_TASTE } from '../style/string-hands.ts';
import { Way, type Cost, type Tally } from './cheapest.ts';
import { lasts, silenceBefore, type Attack, type PlayerLine } from './player-line.ts';
import { placesOf, THUMB, type Place } from './string-places.ts';

/** What is said of a note by the teacher or the page; it stays. */
export interface FingerPin {
  /** "0" open, "1" to "4", "T". */
  finger?: string;
  /** Letter of the open string. */
  string?: string;
}

export interface LeftHandSettings {
  /** Sounding pitches of the open strings, from the highest. */
  open: readonly Pitch[];
  hand: StringHand;
  /** A bow sounds neighbouring strings only. */
  bowed: boolean;
  taste: (typeof STRING_TASTE)[keyof typeof STRING_TASTE];
  /** By attack, for each of its heads from the lowest. */
  pins: ReadonlyMap<number, readonly (FingerPin | undefined)[]>;
}

/** Where the heads of an attack are stopped; null for a head for which there is no place. */
interface Grip {
  places: readonly (Place | null)[];
}

export interface Fingering {
  /** By attack: a place for each head, from the lowest; null where there is none. */
  grips: (readonly (Place | null)[])[];
  costs: Cost[][];
  total: number;
  /** To a string that is no neighbour, by the attack arrived at. */
  crossings: { at: number; from: number; to: number; slurred: boolean }[];
  /** Attacks of several heads; why, where they cannot be stopped. */
  chords: { at: number; possible: boolean; why: string | null }[];
  /** Attacks at which what is pinned cannot be played; there it is looked for as if nothing were. */
  refused: number[];
  alternatives: { from: number; to: number; grips: (readonly (Place | null)[])[]; price: number }[];
}

/** Ways to stop a chord that are looked at, at most. */
const MOST_GRIPS = 24;

export const fingerName = (finger: number): string => (finger === THUMB ? 'T' : String(finger));
export const stringName = (open: readonly Pitch[], string: number): string => {
  const letter = pitchName(open[string]).replace(/-?\d+$/, '');
  // The higher of two strings of one name is written small.
  return open.slice(string + 1).some((o) => o.step === open[string].step) ? letter.toLowerCase() : letter;
};

const soundingOf = (n: Note): Pitch => n.sounding ?? n.pitch!;
const isTrilled = (a: Attack): boolean => a.notes.some((n) => n.marks?.some((m) => /trill|mordent|turn/.test(m.name)));

/** The search for one line on strings. Shortest path after Sayegh, Computer Music Journal 13(3), 1989; prices handbook 13.2. */
export function leftHand(line: PlayerLine, settings: LeftHandSettings): Fingering {
  const { attacks } = line;
  const { open, hand, taste } = settings;
  const chords: Fingering['chords'] = [];
  const refused: number[] = [];
  const cache = new Map<string, Place[]>();
  const places = (n: Note): Place[] => {
    const pitch = soundingOf(n);
    const key = `${pitch.step} ${pitch.alter} ${pitch.octave}`;
    let found = cache.get(key);
    if (!found) cache.set(key, (found = placesOf(pitch, open, hand)));
    return found;
  };
  const hasOpen = (a: Attack): boolean => a.notes.length === 1 && places(a.notes[0]).some((p) => p.finger === 0);
  /** What attacks are called: the same heads are stopped in the same ways. */
  const names = attacks.map((a) => {
    let name = '';
    for (const n of a.notes) name += `${n.pitch ? midi(soundingOf(n)) * 8 + (staffStep(soundingOf(n)) % 7) : 'x'} `;
    return name;
  });
  const known = new Map<string, Grip[]>();
  const layers = attacks.map((a, k): Grip[] => {
    const pins = settings.pins.get(k);
    if (!pins && a.notes.length === 1 && known.has(names[k])) return known.get(names[k])!;
    const heads = a.notes.filter((n) => n.pitch);
    const choices = heads.map(places);
    const free = (): Grip[] => {
      const grips = gripsOf(choices, hand, settings.bowed);
      if (heads.length > 1) chords.push({ at: k, possible: grips.length > 0, why: grips.length ? null : whyNot(heads, choices, open) });
      const ways = grips.length ? grips : lone(choices);
      known.set(names[k], ways);
      return ways;
    };
    const pinned =
      pins &&
      gripsOf(
        choices.map((c, h) => c.filter((p) => keeps(p, pins[h] ?? {}, open))),
        hand,
        settings.bowed
      );
    if (pins && !pinned?.length) refused.push(k);
    if (!pinned?.length) return free();
    if (heads.length > 1) chords.push({ at: k, possible: true, why: null });
    return pinned;
  });
  // Prices hang on the pitches alone, until something is pinned.
  for (const k of settings.pins.keys()) names[k] += `pinned ${k}`;
  const question = {
    layers,
    ownKey: (k: number): string =>
      names[k] + (lasts(attacks[k]) >= PRICE.longSeconds ? 'long' : '') + (isTrilled(attacks[k]) ? 'trilled' : ''),
    stepKey: (k: number): string =>
      `${names[k - 1]}>${names[k]}` + (attacks[k - 1].joined ? 'joined' : '') + (silenceBefore(line, k) >= 0.2 ? 'rest' : ''),
    own: (k: number, grip: Grip, tally: Tally): void => {
      const a = attacks[k];
      const long = lasts(a) >= PRICE.longSeconds;
      const trilled = isTrilled(a);
      for (const p of grip.places) {
        if (!p) {
          tally('no place for a note', PRICE.impossible);
          continue;
        }
        if (p.finger === 0) {
          if (trilled) tally('trill on an open string', PRICE.openTrilled);
          else if (long) tally('open string on a long note', taste.openLong);
          continue;
        }
        tally('height', (p.position - 1) * (PRICE.height * taste.height + PRICE.heightOnLower * p.string));
        if (p.extended) tally('extension', PRICE.extension);
        tally('stretch', PRICE.stretch * p.stretch);
        if (p.finger === THUMB) tally('thumb', PRICE.thumb);
        if (p.finger === 4 && !trilled && !long && hasOpen(a)) tally('fourth finger where a string is open', taste.fourthForOpen);
        if (p.finger === 4) tally('fourth finger', PRICE.fourth + (trilled ? PRICE.fourthTrilled : long ? PRICE.fourthLong : 0));
      }
      tally('stretch in a chord', PRICE.chordStretch * spreadOf(grip));
    },
    step: (k: number, before: Grip, grip: Grip, tally: Tally): void => stepCost(line, k, before, grip, hand, taste, tally)
  };
  const way = new Way(question);
  const grips = way.path.map((g) => g.places);
  const costs = way.chosen.map((_, k) => way.costsAt(k));
  return {
    grips,
    costs,
    total: way.total,
    crossings: crossingsOf(line, grips),
    chords,
    refused,
    alternatives: alternativesOf(way, costs)
  };
}

const keeps = (p: Place, pin: FingerPin, open: readonly Pitch[]): boolean =>
  (pin.finger === undefined || fingerName(p.finger) === pin.finger) &&
  (pin.string === undefined || stringName(open, p.string) === pin.string);

const stopped = (grip: Grip): Place[] => grip.places.filter((p): p is Place => p !== null && p.finger > 0);
const handOf = (grip: Grip): Place | undefined => stopped(grip)[0] ?? grip.places.find((p): p is Place => p !== null);

function stepCost(
  line: PlayerLine,
  k: number,
  before: Grip,
  grip: Grip,
  hand: StringHand,
  taste: LeftHandSettings['taste'],
  tally: Tally
): void {
  const [a, b] = [handOf(before), handOf(grip)];
  if (!a || !b) return;
  const rest = silenceBefore(line, k) >= 0.2 ? PRICE.inRest : 1;
  const slurred = line.attacks[k - 1].joined;
  // Whether the hand has moved: by the name of the position where fingers go by steps, by the place of the first finger else.
  const moves = hand.kind === 'steps' || !a.finger || !b.finger ? a.position !== b.position : a.hand !== b.hand;
  // The hand opens forward with its first finger in place, or back with the others in place.
  const [closed, open] = a.extended ? [b, a] : [a, b];
  const opens = hand.kind === 'semitones' && a.extended !== b.extended && (open.hand === closed.hand || open.hand === closed.hand - 1);
  if (opens) {
    const stays = open.hand === closed.hand ? closed.finger === 1 : closed.finger > 1;
    tally('the hand opens', (stays ? PRICE.openingBesideFirst : PRICE.opening) * rest);
  } else if (moves) {
    const far = Math.abs(a.hand - b.hand);
    const across = a.finger === 0 || b.finger === 0;
    const price = PRICE.shift + PRICE.shiftASemitone * far + (slurred && !across ? PRICE.shiftSlurred : 0);
    tally('shift', price * rest * (across ? PRICE.acrossOpen : 1));
    if (b.finger && b.finger <= 4) tally('shift to a finger', PRICE.shiftFinger * (b.hand > a.hand ? b.finger - 1 : 4 - b.finger) * rest);
    if (a.finger && a.finger === b.finger && !across && rest === 1) tally('slide of one finger', PRICE.slide);
  } else if (a.finger && b.finger && hand.kind === 'steps')
    tally('stretch', PRICE.stretch * Math.max(0, Math.abs(a.hand - b.hand) - 1.5) * rest);
  const apart = Math.max(
    0,
    Math.min(...stringsOf(grip)) - Math.max(...stringsOf(before)),
    Math.min(...stringsOf(before)) - Math.max(...stringsOf(grip))
  );
  if (apart) tally('crossing', (PRICE.crossing[Math.min(apart, 3)] + (slurred ? PRICE.crossingSlurred : 0)) * taste.crossing * rest);
  if (moves && !opens) return;
  for (const p of stopped(before))
    for (const q of stopped(grip)) {
      if (p.finger !== q.finger || (p.string === q.string && p.hand === q.hand)) continue;
      if (p.string === q.string) tally('half step with one finger', PRICE.oneFinger * rest);
      else if (Math.abs(p.string - q.string) === 1 && Math.abs(p.hand - q.hand) < 1) tally('fifth under one finger', PRICE.fifth * rest);
      else tally('one finger on two strings', PRICE.sameFingerElsewhere * rest);
    }
}

const stringsOf = (grip: Grip): number[] => {
  const strings = grip.places.flatMap((p) => (p ? [p.string] : []));
  return strings.length ? strings : [0];
};

/** Semitones by which the fingers of a chord lie farther apart than a hand does by itself. */
function spreadOf(grip: Grip): number {
  const hands = stopped(grip).map((p) => p.hand);
  return hands.length > 1 ? Math.max(...hands) - Math.min(...hands) : 0;
}

/** Ways to stop several heads at once: on neighbouring strings, within one hand, a finger to each or a fifth under one. */
function gripsOf(choices: readonly (readonly Place[])[], hand: StringHand, bowed: boolean): Grip[] {
  const reach = hand.kind === 'steps' ? 2 : bowed ? 1 : 3;
  let grips: Place[][] = [[]];
  for (const options of choices) {
    const next: Place[][] = [];
    for (const grip of grips)
      for (const p of options) {
        const last = grip.at(-1);
        // Heads rise, strings go up with them; a bow passes none over, fingers that pluck may.
        if (last && (bowed ? p.string !== last.string - 1 : p.string >= last.string)) continue;
        const fits = grip.every((q) => {
          if (!p.finger || !q.finger) return true;
          if (Math.abs(p.hand - q.hand) > reach || Math.abs(p.position - q.position) > 1) return false;
          return p.finger !== q.finger || (Math.abs(p.string - q.string) === 1 && Math.abs(p.hand - q.hand) < 1);
        });
        if (fits) next.push([...grip, p]);
      }
    grips = next;
  }
  const one = (g: Place[]): boolean => {
    const hands = g.filter((p) => p.finger);
    // Open strings in a chord wait where its fingers are.
    return g.every((p) => p.finger || !hands.length || p.position === nearestWait(hands[0].position));
  };
  const good = grips.filter(one);
  if (choices.length === 1) return good.sort((a, b) => a[0].position - b[0].position).map((places) => ({ places }));
  return good
    .sort((a, b) => spreadOf({ places: a }) - spreadOf({ places: b }) || a[0].position - b[0].position)
    .slice(0, MOST_GRIPS)
    .map((places) => ({ places }));
}
const nearestWait = (position: number): number => (position < 2.5 ? 1 : position < 4.5 ? 3 : 5);

/** Where a chord cannot be stopped, its highest head alone. */
function lone(choices: readonly (readonly Place[])[]): Grip[] {
  const last = choices.length - 1;
  const rest = choices.map(() => null);
  const top = (choices[last] ?? []).map((p): Grip => ({ places: [...rest.slice(0, last), p] }));
  return top.length ? top : [{ places: rest }];
}

function whyNot(heads: readonly Note[], choices: readonly (readonly Place[])[], open: readonly Pitch[]): string {
  const without = heads.filter((_, k) => !choices[k].length).map((n) => pitchName(soundingOf(n)));
  if (without.length) return `${listed(without)} cannot be played on this instrument`;
  const strings = choices.map((c) => new Set(c.map((p) => p.string)));
  const only = strings.findIndex((s, k) => k > 0 && s.size === 1 && strings[k - 1].size === 1 && [...s][0] === [...strings[k - 1]][0]);
  if (only > 0)
    return `both ${pitchName(soundingOf(heads[only - 1]))} and ${pitchName(soundingOf(heads[only]))} lie on the ${stringName(open, [...strings[only]][0])} string only`;
  return heads.length > open.length ? 'there are more notes than strings' : 'the hand does not reach both on neighbouring strings';
}

function crossingsOf(line: PlayerLine, grips: readonly (readonly (Place | null)[])[]): Fingering['crossings'] {
  const found: Fingering['crossings'] = [];
  const lowest = grips.map((g) => g.reduce((n, p) => (p ? Math.max(n, p.string) : n), -1));
  const highest = grips.map((g) => g.reduce((n, p) => (p ? Math.min(n, p.string) : n), Infinity));
  for (let k = 1; k < grips.length; k++) {
    if (lowest[k] < 0 || lowest[k - 1] < 0) continue;
    const up = highest[k - 1] - lowest[k];
    const down = highest[k] - lowest[k - 1];
    // From the string that is nearest to where it goes.
    if (Math.max(up, down) > 1)
      found.push({
        at: k,
        from: down > up ? lowest[k - 1] : highest[k - 1],
        to: down > up ? highest[k] : lowest[k],
        slurred: line.attacks[k - 1].joined
      });
  }
  return found;
}

/** Other fingerings that cost little more: at each shift, the best that is stopped otherwise there. */
const alternativesOf = (way: Way<Grip>, costs: readonly Cost[][]): Fingering['alternatives'] =>
  way
    .detours(
      PRICE.close,
      (k) => k > 0 && costs[k].some((c) => c.name === 'shift'),
      (a, b) => handOf(a)?.string !== handOf(b)?.string || handOf(a)?.finger !== handOf(b)?.finger
    )
    .map(({ from, to, price, options }) => ({ from, to, price, grips: options.map((g) => g.places) }));

/** Attacks whose pitch rings with an open string in octaves or at its own height. Handbook 13.4. */
export const ringing = (line: PlayerLine, open: readonly Pitch[]): number[] =>
  line.attacks.flatMap((a, k) =>
    a.notes.some(
      (n) => n.pitch && open.some((o) => (midi(soundingOf(n)) - midi(o)) % 12 === 0 && staffStep(soundingOf(n)) % 7 === staffStep(o) % 7)
    )
      ? [k]
      : []
  );
