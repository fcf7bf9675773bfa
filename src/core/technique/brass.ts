import {
  BRASS_PRICES as PRICE,
  COMBINATIONS,
  partialCents,
  PARTIALS,
  TUBES,
  valveCents,
  VALVE_SEMITONES,
  type Tube
} from '../style/brass.ts';
import type { OwnFingering } from '../players/player.ts';
import { midi, parsePitch } from '../score/pitch.ts';
import { Way, type Tally } from './cheapest.ts';
import { height, silenceBefore, topOf, type PlayerLine } from './player-line.ts';

/** A way to sound a pitch. */
export interface BrassWay {
  tube: number;
  partial: number;
  /** "0", "12"; null on a slide. */
  valves: string | null;
  /** 1 to 7; null with valves. */
  slide: number | null;
  /** Above or below equal temperament. */
  cents: number;
}

/** All ways to sound a height (MIDI number) on an instrument. */
export function brassWays(sounding: number, tubes: readonly Tube[]): BrassWay[] {
  return tubes.flatMap(({ fundamental, by }, tube) =>
    PARTIALS.flatMap((partial): BrassWay[] => {
      const lowered = fundamental + Math.round(12 * Math.log2(partial)) - sounding;
      if (lowered < 0 || lowered > 6) return [];
      const base = { tube, partial };
      if (by === 'slide') return [{ ...base, valves: null, slide: lowered + 1, cents: partialCents(partial) }];
      return COMBINATIONS.filter((c) => semitonesOf(c) === lowered).map((valves) => ({
        ...base,
        valves,
        slide: null,
        cents: partialCents(partial) + valveCents(valves)
      }));
    })
  );
}

const semitonesOf = (valves: string): number => (valves === '0' ? 0 : [...valves].reduce((n, v) => n + VALVE_SEMITONES[v], 0));

/** What a pin says: valves or a position. */
export interface BrassPin {
  valves?: string;
  slide?: number;
}

export interface BrassFingering {
  /** By attack; null where the instrument has no such note. */
  ways: (BrassWay | null)[];
  prices: number[];
  total: number;
  /** Attacks at which what is pinned does not sound the pitch. */
  refused: number[];
  alternatives: { at: number; way: BrassWay; price: number }[];
}

/** Seconds of silence in which valves and slide are set anew. [M] */
const REST = 0.3;

/** A player's own valves or positions ("13", "4"), by written height. */
export const ownOfBrass = (fingerings: readonly OwnFingering[]): ReadonlyMap<number, string> =>
  new Map(fingerings.map((f) => [midi(parsePitch(f.pitch)!), f.fingering]));

/** Valves or positions for a line. @param own what this player uses, which outranks what is usual */
export function brassFingering(
  line: PlayerLine,
  instrument: string,
  pins: ReadonlyMap<number, BrassPin>,
  own: ReadonlyMap<number, string> = new Map()
): BrassFingering {
  const tubes = TUBES[instrument];
  const refused: number[] = [];
  const heights = line.attacks.map((a) => Math.round(height(topOf(a))));
  const known = new Map<number, BrassWay[]>();
  const layers = line.attacks.map((_, k): (BrassWay | null)[] => {
    const all = known.get(heights[k]) ?? brassWays(heights[k], tubes);
    known.set(heights[k], all);
    const pin = pins.get(k);
    const kept = pin
      ? all.filter((w) => (pin.valves === undefined || w.valves === pin.valves) && (pin.slide === undefined || w.slide === pin.slide))
      : all;
    if (pin && !kept.length) refused.push(k);
    return kept.length ? kept : all.length ? all : [null];
  });
  const question = {
    layers,
    // Prices hang on the heights, until something is pinned.
    ownKey: (k: number): string => `${heights[k]} ${pins.has(k) ? k : ''}`,
    stepKey: (k: number): string =>
      `${heights[k - 1]} ${pins.has(k - 1) ? k - 1 : ''}>${heights[k]} ${pins.has(k) ? k : ''}` +
      (silenceBefore(line, k) > REST ? 'rest' : ''),
    own: (k: number, w: BrassWay | null, tally: Tally): void => {
      if (!w) return;
      tally('out of tune', PRICE.acent * Math.abs(w.cents));
      if (w.partial === 1) tally('pedal note', PRICE.pedal);
      const wanted = own.size ? own.get(midi(topOf(line.attacks[k]).pitch!)) : undefined;
      if (wanted !== undefined && wanted !== (w.valves ?? String(w.slide))) tally('another fingering than the player’s own', PRICE.notOwn);
      tally('high partial', PRICE.highPartial * w.partial);
      if (w.valves === '3') tally('third valve alone', PRICE.thirdAlone);
      else if (w.valves && w.valves !== '0') tally('valves', PRICE.valve * w.valves.length);
      if (w.slide) tally('far slide', PRICE.farSlide * (w.slide - 1));
      const high = heights[k] >= PRICE.higherSideFrom;
      if (tubes.length > 1 && (w.tube === 1) !== high) tally('the other side is usual here', PRICE.wrongSide);
    },
    step: (k: number, a: BrassWay | null, b: BrassWay | null, tally: Tally): void => {
      if (!a || !b || silenceBefore(line, k) > REST) return;
      if (a.tube !== b.tube) tally('change of side', PRICE.change);
      if (a.slide && b.slide) {
        tally('slide', PRICE.slideAPosition * Math.abs(a.slide - b.slide));
        const up = heights[k] - heights[k - 1];
        // With the grain the slide goes out while the pitch rises over a partial, or in while it falls.
        if (a.partial !== b.partial && up * (b.slide - a.slide) < 0 && Math.abs(b.slide - a.slide) > 2)
          tally('against the grain', PRICE.againstTheGrain);
      } else if (a.valves !== null && b.valves !== null) {
        const moved = ['1', '2', '3'].filter((v) => a.valves!.includes(v) !== b.valves!.includes(v)).length;
        tally('valves that move', PRICE.moved * moved);
      }
    }
  };
  const way = new Way(question);
  return {
    ways: way.path,
    prices: way.prices,
    total: way.total,
    refused,
    alternatives: way.closeOptions(PRICE.close).flatMap(({ at, option, price }) => (option ? [{ at, way: option, price }] : []))
  };
}

/**
 * How much a bar asks of the lips, 0 to 1 of the piece's most: loudness and height above the comfortable middle over time, which
 * rests take away again. Handbook 17.2.
 * @param loudness of an attack, 0 to 1
 */
export function loadCurve(line: PlayerLine, middle: number, loudness: (at: number) => number): number[] {
  const { score, attacks } = line;
  const loads = new Array<number>(score.measures.length).fill(0);
  let load = 0;
  let at = 0;
  for (const [k, a] of attacks.entries()) {
    load *= Math.exp(-Math.max(0, a.from - at) / PRICE.recovery);
    const seconds = a.to - a.from;
    // While it is played it grows toward what such a note costs when held for ever.
    const asks = loudness(k) * 2 ** ((height(topOf(a)) - middle) / PRICE.doubles);
    load = asks + (load - asks) * Math.exp(-seconds / PRICE.recovery);
    at = a.to;
    for (const n of [...a.notes, ...a.held]) loads[n.measure] = Math.max(loads[n.measure], load);
  }
  const most = Math.max(...loads, 1e-9);
  return loads.map((l) => l / most);
}
