import { SaxesParser, type SaxesTagPlain } from 'saxes';
import type { Face, Glyphs, Matrix, Measure, Picture, Stroke, WordRun } from './page.ts';

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[2] * b[1],
  a[1] * b[0] + a[3] * b[1],
  a[0] * b[2] + a[2] * b[3],
  a[1] * b[2] + a[3] * b[3],
  a[0] * b[4] + a[2] * b[5] + a[4],
  a[1] * b[4] + a[3] * b[5] + a[5]
];

/** The transforms that the engraver uses: translate, scale, rotate, matrix. */
function transform(text: string | undefined): Matrix {
  if (!text) return IDENTITY;
  let result = IDENTITY;
  for (const [, name, inner] of text.matchAll(/(\w+)\(([^)]*)\)/g)) {
    const v = inner.split(/[\s,]+/).map(Number);
    if (name === 'translate') result = times(result, [1, 0, 0, 1, v[0], v[1] ?? 0]);
    else if (name === 'scale') result = times(result, [v[0], 0, 0, v[1] ?? v[0], 0, 0]);
    else if (name === 'matrix') result = times(result, v as unknown as Matrix);
    else if (name === 'rotate') {
      const [a, x = 0, y = 0] = v;
      const [c, s] = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)];
      result = times(result, [c, s, -s, c, x - c * x + s * y, y - s * x - c * y]);
    }
  }
  return result;
}

interface Level {
  at: Matrix;
  editorial: boolean;
  bold: boolean;
  italic: boolean;
  music: boolean;
  size: number;
  spacing: number;
}

/** Classes whose words the engraver's own stylesheet sets bold or italic. */
const BOLD = /\b(ending|fing|reh|tempo)\b/;
const ITALIC = /\b(dir|dynam|mNum)\b/;
/** Classes whose words may run over the end of a line and are moved back. */
const MAY_RUN_OVER = /\b(dir|tempo)\b/;

const face = (l: Level): Face | 'music' =>
  l.music ? 'music' : l.bold ? (l.italic ? 'bolditalic' : 'bold') : l.italic ? 'italic' : 'roman';

const length = (text: string | undefined): number => Number.parseFloat(text ?? '0') || 0;

/** Points of a polygon or polyline as a path. */
const path = (points: string, close: boolean): string => {
  const numbers = points.trim().split(/[\s,]+/);
  let d = '';
  for (let k = 0; k + 1 < numbers.length; k += 2) d += `${k ? 'L' : 'M'}${numbers[k]} ${numbers[k + 1]}`;
  return close ? `${d}Z` : d;
};

/** An ellipse as four curves; the constant makes them circles to a quarter of a thousandth. */
function ellipse(cx: number, cy: number, rx: number, ry: number): string {
  const k = 0.5523;
  return `M${cx - rx} ${cy}C${cx - rx} ${cy - k * ry} ${cx - k * rx} ${cy - ry} ${cx} ${cy - ry}C${cx + k * rx} ${cy - ry} ${cx + rx} ${cy - k * ry} ${cx + rx} ${cy}C${cx + rx} ${cy + k * ry} ${cx + k * rx} ${cy + ry} ${cx} ${cy + ry}C${cx - k * rx} ${cy + ry} ${cx - rx} ${cy + k * ry} ${cx - rx} ${cy}Z`;
}

/** Reads the engraver's SVG into strokes; outlines of signs that were not known yet are added to `glyphs`. */
export function readPicture(svg: string, glyphs: Glyphs, measure: Measure): Picture {
  const strokes: Stroke[] = [];
  let width = 0;
  let height = 0;
  let inDefs = false;
  let glyph = '';
  let words: (Stroke & { kind: 'words' }) | null = null;
  let mayRunOver = false;
  const stack: Level[] = [{ at: IDENTITY, editorial: false, bold: false, italic: false, music: false, size: 0, spacing: 0 }];
  const top = (): Level => stack[stack.length - 1];
  const mark = (l: Level): { editorial?: true } => (l.editorial ? { editorial: true } : {});

  const outline = (d: string, a: Record<string, string>, l: Level): void => {
    strokes.push({
      kind: 'outline',
      d,
      at: times(l.at, transform(a.transform)),
      fill: a.fill !== 'none',
      width: a['stroke-width'] === undefined ? 1 : length(a['stroke-width']),
      ...(a['stroke-dasharray'] ? { dash: a['stroke-dasharray'] } : {}),
      ...(a['stroke-linecap'] ? { cap: a['stroke-linecap'] } : {}),
      ...(a['stroke-linejoin'] ? { join: a['stroke-linejoin'] } : {}),
      ...mark(l)
    });
  };

  const begin = (): void => {
    if (!words?.runs.length) return;
    words = { ...words, runs: [] };
    strokes.push(words);
  };

  const open = ({ name, attributes: a }: SaxesTagPlain): void => {
    const parent = top();
    const style = a.class ?? '';
    const level: Level = {
      at: name === 'use' || name === 'path' ? parent.at : times(parent.at, transform(a.transform)),
      editorial: parent.editorial || /\beditorial\b/.test(style),
      bold: a['font-weight'] ? a['font-weight'] === 'bold' : parent.bold || BOLD.test(style),
      italic: a['font-style'] ? a['font-style'] === 'italic' : parent.italic || ITALIC.test(style),
      music: a['font-family'] ? /Leipzig|Bravura/.test(a['font-family']) : parent.music,
      size: a['font-size'] ? length(a['font-size']) : parent.size,
      spacing: a['letter-spacing'] ? length(a['letter-spacing']) : parent.spacing
    };
    stack.push(level);
    if (name === 'defs') inDefs = true;
    else if (inDefs) {
      if (name === 'g' && a.id) glyph = a.id.split('-')[0];
      else if (name === 'path' && glyph && !glyphs.has(glyph)) glyphs.set(glyph, a.d);
      return;
    }
    switch (name) {
      case 'svg':
        if (a.class === 'definition-scale') [, , width, height] = a.viewBox.split(/\s+/).map(Number);
        break;
      case 'use': {
        const code = (a['xlink:href'] ?? a.href ?? '').replace('#', '').split('-')[0];
        // The outlines stand with y upwards.
        strokes.push({
          kind: 'glyph',
          glyph: code,
          at: times(times(level.at, transform(a.transform)), [1, 0, 0, -1, 0, 0]),
          ...mark(level)
        });
        break;
      }
      case 'path':
        outline(a.d, a, level);
        break;
      case 'polygon':
      case 'polyline':
        outline(path(a.points, name === 'polygon'), a, { ...level, at: parent.at });
        break;
      case 'rect': {
        const [x, y, w, h] = [length(a.x), length(a.y), length(a.width), length(a.height)];
        outline(`M${x} ${y}h${w}v${h}h${-w}Z`, a, { ...level, at: parent.at });
        break;
      }
      case 'ellipse':
      case 'circle':
        outline(ellipse(length(a.cx), length(a.cy), length(a.rx ?? a.r), length(a.ry ?? a.r)), a, { ...level, at: parent.at });
        break;
      case 'g':
        if (MAY_RUN_OVER.test(style)) mayRunOver = true;
        break;
      case 'text':
        words = {
          kind: 'words',
          x: level.at[4] + length(a.x),
          y: level.at[5] + length(a.y),
          anchor: (a['text-anchor'] as 'start') ?? 'start',
          runs: [],
          ...mark(level)
        };
        strokes.push(words);
        break;
      case 'tspan':
        if (words && (a.x !== undefined || a.y !== undefined || a.dy !== undefined)) {
          begin();
          if (a.x !== undefined) words.x = level.at[4] + length(a.x);
          if (a.y !== undefined) words.y = level.at[5] + length(a.y);
          words.y += length(a.dy);
        }
        if (words && a['text-anchor']) words.anchor = a['text-anchor'] as 'start';
    }
  };

  const parser = new SaxesParser();
  parser.on('opentag', open);
  parser.on('text', (text) => {
    const l = top();
    if (!words || inDefs || !l.size || !text.trim()) return;
    words.runs.push({ text: text.replace(/\s+/g, ' '), size: l.size, face: face(l), spacing: l.spacing });
  });
  parser.on('closetag', ({ name }) => {
    stack.pop();
    if (name === 'defs') inDefs = false;
    if (name !== 'text' || !words) return;
    if (mayRunOver) keepInside(words, width, measure);
    mayRunOver = false;
    words = null;
  });
  parser.write(svg.replace(/<style\b[\s\S]*?<\/style>/g, '')).close();
  const kept = strokes.filter((s) => s.kind !== 'words' || s.runs.length);
  return { width, height, drawn: Math.max(0, ...kept.map((s) => rightOf(s, measure))), strokes: kept };
}

/** Where a stroke ends on the right; of an outline only straight lines count, which staves and beams are. */
function rightOf(s: Stroke, measure: Measure): number {
  if (s.kind === 'glyph') return s.at[4];
  if (s.kind === 'words') return s.x + s.runs.reduce((sum, r) => sum + runWidth(r, measure), 0);
  const line = /^M(-?[\d.]+)[ ,]-?[\d.]+ ?L(-?[\d.]+)/.exec(s.d);
  return line ? s.at[4] + s.at[0] * Math.max(Number(line[1]), Number(line[2])) : 0;
}

/** Width of a run of words in the picture's units. */
export const runWidth = (r: WordRun, measure: Measure): number => measure(r.text, r.face, r.size) + r.spacing * r.text.length;

/** Words that would run over the end of the line end with it. */
function keepInside(words: Stroke & { kind: 'words' }, width: number, measure: Measure): void {
  if (words.anchor !== 'start') return;
  const over = words.x + words.runs.reduce((sum, r) => sum + runWidth(r, measure), 0) - width;
  if (over > 0) words.x -= over;
}
