/** What stands on a page as boxes in points, and which of them stand on each other. */
import type { Glyphs, Matrix, Measure, Page } from '../../../src/core/edition/pages/page.ts';
import { runWidth } from '../../../src/core/edition/pages/picture.ts';
import { measure } from '../../../src/lib/server/jobs/pages/faces.ts';
import { TYPE } from '../../../src/core/style/page-weights.ts';
import svgpath from 'svgpath';

interface Box {
  text: string;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Half of the size of its letters. */
  letter: number;
}

/** Accidentals inside words are narrower than the signs of the music font on the whole. */
const widthOf: Measure = (text, face, size) => (face === 'music' ? 0.3 * size * text.length : measure(text, face, size));

/** Words of a page as boxes, in points. */
function wordBoxes(page: Page): Box[] {
  const boxes: Box[] = [];
  const put = (text: string, x: number, y: number, width: number, size: number) => {
    // Letters without their long strokes below: lines that stand tight are not yet a collision.
    if (text.trim()) boxes.push({ text, left: x, right: x + width, top: y - 0.65 * size, bottom: y, letter: size / 2 });
  };
  for (const i of page.items) {
    if (i.kind === 'text') put(i.text, i.x, i.y, measure(i.text, i.face, i.size), i.size);
    if (i.kind !== 'picture') continue;
    for (const s of i.picture.strokes) {
      if (s.kind !== 'words' || s.runs.every((r) => r.face === 'music')) continue;
      const width = s.runs.reduce((sum, r) => sum + runWidth(r, widthOf), 0);
      const x = s.x - (s.anchor === 'middle' ? width / 2 : s.anchor === 'end' ? width : 0);
      const text = s.runs.map((r) => r.text).join('');
      put(text, i.x + x * i.scale, i.y + s.y * i.scale, width * i.scale, Math.max(...s.runs.map((r) => r.size)) * i.scale);
    }
  }
  return boxes;
}

/** Pairs of words that stand on each other by more than a point in height and half a letter in width. */
export const collisions = (page: Page): string[] => {
  const boxes = wordBoxes(page);
  return boxes.flatMap((a, k) =>
    boxes
      .slice(k + 1)
      .filter(
        (b) =>
          Math.min(a.right, b.right) - Math.max(a.left, b.left) > Math.min(a.letter, b.letter) / 2 &&
          Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
      )
      .map((b) => `page ${page.number}: “${a.text}” and “${b.text}”`)
  );
};

/** Corners of an outline, its control points taken for points of it. */
function extent(d: string, at: Matrix): Pick<Box, 'left' | 'right' | 'top' | 'bottom'> {
  const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
  const put = (x: number, y: number): void => {
    const [px, py] = [at[0] * x + at[2] * y + at[4], at[1] * x + at[3] * y + at[5]];
    box.left = Math.min(box.left, px);
    box.right = Math.max(box.right, px);
    box.top = Math.min(box.top, py);
    box.bottom = Math.max(box.bottom, py);
  };
  svgpath(d)
    .abs()
    .iterate(([command, ...values], _, x, y) => {
      const v = values as number[];
      if (command === 'H') put(v[0], y);
      else if (command === 'V') put(x, v[0]);
      else for (let k = 0; k + 1 < v.length; k += 2) put(v[k], v[k + 1]);
    });
  return box;
}

/** Editorial signs of the music font on a page. */
function signBoxes(page: Page, glyphs: Glyphs): Box[] {
  return page.items.flatMap((i) =>
    i.kind !== 'picture'
      ? []
      : i.picture.strokes.flatMap((s): Box[] => {
          const d = s.kind === 'glyph' && s.editorial ? glyphs.get(s.glyph) : undefined;
          if (!d || s.kind !== 'glyph') return [];
          const b = extent(d, s.at);
          return [
            {
              text: `sign ${s.glyph}`,
              left: i.x + b.left * i.scale,
              right: i.x + b.right * i.scale,
              top: i.y + b.top * i.scale,
              bottom: i.y + b.bottom * i.scale,
              letter: 4
            }
          ];
        })
  );
}

/** Editorial signs that stand on words: lyrics, names of phrases, dynamics in words, other editorial words. */
export function signCollisions(page: Page, glyphs: Glyphs): string[] {
  const words = wordBoxes(page).filter((w) => !/^[[\]()]+$/.test(w.text.trim()));
  return signBoxes(page, glyphs).flatMap((a) =>
    words
      .filter((b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1)
      .map((b) => `page ${page.number}: ${a.text} and “${b.text}”`)
  );
}

/** Share of the room of a page that something stands on, its foot left out. */
export function filledTo(page: Page): number {
  const room = page.height - TYPE.margin - TYPE.foot;
  const ends = page.items.map((i) => (i.kind === 'picture' ? i.y + i.picture.height * i.scale : i.y)).filter((y) => y <= room + 1);
  return Math.max(0, ...ends) / room;
}
