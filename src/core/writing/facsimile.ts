/**
 * A picture of the paper that a score is written from, cut into systems and bars. Places are shares of the page's width and
 * height, so that they hold at every size.
 */

export interface CutSystem {
  top: number;
  bottom: number;
  /** Where bars begin and end, from the left; two at least. */
  lines: number[];
}

/** A bar on a page. */
export interface BarRegion {
  /** 0-based. */
  page: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** A page in grey: 0 black to 255 white, row by row. */
export interface GreyPage {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** Of the height of a system, what is shown above and below its cut: tempo words and levels stand there. Set by hand. */
const MARGIN = 0.35;

/** All bars in the order of reading, with what stands above and below them up to the middle between two systems. */
export const barRegions = (pages: readonly (readonly CutSystem[])[]): BarRegion[] =>
  pages.flatMap((cuts, page) => {
    const systems = [...cuts].sort((a, b) => a.top - b.top);
    return systems.flatMap(({ top, bottom, lines }, s) => {
      const most = MARGIN * (bottom - top);
      const above = Math.max(0, Math.min(most, top, s ? (top - systems[s - 1].bottom) / 2 : most));
      const below = Math.max(0, Math.min(most, 1 - bottom, s + 1 < systems.length ? (systems[s + 1].top - bottom) / 2 : most));
      const sorted = [...lines].sort((a, b) => a - b);
      return sorted.slice(1).map((right, k): BarRegion => ({ page, left: sorted[k], right, top: top - above, bottom: bottom + below }));
    });
  });

/** What counts as ink: darker than this share of the way from the darkest to the paper. Set by hand. */
const INK = 0.75;
/** Share of a page's width that a staff line spans at least. Set by hand. */
const STAFF_LINE = 0.45;
/** Of the rows between the outermost lines of a system, those that a bar line darkens at least. Set by hand. */
const BAR_LINE = 0.92;
/** Staff spaces kept above and below a system, for what stands there. Set by hand. */
const ROOM = 3.5;

/** The grey value between ink and paper. */
function inkOf({ data }: GreyPage): number {
  const counts = new Uint32Array(256);
  for (const v of data) counts[v]++;
  // The paper is the commonest of the light half; the ink the darkest that is not a speck.
  let paper = 255;
  for (let v = 128; v < 256; v++) if (counts[v] > counts[paper]) paper = v;
  let dark = 0;
  for (let sum = 0; dark < paper; dark++) if ((sum += counts[dark]) > data.length / 2000) break;
  return dark + (paper - dark) * INK;
}

/** Rows that belong to staff lines, as runs of neighbouring rows: their middles. */
function staffLines(page: GreyPage, ink: number): number[] {
  const { width, height, data } = page;
  const middles: number[] = [];
  let from = -1;
  for (let y = 0; y <= height; y++) {
    let dark = 0;
    if (y < height) for (let x = 0; x < width; x++) if (data[y * width + x] < ink) dark++;
    const line = dark > width * STAFF_LINE;
    if (line && from < 0) from = y;
    if (!line && from >= 0) {
      middles.push((from + y - 1) / 2);
      from = -1;
    }
  }
  return middles;
}

/** Five lines in even distances are a staff. */
function staves(lines: readonly number[]): { top: number; bottom: number }[] {
  const found: { top: number; bottom: number }[] = [];
  for (let k = 0; k + 4 < lines.length;) {
    const gaps = [1, 2, 3, 4].map((n) => lines[k + n] - lines[k + n - 1]);
    const mean = gaps.reduce((a, b) => a + b) / 4;
    if (gaps.every((g) => Math.abs(g - mean) <= Math.max(1.5, mean * 0.25))) {
      found.push({ top: lines[k], bottom: lines[k + 4] });
      k += 5;
    } else k++;
  }
  return found;
}

/** Columns that are dark from one row to another, as runs: their middles. */
function darkColumns({ width, data }: GreyPage, ink: number, top: number, bottom: number): number[] {
  const [a, b] = [Math.ceil(top), Math.floor(bottom)];
  const middles: number[] = [];
  let from = -1;
  for (let x = 0; x <= width; x++) {
    let dark = 0;
    if (x < width) for (let y = a; y <= b; y++) if (data[y * width + x] < ink) dark++;
    const line = dark >= (b - a + 1) * BAR_LINE;
    if (line && from < 0) from = x;
    if (!line && from >= 0) {
      middles.push((from + x - 1) / 2);
      from = -1;
    }
  }
  return middles;
}

/** Distance from a stem, in staff spaces, at which its head is met. Set by hand. */
const HEAD = 0.7;

/**
 * Whether a dark column is the stem of a note: a stem as long as a staff has its head in or beyond one of the outer spaces,
 * and there a bar line has nothing beside it.
 */
function isStem({ width, height, data }: GreyPage, ink: number, x: number, staff: { top: number; bottom: number }): boolean {
  const space = (staff.bottom - staff.top) / 4;
  const inked = (px: number, py: number): boolean => {
    const [cx, cy] = [Math.round(px), Math.round(py)];
    return cx >= 0 && cy >= 0 && cx < width && cy < height && data[cy * width + cx] < ink;
  };
  const rows = [staff.top - 0.4 * space, staff.top + 0.5 * space, staff.bottom - 0.5 * space, staff.bottom + 0.4 * space];
  return rows.some((y) => inked(x - HEAD * space, y) || inked(x + HEAD * space, y));
}

/** First and last column with ink between two rows. */
function extent({ width, data }: GreyPage, ink: number, y: number): { left: number; right: number } {
  const row = Math.round(y) * width;
  let [left, right] = [0, width - 1];
  while (left < width && data[row + left] >= ink) left++;
  while (right > left && data[row + right] >= ink) right--;
  return { left, right };
}

/**
 * Proposes how a page is cut: staves by their five lines, staves that a dark column joins are one system, bars by columns
 * that are dark from its top line to its bottom line. Meant for pages that stand upright; the teacher mends the rest.
 */
export function proposeCuts(page: GreyPage): CutSystem[] {
  const ink = inkOf(page);
  const all = staves(staffLines(page, ink));
  const systems: { top: number; bottom: number; space: number; staves: { top: number; bottom: number }[] }[] = [];
  for (const staff of all) {
    const last = systems.at(-1);
    if (last && darkColumns(page, ink, last.bottom, staff.top).length) {
      last.bottom = staff.bottom;
      last.staves.push(staff);
    } else systems.push({ ...staff, space: (staff.bottom - staff.top) / 4, staves: [staff] });
  }
  const { width, height } = page;
  return systems.map(({ top, bottom, space, staves: own }, k): CutSystem => {
    const { left, right } = extent(page, ink, top);
    const columns = darkColumns(page, ink, top, bottom).filter(
      (x) => x > left + 4 * space && (right - x < 2 * space || !own.some((s) => isStem(page, ink, x, s)))
    );
    // Double and final lines are one; the left end is always a line.
    const lines = [left, ...columns.filter((x, n) => n === 0 || x - columns[n - 1] > 1.5 * space)];
    if (lines.length < 2 || right - lines.at(-1)! > 4 * space) lines.push(right);
    const above = systems[k - 1] ? (systems[k - 1].bottom + top) / 2 : 0;
    const below = systems[k + 1] ? (bottom + systems[k + 1].top) / 2 : height;
    return {
      top: Math.max(above, top - ROOM * space) / height,
      bottom: Math.min(below, bottom + ROOM * space) / height,
      lines: lines.map((x) => x / width)
    };
  });
}
