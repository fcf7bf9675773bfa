import { add, frac, lt, mul, sub, ZERO, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, groupingOf, inFullBar, isAdditive } from '../score/meter.ts';
import type { Measure, Score } from '../score/model.ts';

/** What a click is given on. Handbook 21.3. */
export const CLICKS = {
  none: 'no click',
  beats: 'felt beats',
  parts: 'parts of beats',
  groups: 'groups of the meter',
  silent: 'every other bar silent',
  off: 'between the beats'
} as const;
export type ClickKind = keyof typeof CLICKS;
export const CLICK_KINDS = Object.keys(CLICKS) as ClickKind[];

/** A bar of four quarters, where no score says another meter. */
export const FOUR_QUARTERS: Measure = {
  index: 0,
  number: '1',
  implicit: false,
  start: ZERO,
  length: frac(4),
  time: { text: '4/4', groups: [4], unit: 4, quarters: frac(4) },
  key: { fifths: 0 }
};

export interface BarClick {
  /** Quarters from the beginning of the bar. */
  at: Fraction;
  /** 2 bar line, 1 beat or head of a group, 0 inside. */
  weight: 0 | 1 | 2;
}

/** Where each group of a bar begins, and how long it is: uneven groups as they are felt, else the beats. An upbeat has the last of them. */
function groupsIn(bar: Measure, groups: readonly number[] | null): { at: Fraction; length: Fraction; k: number }[] {
  const found: { at: Fraction; length: Fraction; k: number }[] = [];
  const { beat } = beatOfMeter(bar);
  const unit = frac(4, bar.time?.unit ?? 4);
  const before = inFullBar(bar, ZERO);
  const end = add(before, bar.length);
  for (let at = ZERO, k = 0; lt(at, end); k++) {
    const length = groups?.length ? mul(unit, frac(groups[k % groups.length])) : beat;
    if (!lt(at, before)) found.push({ at: sub(at, before), length, k });
    at = add(at, length);
  }
  return found;
}

/**
 * Where a click sounds in one bar.
 * @param groups in units of the meter, where the bar is divided unevenly; null where it is not
 * @param count of bars that were before it
 */
export function clicksInBar(bar: Measure, kind: ClickKind, groups: readonly number[] | null, count: number): BarClick[] {
  if (kind === 'none' || (kind === 'silent' && count % 2 === 1)) return [];
  const { slots, strongEvery } = beatOfMeter(bar);
  const felt = groupsIn(bar, groups);
  const weight = (k: number): 1 | 2 => (k === 0 ? 2 : 1);
  const inside = (clicks: BarClick[]): BarClick[] => clicks.filter((c) => lt(c.at, bar.length));
  switch (kind) {
    case 'groups':
      return felt.flatMap(({ at, k }) => (groups || k % strongEvery === 0 ? { at, weight: weight(k) } : []));
    case 'off':
      // The last third of a beat in three, else its half.
      return inside(
        felt.map(({ at, length }) => ({ at: add(at, mul(length, !groups && slots === 3 ? frac(2, 3) : frac(1, 2))), weight: 1 }))
      );
    case 'parts':
      return felt.flatMap(({ at, length, k }) => {
        const parts = groups ? groups[k % groups.length] : Math.max(2, slots);
        return inside(
          Array.from({ length: parts }, (_, n) => ({ at: add(at, mul(length, frac(n, parts))), weight: n === 0 ? weight(k) : 0 }))
        );
      });
    default:
      return felt.map(({ at, k }) => ({ at, weight: weight(k) }));
  }
}

/** How the bars of a meter are divided where they are uneven; null where they are not. */
export const groupsOf = (score: Score, measure: Measure): readonly number[] | null =>
  isAdditive(measure)
    ? (groupingOf(
        measure,
        score.notes.filter((n) => n.measure === measure.index)
      ) ??
      measure.time?.groups ??
      null)
    : null;
