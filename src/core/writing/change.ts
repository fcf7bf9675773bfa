import type { Lane, Written, WrittenBar, WrittenHead } from './written.ts';

/** What differs between two states of a written score: as little as can be sent for one key. */
export interface WrittenChange {
  head?: WrittenHead;
  lanes?: Lane[];
  /** Bars that are new or stand otherwise. */
  bars: WrittenBar[];
  /** The ids of all bars in their order, where bars came or went. */
  order?: string[];
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What must be done to a state so that it becomes another. Edits leave what they do not touch the same record. */
export function changeBetween(from: Written, to: Written): WrittenChange {
  const before = new Map(from.bars.map((b) => [b.id, b]));
  const stays = from.bars.length === to.bars.length && to.bars.every((b, k) => b.id === from.bars[k].id);
  return {
    ...(!same(from.head, to.head) && { head: to.head }),
    ...(!same(from.lanes, to.lanes) && { lanes: to.lanes }),
    bars: to.bars.filter((b) => !same(before.get(b.id), b)),
    ...(!stays && { order: to.bars.map((b) => b.id) })
  };
}

/** @returns null where the change does not belong to this state: a bar that it names is not there */
export function changed(from: Written, { head, lanes, bars, order }: WrittenChange): Written | null {
  const known = new Map([...from.bars, ...bars].map((b) => [b.id, b]));
  if (!order && known.size !== from.bars.length) return null;
  const ids = order ?? from.bars.map((b) => b.id);
  if (new Set(ids).size !== ids.length || ids.some((id) => !known.has(id))) return null;
  return { head: head ?? from.head, lanes: lanes ?? from.lanes, bars: ids.map((id) => known.get(id)!) };
}
