import { TURNS } from '../../style/page-weights.ts';

/** A system as it is to be placed. */
export interface Placeable {
  /** In points. */
  height: number;
  /** How well the page can be turned after it, 0 to 1: a rest there. */
  turn: number;
  /** What belongs to it at the foot of its page; null for nothing. */
  foot: Box | null;
}

/** In points. */
export interface Box {
  width: number;
  height: number;
}

/** Boxes side by side in rows of a width: where each stands, and how high they are together. */
export function rows(boxes: readonly Box[], width: number): { at: { x: number; y: number }[]; height: number } {
  const at: { x: number; y: number }[] = [];
  let [x, y, high] = [0, 0, 0];
  for (const box of boxes) {
    if (x > 0 && x + box.width > width) {
      y += high;
      x = high = 0;
    }
    at.push({ x, y });
    x += box.width;
    high = Math.max(high, box.height);
  }
  return { at, height: y + high };
}

/** A filled page: which blocks stand on it, and where from the top of its content. */
export interface Filled {
  from: number;
  to: number;
  y: number[];
}

/** Room on the first page and on the others, and the least gap between blocks; in points. */
export interface Room {
  first: number;
  other: number;
  gap: number;
  /** Width of the line. */
  width: number;
}

/** Height of the feet of some blocks. */
const feet = (blocks: readonly Placeable[], from: number, to: number, width: number): number =>
  rows(
    blocks.slice(from, to).flatMap((b) => b.foot ?? []),
    width
  ).height;

const heightOf = (blocks: readonly Placeable[], from: number, to: number, { gap, width }: Pick<Room, 'gap' | 'width'>): number => {
  let sum = feet(blocks, from, to, width);
  for (let k = from; k < to; k++) sum += blocks[k].height + (k > from ? gap : 0);
  return sum;
};

function place(blocks: readonly Placeable[], from: number, to: number, space: number, room: Room, last: boolean): Filled {
  const { gap } = room;
  const used = heightOf(blocks, from, to, { ...room, gap: 0 });
  const between = to - from - 1;
  // A page that is far from full keeps its blocks together.
  const spread = between > 0 && !last && used > TURNS.spreadFrom * space ? Math.min((space - used) / between, TURNS.widest * gap) : gap;
  const y: number[] = [];
  let at = 0;
  for (let k = from; k < to; k++) {
    y.push(at);
    at += blocks[k].height + spread;
  }
  return { from, to, y };
}

/**
 * Fills pages with systems from the top as they come: a page ends where it can be turned, if that leaves it full enough,
 * and the last two pages share what is left evenly as long as the first of them is two thirds full. What is left over on a full page is spread between its systems. The
 * first page stays as it is when it has too little room.
 * @param count how many systems will come in all
 */
export function* fillPages(systems: Iterable<Placeable>, count: number, room: Room): Generator<Filled> {
  const blocks: Placeable[] = [];
  const source = systems[Symbol.iterator]();
  const want = (k: number): boolean => {
    while (blocks.length <= k) {
      const next = source.next();
      if (next.done) return false;
      blocks.push(next.value);
    }
    return true;
  };
  let from = 0;
  let space = room.first;
  if (want(0) && space < room.other && heightOf(blocks, 0, 1, room) > space) {
    // Nothing fits under what stands on the first page.
    yield { from: 0, to: 0, y: [] };
    space = room.other;
  }
  while (from < count) {
    // As many as fit, at least one.
    let full = from + 1;
    want(from);
    while (full < count && want(full) && heightOf(blocks, from, full + 1, room) <= space) full++;
    if (full >= count) {
      yield place(blocks, from, count, space, room, true);
      return;
    }
    const end = endOfPage(from, full);
    yield place(blocks, from, end, space, room, false);
    from = end;
    space = room.other;
  }

  /** Where the page that begins at `start` and has room until `full` ends. */
  function endOfPage(start: number, full: number): number {
    const left = count - full;
    const balance = left < full - start;
    if (balance) want(count - 1);
    const total = balance ? heightOf(blocks, start, count, room) : 0;
    let best = Infinity;
    let end = full;
    for (let e = full; e > start; e--) {
      const height = heightOf(blocks, start, e, room);
      if (balance && heightOf(blocks, e, count, room) > room.other) break;
      const empty = 1 - height / space;
      if (e < full && empty > TURNS.emptiest && !balance) break;
      const uneven = balance ? Math.abs(2 * height - total) / space : 0;
      // No page but the last is left emptier than that, however evenly two would share.
      const bare = height < TURNS.fullEnough * space ? TURNS.bare : 0;
      const cost = (balance ? TURNS.uneven * uneven : TURNS.empty * empty) - TURNS.turn * blocks[e - 1].turn + bare;
      if (cost < best) {
        best = cost;
        end = e;
      }
    }
    return end;
  }
}
