import type { OwnFingering } from '../players/player.ts';
import { parsePitch, pitchName, type Pitch } from '../score/pitch.ts';
import { WIND_CHARTS, WIND_PRICES as PRICE, type WindChart } from '../style/wind-charts.ts';
import { Way, type Tally } from './cheapest.ts';
import { silenceBefore, topOf, type PlayerLine } from './player-line.ts';

/** One way to finger a pitch. */
export interface WindFingering {
  /** As the chart writes it. */
  keys: string;
  /** Keys that each finger holds. */
  held: ReadonlyMap<Finger, string>;
  /** It is not the regular one. */
  alternate: boolean;
}

/** Fingers by hand, and what they are called. */
const FINGERS = {
  thumb: 'the left thumb',
  L1: 'the left first finger',
  L2: 'the left second finger',
  L3: 'the left third finger',
  L4: 'the left little finger',
  R1: 'the right first finger',
  R2: 'the right second finger',
  R3: 'the right third finger',
  R4: 'the right little finger',
  RT: 'the right thumb'
} as const;
type Finger = keyof typeof FINGERS;

const BY_DIGIT: Record<string, Finger> = { '1': 'L1', '2': 'L2', '3': 'L3', '4': 'R1', '5': 'R2', '6': 'R3', '7': 'R4' };
const BY_KEY: Record<string, Finger> = { l: 'L4', r: 'R4', s: 'R1', k: 'L1', p: 'L1', b: 'L1', f: 'R3', t: 'RT' };

/** Reads a fingering of the chart: "TR123456 lE". */
export function readFingering(keys: string, alternate = false): WindFingering {
  const held = new Map<Finger, string>();
  const hold = (finger: Finger, key: string): void => void held.set(finger, [held.get(finger), key].filter(Boolean).join(' '));
  for (const word of keys.split(' ').filter(Boolean)) {
    if (/^[TRPBh]?[TRPBh]?\d*$/.test(word)) for (const c of word) hold(BY_DIGIT[c] ?? 'thumb', c);
    else hold(BY_KEY[word[0]], word);
  }
  return { keys, held, alternate };
}

/** Names of black keys as the charts have them. */
const SPELLED: Record<string, string> = { Db: 'C#', 'D#': 'Eb', Gb: 'F#', Ab: 'G#', 'A#': 'Bb', Cb: 'B', 'B#': 'C', Fb: 'E', 'E#': 'F' };

function chartName(p: Pitch): string {
  const name = pitchName(p).replace(/-?\d+$/, '');
  const octave = p.octave + (name === 'B#' ? 1 : name === 'Cb' ? -1 : 0);
  return (SPELLED[name] ?? name) + octave;
}

const READ = new WeakMap<WindChart, Map<string, WindFingering[]>>();

/** All fingerings of a written pitch; none where the chart does not have it. */
export function windFingerings(chart: WindChart, pitch: Pitch): WindFingering[] {
  let read = READ.get(chart);
  if (!read) READ.set(chart, (read = new Map()));
  const name = chartName(pitch);
  const known = read.get(name);
  if (known) return known;
  const ways = chart.ways[name];
  const found = ways === undefined ? [] : ways.split('|').map((keys, k) => readFingering(keys.trim(), k > 0));
  read.set(name, found);
  return found;
}

/** What it costs to go from one fingering to another; each reason in words. */
export function stepBetween(a: WindFingering, b: WindFingering, tally: Tally): void {
  let up = 0;
  let down = 0;
  for (const finger of Object.keys(FINGERS) as Finger[]) {
    const [x, y] = [a.held.get(finger), b.held.get(finger)];
    if (x === y) continue;
    if (!x) down++;
    else if (!y) up++;
    // The thumb rolls onto the register key and off.
    else if (finger === 'thumb') down++;
    else if (finger === 'L1' && (x === '1' || y === '1')) down++;
    else tally(`${FINGERS[finger]} slides from ${spoken(x)} to ${spoken(y)}`, PRICE.slide);
  }
  tally('fingers that move', PRICE.finger * (up + down));
  tally('fingers against each other', PRICE.against * Math.min(up, down));
  const register = /[RP]/.test(a.held.get('thumb') ?? '') !== /[RP]/.test(b.held.get('thumb') ?? '');
  if (register && up + down >= PRICE.breakWith) tally('over the break', PRICE.break);
}

const spoken = (key: string): string => key.replace(/^[lrskpt]/, '').replace(/#/g, '♯');

export interface WindWay {
  /** By attack; null where the chart has no such note. */
  ways: (WindFingering | null)[];
  prices: number[];
  total: number;
  /** Steps that are awkward even so, with their reasons. */
  awkward: { at: number; why: string[] }[];
  alternatives: { at: number; way: WindFingering; price: number }[];
}

/** The chart of an instrument; what a player uses stands in it instead of ours. */
export function windChart(instrument: string, own: readonly OwnFingering[] = []): WindChart | undefined {
  const chart = WIND_CHARTS[instrument];
  if (!chart || !own.length) return chart;
  return { ways: { ...chart.ways, ...Object.fromEntries(own.map((f) => [chartName(parsePitch(f.pitch)!), f.fingering])) } };
}

/** The easiest way through a line. Handbook 16.2. @param pins keys as the chart writes them, by attack */
export function windWay(line: PlayerLine, chart: WindChart, pins: ReadonlyMap<number, string> = new Map()): WindWay {
  const layers = line.attacks.map((a, k): (WindFingering | null)[] => {
    const { pitch } = topOf(a);
    const all = pitch ? windFingerings(chart, pitch) : [];
    const pin = pins.get(k);
    const kept = pin === undefined ? all : all.filter((w) => w.keys === pin);
    return kept.length ? kept : pin === undefined ? (all.length ? all : [null]) : [readFingering(pin, true)];
  });
  const question = {
    layers,
    own: (_: number, w: WindFingering | null, tally: Tally): void => {
      if (w?.alternate) tally('not the regular fingering', PRICE.alternate);
    },
    step: (k: number, a: WindFingering | null, b: WindFingering | null, tally: Tally): void => {
      if (!a || !b) return;
      const rest = silenceBefore(line, k) > 0.2 ? PRICE.inRest : 1;
      stepBetween(a, b, (name, price) => tally(name, price * rest));
    }
  };
  const way = new Way(question);
  const awkward: WindWay['awkward'] = [];
  layers.forEach((_, k) => {
    const costs = way.costsAt(k);
    const why = costs.filter((c) => / slides |over the break/.test(c.name)).map((c) => c.name);
    if (why.length && costs.reduce((n, c) => n + c.price, 0) >= PRICE.awkward) awkward.push({ at: k, why });
  });
  return {
    ways: way.path,
    prices: way.prices,
    total: way.total,
    awkward,
    alternatives: way.closeOptions(PRICE.close).flatMap(({ at, option, price }) => (option ? [{ at, way: option, price }] : []))
  };
}

/** For a trill between two pitches the fingerings with the fewest fingers that move, and which they are. Handbook 16.3. */
export function trillFingers(
  chart: WindChart,
  one: Pitch,
  two: Pitch
): { from: WindFingering; to: WindFingering; moving: string[] } | null {
  let best: { from: WindFingering; to: WindFingering; moving: string[] } | null = null;
  for (const from of windFingerings(chart, one))
    for (const to of windFingerings(chart, two)) {
      const moving = (Object.keys(FINGERS) as Finger[]).filter((f) => from.held.get(f) !== to.held.get(f)).map((f) => FINGERS[f]);
      if (!best || moving.length < best.moving.length) best = { from, to, moving };
    }
  return best;
}
