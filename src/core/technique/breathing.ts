import { BREATH, breathSeconds } from '../style/breath.ts';
import { height, lasts, levelOf, silenceBefore, topOf, type PlayerLine } from './player-line.ts';

export interface Breath {
  /** The attack before which one breathes. */
  at: number;
  kind: 'full' | 'quick';
  /** Seconds since the breath before, or since the beginning. */
  secondsBefore: number;
  /** Where it stands, in words. */
  where: string;
}

export interface BreathSettings {
  instrument: string;
  /** Seconds that this player has at mf; null for what is usual on the instrument. */
  capacity: number | null;
  loud(at: number): boolean;
  phraseEnds: ReadonlySet<number>;
  /** Attacks before which no breath divides what belongs together: a resolution, a step of a chromatic climb. */
  bound: ReadonlySet<number>;
  /** By attack: a breath is taken before it, or none is. */
  pins: ReadonlyMap<number, boolean>;
}

export interface Breathing {
  breaths: Breath[];
  total: number;
  /** Attacks at which the air has run out before the next breath. */
  late: number[];
  /** Attacks before which a breath is decided that divides what belongs together. */
  misplaced: number[];
}

/** Where a breath may be taken, and what it costs there; null where it may not. */
export function breathPlace(line: PlayerLine, at: number, settings: BreathSettings): { price: number; where: string } | null {
  const { attacks, score } = line;
  const [before, here] = [attacks[at - 1], attacks[at]];
  // Never inside a slur or tie, between grace notes and what they belong to, between a dissonance and its resolution.
  if (!before || before.joined || before.grace || tiedOver(line, at)) return null;
  const silence = silenceBefore(line, at);
  if (silence > 0.05) return { price: BREATH.rest, where: 'in the rest' };
  if (settings.bound.has(at)) return null;
  if (settings.phraseEnds.has(at - 1)) return { price: BREATH.phraseEnd + BREATH.each, where: 'after the phrase' };
  if (lasts(before) >= BREATH.longSeconds) return { price: BREATH.afterLong + BREATH.each, where: 'after the long note' };
  const note = here.notes[0];
  const level = levelOf(score, note);
  const next = attacks[at + 1];
  if (level < 3 && next && lasts(here) < lasts(before) && levelOf(score, next.notes[0]) === 3)
    return { price: BREATH.beforeUpbeat + BREATH.each, where: 'before the upbeat' };
  if (Math.abs(height(topOf(here)) - height(topOf(before))) >= BREATH.leap)
    return { price: BREATH.beforeLeap + BREATH.each, where: 'before the leap' };
  return level === 3
    ? { price: BREATH.barLine + BREATH.each, where: 'at the bar line' }
    : { price: BREATH.elsewhere + BREATH.each, where: 'between two notes' };
}

/** A note of a chord or second voice still sounds. */
const tiedOver = (line: PlayerLine, at: number): boolean => line.attacks[at - 1].to > line.attacks[at].from + 1e-6;

/** The cheapest plan of breaths. Handbook 15.2. */
export function breathing(line: PlayerLine, settings: BreathSettings): Breathing {
  const { attacks } = line;
  const n = attacks.length;
  const places = attacks.map((_, k) => (k && settings.pins.get(k) !== false ? breathPlace(line, k, settings) : null));
  const misplaced: number[] = [];
  for (const [k, taken] of settings.pins)
    if (taken && k > 0 && k < n) {
      if (!places[k]) misplaced.push(k);
      places[k] = { price: 0, where: 'as decided' };
    }
  const comfortable = settings.capacity ?? breathSeconds(settings.instrument);
  const spends = BREATH.spenders.includes(settings.instrument) ? BREATH.loudSpenders : BREATH.loud;
  // Air that is used up to each attack, in seconds as they count at mf; silence costs none.
  const used = new Float64Array(n + 1);
  for (let k = 0; k < n; k++) {
    const sounding = Math.min(attacks[k].to, attacks[k + 1]?.from ?? Infinity) - attacks[k].from;
    used[k + 1] = used[k] + Math.max(0, sounding) / (settings.loud(k) ? spends : 1);
  }
  const airPrice = (from: number, to: number): number => {
    const share = (used[to] - used[from]) / comfortable;
    return BREATH.work * Math.max(0, share - BREATH.workFrom) + BREATH.over * Math.max(0, share - 1);
  };
  const best = new Float64Array(n + 1).fill(Infinity);
  const from = new Int32Array(n + 1).fill(-1);
  best[0] = 0;
  for (let k = 1; k <= n; k++) {
    const place = k < n ? places[k] : { price: 0 };
    if (!place) continue;
    for (let b = k - 1; b >= 0; b--) {
      if (best[b] < Infinity) {
        const total = best[b] + airPrice(b, k) + place.price;
        if (total < best[k] - 1e-9) [best[k], from[k]] = [total, b];
      }
      // A breath that must be taken is not passed over; nor is one looked for too far back, where there was one nearer.
      if (settings.pins.get(b) === true || (best[k] < Infinity && (used[k] - used[b]) / comfortable > BREATH.longest)) break;
    }
  }
  const taken: number[] = [];
  for (let k = from[n]; k > 0; k = from[k]) taken.unshift(k);
  const late: number[] = [];
  let since = 0;
  const breaths = taken.map((at): Breath => {
    const share = (used[at] - used[since]) / comfortable;
    if (share > 1) late.push(at);
    const secondsBefore = attacks[at - 1].to - attacks[since].from;
    since = at;
    return { at, kind: silenceBefore(line, at) >= BREATH.fullSeconds ? 'full' : 'quick', secondsBefore, where: places[at]!.where };
  });
  if (n && (used[n] - used[since]) / comfortable > 1) late.push(n - 1);
  return { breaths, total: best[n], late, misplaced };
}
