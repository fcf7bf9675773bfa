import { add, ZERO, type Fraction } from './fraction.ts';
import type { Measure } from './model.ts';

/** One measure as it is played. */
export interface PlayedMeasure {
  measure: number;
  /** How often this measure has sounded before: 0 the first time. */
  pass: number;
}

/** More than this many played measures means that the signs run in a circle, or that repeats stand in repeats. Set by hand. */
const MAX_PLAYED = 20_000;
/** Times that one passage is played at most. Set by hand: vamps are written with fewer. */
const MOST_TIMES = 16;

/** Keeps repeats within bounds, as a file may ask for thousands. @param remark told once for each passage that is capped */
export function capRepeats(measures: readonly Measure[], remark: (text: string, measure: number) => void): void {
  for (const measure of measures) {
    const { repeatEnd } = measure;
    if (repeatEnd === undefined || repeatEnd <= MOST_TIMES) continue;
    measure.repeatEnd = MOST_TIMES;
    remark(`a passage is to be played ${repeatEnd} times; it is played ${MOST_TIMES} times here`, measure.index);
  }
  if (unfold(measures).length >= MAX_PLAYED) remark(`repeats go on beyond ${MAX_PLAYED} bars and end there`, measures.length - 1);
}

/**
 * The order in which the measures are played: repeats, endings, da capo, dal segno, coda and fine.
 * A closing repeat without an opening one goes back to just after the previous closing one, else to the
 * beginning; after da capo or dal segno repeats are not taken again and the last ending is played.
 * @param repeats false where repeats are left out from the beginning: each passage once, with its last ending
 */
export function unfold(measures: readonly Measure[], repeats = true): PlayedMeasure[] {
  const endings = endingOfMeasure(measures);
  const order: PlayedMeasure[] = [];
  const passes = new Array<number>(measures.length).fill(0);
  let at = 0;
  let from = 0;
  let round = 1;
  let jumped = false;
  while (at < measures.length && order.length < MAX_PLAYED) {
    const measure = measures[at];
    if (measure.repeatStart && from !== at) {
      from = at;
      round = 1;
    }
    const ending = endings[at];
    if (ending && !(jumped || !repeats ? ending.last : ending.numbers.includes(round))) {
      at++;
      continue;
    }
    order.push({ measure: at, pass: passes[at]++ });
    if (jumped && measure.fine) break;
    if (jumped && measure.toCoda) {
      const coda = measures.findIndex((m) => m.index > at && m.coda !== undefined);
      if (coda > at) {
        at = coda;
        from = coda;
        continue;
      }
    }
    if (measure.repeatEnd && !jumped && repeats) {
      const rounds = ending ? Math.max(measure.repeatEnd, ending.rounds) : measure.repeatEnd;
      if (round < rounds) {
        round++;
        at = from;
        continue;
      }
      from = at + 1;
      round = 1;
    }
    if (ending?.closes && !measure.repeatEnd) {
      from = at + 1;
      round = 1;
    }
    if (!jumped && (measure.daCapo || measure.dalSegno)) {
      jumped = true;
      const segno = measure.dalSegno ? measures.findIndex((m) => m.segno !== undefined) : 0;
      at = Math.max(0, segno);
      from = at;
      round = 1;
      continue;
    }
    at++;
  }
  return order;
}

interface EndingPlace {
  numbers: number[];
  /** Rounds that the whole group of endings asks for. */
  rounds: number;
  /** Belongs to the last ending of its group. */
  last: boolean;
  /** The group ends with this measure. */
  closes: boolean;
}

function endingOfMeasure(measures: readonly Measure[]): (EndingPlace | null)[] {
  const places = new Array<EndingPlace | null>(measures.length).fill(null);
  let group: EndingPlace[][] = [];
  let current: EndingPlace[] | null = null;
  let numbers: number[] = [];
  const closeGroup = () => {
    const rounds = Math.max(0, ...group.flatMap((e) => e[0].numbers));
    group.forEach((ending, k) => {
      for (const place of ending) {
        place.rounds = rounds;
        place.last = k === group.length - 1;
      }
    });
    const last = group.at(-1)?.at(-1);
    if (last) last.closes = true;
    group = [];
  };
  for (const measure of measures) {
    if (measure.endingStart) {
      if (group.length && Math.min(...measure.endingStart) === 1) closeGroup();
      numbers = measure.endingStart.length ? measure.endingStart : [1];
      current = [];
      group.push(current);
    } else if (!current && group.length) closeGroup();
    if (current) {
      const place: EndingPlace = { numbers, rounds: 0, last: false, closes: false };
      places[measure.index] = place;
      current.push(place);
    }
    if (measure.endingStop) current = null;
  }
  if (group.length) closeGroup();
  return places;
}

/** Total length as played, in quarters. */
export function playedLength(measures: readonly Measure[]): Fraction {
  return unfold(measures).reduce((sum, p) => add(sum, measures[p.measure].length), ZERO);
}
