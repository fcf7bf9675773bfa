import { cmp, lt, sub, toNumber } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import { isPickup } from '../score/position.ts';
import { BOW, type BowSchool } from '../style/bow-weights.ts';
import { Way, type Cost, type Tally } from './cheapest.ts';
import { lasts, levelOf, mainAttack, silenceBefore, type Attack, type PlayerLine } from './player-line.ts';

export type BowDirection = 'down' | 'up';
/** How a stroke comes out of the one before: turning; a second note in one direction; a slur played in two; set anew; lifted in a rest. */
export type StrokeWay = 'plain' | 'hook' | 'split' | 'retake' | 'lift';

export interface Stroke {
  /** Attacks of the line, both included. */
  from: number;
  to: number;
  direction: BowDirection;
  way: StrokeWay;
  costs: Cost[];
}

export interface Bowing {
  strokes: Stroke[];
  total: number;
  /** Other ways that cost little more, with the strokes that differ. */
  alternatives: { from: number; to: number; strokes: Stroke[]; price: number }[];
  /** Attacks at which one slur ends where the next begins: a question. */
  contradictions: number[];
  /** Strokes that last longer than the bow, by their first attack. */
  tooLong: number[];
}

/** What hangs on one bow unless it is split. */
interface Group {
  from: number;
  to: number;
}

interface Option {
  /** Direction of its first stroke. */
  direction: BowDirection;
  /** Its strokes: several where it is split. */
  parts: readonly { from: number; to: number; direction: BowDirection }[];
}

const other = (d: BowDirection): BowDirection => (d === 'down' ? 'up' : 'down');

export interface BowSettings {
  school: BowSchool;
  /** Whether an attack is loud, for how long a bow lasts. */
  loud(at: number): boolean;
  /** 1 where it grows at an attack, -1 where it fades, 0 else. */
  gesture(at: number): number;
  /** Last attacks of phrases. */
  phraseEnds: ReadonlySet<number>;
  /** Directions that stay, by attack: the page's own and the teacher's. */
  pins: ReadonlyMap<number, BowDirection>;
}

/** Slurs as bows: those that overlap are one, unless one ends where the next begins. */
function groupsOf(line: PlayerLine): { groups: Group[]; contradictions: number[] } {
  const contradictions: number[] = [];
  const bows: Group[] = [];
  for (const slur of [...line.slurs].sort((a, b) => a.from - b.from || b.to - a.to)) {
    const last = bows.at(-1);
    if (!last || slur.from > last.to) bows.push({ ...slur });
    else if (slur.from === last.to) {
      contradictions.push(slur.from);
      if (slur.to > slur.from) bows.push({ from: slur.from + 1, to: slur.to });
    } else last.to = Math.max(last.to, slur.to);
  }
  const groups: Group[] = [];
  const { attacks } = line;
  let bow = 0;
  for (let k = 0; k < attacks.length; k++) {
    while (bow < bows.length && bows[bow].to < k) bow++;
    // Grace notes go with the note that they lead to.
    let end = k;
    while (attacks[end].grace && end + 1 < attacks.length) end++;
    if (bow < bows.length && bows[bow].from <= end) end = Math.max(end, bows[bow].to);
    groups.push({ from: k, to: end });
    k = end;
  }
  return { groups, contradictions };
}

/** The search for one line. Handbook 12.1; sources in `bow-weights`. */
export function bowing(line: PlayerLine, settings: BowSettings): Bowing {
  const { attacks, score } = line;
  const { groups, contradictions } = groupsOf(line);
  if (!groups.length) return { strokes: [], total: 0, alternatives: [], contradictions, tooLong: [] };
  const school = BOW.schools[settings.school];
  const measureOf = (a: Attack) => score.measures[a.notes[0].measure];
  const levels = attacks.map((a) => levelOf(score, a.notes[0]));
  const accented = attacks.map((a) => a.notes.some((n) => n.marks?.some((m) => /accent|sfz|forzando/.test(m.name))));
  const head = (from: number): number => mainAttack(line, from);
  const seconds = (from: number, to: number): number => attacks[to].to - attacks[from].from;
  const bowLasts = (from: number): number => (settings.loud(from) ? BOW.lasts.loud : BOW.lasts.soft);

  const partsOf = (g: Group, direction: BowDirection, cuts: readonly number[]): Option['parts'] =>
    cuts.length
      ? [g.from, ...cuts].map((from, k) => ({ from, to: (cuts[k] ?? g.to + 1) - 1, direction: k % 2 ? other(direction) : direction }))
      : [{ ...g, direction }];
  const layers = groups.map((g): Option[] => {
    const options: Option[] = [];
    const places: number[][] = [[]];
    const cut = splitPlace(g, levels, attacks);
    if (cut !== null) places.push([cut]);
    // Directions that are pinned against each other within one slur divide it.
    const turns: number[] = [];
    let before: BowDirection | undefined;
    for (let k = g.from; k <= g.to; k++) {
      const pin = settings.pins.get(k);
      if (pin && before && pin !== before) turns.push(k);
      before = pin ?? before;
    }
    if (turns.length) places.push(turns);
    for (const cuts of places)
      for (const direction of ['down', 'up'] as const) options.push({ direction, parts: partsOf(g, direction, cuts) });
    if (before === undefined) return options;
    const keeps = options.filter((o) =>
      o.parts.every((s) => {
        for (let k = s.from; k <= s.to; k++) if ((settings.pins.get(k) ?? s.direction) !== s.direction) return false;
        return true;
      })
    );
    return keeps.length ? keeps : options;
  });

  const fillsBar = (from: number, to: number): boolean => !lt(sub(attacks[to].end, attacks[from].start), measureOf(attacks[from]).length);

  /** What a stroke costs in a direction, wherever it comes from. */
  const strokeCost = (from: number, to: number, direction: BowDirection, tally: Tally): void => {
    const k = head(from);
    const a = attacks[k];
    const level = levels[k];
    if (direction === 'up') {
      if (level === 3 && !a.grace) tally('up-bow on a downbeat', school.downbeatUp * (fillsBar(k, to) ? BOW.downbeatUpWholeBar : 1));
      else if (level === 2) tally('up-bow on a strong beat', BOW.strongUp);
      else if (level === 1) tally('up-bow on a beat', BOW.beatUp);
      if (accented[k]) tally('accent on an up-bow', BOW.accentUp);
      if (a.notes.length > 2) tally('chord on an up-bow', BOW.chordUp);
      if (settings.phraseEnds.has(to) && lasts(attacks[to]) > 1) tally('last long note of a phrase up', BOW.lastLongUp);
      if (settings.school === 'gesture' && settings.gesture(k) < 0) tally('up while it fades', BOW.againstGesture);
    } else {
      if (isPickup(measureOf(a)) && to < attacks.length - 1 && measureOf(attacks[to + 1]).index > 0)
        tally('upbeat with a down-bow', BOW.upbeatDown);
      else if (level < 2 && to + 1 < attacks.length && levels[to + 1] === 3 && from === to)
        tally('a note that leads on, with a down-bow', BOW.leadingDown);
      else if (level <= 0) tally('down-bow off the beat', BOW.weakDown);
      if (settings.school === 'gesture' && settings.gesture(k) > 0) tally('down while it grows', BOW.againstGesture);
    }
    const over = seconds(from, to) / bowLasts(from) - 1;
    if (over > 0) tally('longer than the bow lasts', BOW.tooLong * over);
  };

  const wayInto = (k: number, before: { from: number; to: number }, same: boolean): { way: StrokeWay; price: number; name: string } => {
    if (!same) return { way: 'plain', price: 0, name: '' };
    if (silenceBefore(line, k) >= BOW.liftSeconds) return { way: 'lift', price: 0, name: '' };
    const [a, b] = [attacks[before.to], attacks[head(k)]];
    const single = before.from === before.to;
    const dotted = single && isDotted(a, b);
    const hook = dotted
      ? BOW.hookDotted
      : BOW.hook +
        BOW.hookASecond * Math.max(lasts(a), lasts(b)) +
        (levels[head(k)] >= 2 ? BOW.hookOntoStrong : 0) +
        (levels[before.to] >= 2 ? BOW.hookFromStrong : 0);
    const retake = BOW.retake + BOW.retakeTime / Math.max(0.05, lasts(a)) + (levels[head(k)] === 3 ? 0 : BOW.retakeInside);
    return hook <= retake ? { way: 'hook', price: hook, name: 'hook' } : { way: 'retake', price: retake, name: 'retake' };
  };
  const isDotted = (a: Attack, b: Attack): boolean => {
    const ratio = lasts(a) / Math.max(1e-6, lasts(b));
    const { beat } = beatOfMeter(measureOf(a));
    return ratio >= 2 && toNumber(sub(b.end, a.start)) <= toNumber(beat) + 1e-9 && a.notes[0].measure === b.notes[0].measure;
  };
  const unequal = (before: { from: number; to: number }, from: number, to: number, tally: Tally): void => {
    if (silenceBefore(line, from) >= BOW.liftSeconds) return;
    const ratio = seconds(before.from, before.to) / Math.max(1e-6, seconds(from, to));
    if (ratio >= BOW.unequalFrom) tally('unequal strokes: the bow runs out', BOW.unequal);
  };

  const question = {
    layers,
    own: (layer: number, o: Option, tally: Tally): void => {
      for (const s of o.parts) strokeCost(s.from, s.to, s.direction, tally);
      tally('split slur', (o.parts.length - 1) * (BOW.split + school.splitMore));
    },
    step: (layer: number, before: Option, o: Option, tally: Tally): void => {
      const last = before.parts[before.parts.length - 1];
      const first = o.parts[0];
      const same = last.direction === first.direction;
      const { price, name } = wayInto(first.from, last, same);
      tally(name, price);
      if (!same) unequal(last, first.from, first.to, tally);
    }
  };
  const way = new Way(question);
  /** Strokes of a stretch of layers, by the options chosen there; what comes before stays as it is. */
  const strokesAlong = (first: number, options: readonly number[]): Stroke[] => {
    const strokes: Stroke[] = [];
    const optionAt = (layer: number): number => options[layer - first] ?? way.chosen[layer];
    options.forEach((o, n) => {
      const layer = first + n;
      const costs = way.costsAt(layer, o, layer ? optionAt(layer - 1) : undefined);
      const before = layer ? layers[layer - 1][optionAt(layer - 1)].parts.at(-1) : undefined;
      layers[layer][o].parts.forEach((s, part) => {
        const last = strokes.at(-1) ?? before;
        const how: StrokeWay = part ? 'split' : last ? wayInto(s.from, last, last.direction === s.direction).way : 'plain';
        strokes.push({ ...s, way: how, costs: part ? [] : costs });
      });
    });
    return strokes;
  };
  const strokes = strokesAlong(0, way.chosen);
  return {
    strokes,
    total: way.total,
    alternatives: alternativesOf(way, groups, strokes, strokesAlong),
    contradictions,
    tooLong: strokes.filter((s) => seconds(s.from, s.to) > bowLasts(s.from)).map((s) => s.from)
  };
}

/** Where a slur would be divided: at the strongest place near its middle. */
function splitPlace(g: Group, levels: readonly number[], attacks: readonly Attack[]): number | null {
  let best: number | null = null;
  let most = -Infinity;
  const middle = (attacks[g.from].from + attacks[g.to].to) / 2;
  const half = (attacks[g.to].to - attacks[g.from].from) / 2;
  for (let k = g.from + 1; k <= g.to; k++) {
    if (attacks[k].grace || attacks[k - 1].grace || cmp(attacks[k].start, attacks[k - 1].start) === 0) continue;
    const value = levels[k] - (3 * Math.abs(attacks[k].from - middle)) / Math.max(half, 1e-6);
    if (value > most) [best, most] = [k, value];
  }
  return best;
}

/** Ways that are about as good: at each place that costs something, the best one that does otherwise there. */
function alternativesOf(
  way: Way<Option>,
  groups: readonly Group[],
  strokes: readonly Stroke[],
  along: (first: number, options: readonly number[]) => Stroke[]
): Bowing['alternatives'] {
  const priced = new Set(strokes.filter((s) => s.way !== 'plain' && s.way !== 'lift').map((s) => s.from));
  const asks = (layer: number): boolean => {
    const { from, to } = groups[layer];
    if (priced.has(from)) return true;
    for (let k = from + 1; k <= to; k++) if (priced.has(k)) return true;
    return false;
  };
  return way
    .detours(BOW.close, asks, (a, b) => a !== b)
    .map(({ from, to, price, chosen }) => {
      // With the stroke after it, which comes out another way.
      const all = to + 1 < groups.length ? [...chosen, way.chosen[to + 1]] : chosen;
      return { from: groups[from].from, to: groups[from + all.length - 1].to, price, strokes: along(from, all) };
    });
}
