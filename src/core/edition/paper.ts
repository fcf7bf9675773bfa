/** Paper on which an edition is printed; lengths in points (72 to the inch). ISO 216; ANSI/ASME Y14.1. */
export const PAPERS = { A4: [595.28, 841.89], Letter: [612, 792] } as const;
export type Paper = keyof typeof PAPERS;

/** What an edition shows: to play from, to study with reasons, or the bare source with bar numbers. */
export const VARIANTS = ['study', 'performance', 'blank'] as const;
export type Variant = (typeof VARIANTS)[number];

/** Height of a staff in points: as in printed parts, and in large print. Common practice: 7 mm; large print half as much again. */
export const STAFF_SIZES = { small: 16, usual: 20, large: 30 } as const;
export type StaffSize = keyof typeof STAFF_SIZES;

/** How the pages of an edition are set. */
export interface PageSettings {
  paper: Paper;
  landscape: boolean;
  staff: StaffSize;
  variant: Variant;
}

export const USUAL_PAGES: PageSettings = { paper: 'A4', landscape: false, staff: 'usual', variant: 'study' };

/** Margin on every side, in points. */
export const MARGIN = 45;

/** A block on a page: where it stands from the top of the page's content, in points. */
export interface PlacedBlock {
  block: number;
  page: number;
  y: number;
}

/**
 * Fills pages with blocks from the top; what is left over on a page that is nearly full is spread between its blocks.
 * @param heights of the blocks, in points
 * @param first room on the first page, which may begin with a title
 * @param room on every other page
 */
export function fillPages(heights: readonly number[], first: number, room: number, least: number): PlacedBlock[] {
  const pages: number[][] = [[]];
  let left = first;
  heights.forEach((height, block) => {
    const gap = pages[pages.length - 1].length ? least : 0;
    if (gap + height > left && pages[pages.length - 1].length) {
      pages.push([block]);
      left = room - height;
    } else {
      pages[pages.length - 1].push(block);
      left -= gap + height;
    }
  });
  return pages.flatMap((blocks, page) => {
    const space = page === 0 ? first : room;
    const used = blocks.reduce((s, b) => s + heights[b], 0);
    const between = blocks.length - 1;
    const free = space - used;
    // A page that is far from full keeps its blocks together.
    const gap = between && page < pages.length - 1 && used > 0.6 * space ? Math.min(free / between, 5 * least) : least;
    let y = 0;
    return blocks.map((block) => {
      const placed = { block, page, y };
      y += heights[block] + gap;
      return placed;
    });
  });
}
