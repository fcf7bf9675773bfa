import type { Inline } from '../../reading/rich-text.ts';
import { TYPE } from '../../style/page-weights.ts';
import type { TableBlock, TextBlock, TextPart } from '../text/blocks.ts';
import type { Face, Measure, Page, PageItem, Picture } from './page.ts';

interface Word {
  text: string;
  face: Face;
  width: number;
  /** A blank stands before it. */
  blank: boolean;
  /** A line ends before it. */
  broken: boolean;
}

const faceOf = (i: Inline, face: Face): Face => {
  if (i.type !== 'text') return face;
  const bold = i.marks?.some((m) => m.type === 'bold') || face.startsWith('bold');
  const italic = i.marks?.some((m) => m.type === 'italic') || face.endsWith('italic');
  return bold ? (italic ? 'bolditalic' : 'bold') : italic ? 'italic' : 'roman';
};

/** Sets text on pages from top to bottom; pages that are full are handed out as they are done. */
export class Typesetter {
  /** Where the next line may begin, from the top of the page. */
  y: number = TYPE.margin;
  private page: Page;
  private done: Page[] = [];
  private count = 0;

  constructor(
    readonly width: number,
    readonly height: number,
    private readonly measure: Measure,
    private readonly title: string
  ) {
    this.page = this.blank();
  }

  get bottom(): number {
    return this.height - TYPE.margin - TYPE.foot;
  }

  get lineWidth(): number {
    return this.width - 2 * TYPE.margin;
  }

  /** Pages that are full, each handed out once. */
  *finished(): Generator<Page> {
    const { done } = this;
    this.done = [];
    yield* done;
  }

  /** The last page and all before it that were not handed out. */
  *end(): Generator<Page> {
    yield* this.finished();
    if (this.page.items.length) yield this.footed(this.page);
  }

  newPage(): void {
    if (this.page.items.length) this.done.push(this.footed(this.page));
    this.page = this.blank();
    this.y = TYPE.margin;
  }

  put(item: PageItem): void {
    this.page.items.push(item);
  }

  /** Begins a new page when less than `height` is left, so that what belongs together stands together. */
  keep(height: number): void {
    this.room(height);
  }

  /** A picture below what stands there. */
  picture(picture: Picture, scale: number): void {
    this.room(picture.height * scale);
    this.put({ kind: 'picture', x: TYPE.margin, y: this.y, scale, picture });
    this.y += picture.height * scale + TYPE.betweenSystems;
  }

  entry(title: string, level: 0 | 1): void {
    this.page.entries.push({ title, level });
  }

  /** Title, composer and instrument over the first page. */
  head(composer: string, instrument: string): void {
    const line = (text: string, face: Face, size: number, quiet?: true) => {
      for (const words of this.broken([{ type: 'text', text }], face, size, this.lineWidth)) {
        const width = this.widthOf(words, size);
        this.y += size * TYPE.leading;
        this.line(words, (this.width - width) / 2, size, quiet);
      }
    };
    this.y -= 8;
    line(this.title, 'bold', TYPE.title);
    if (composer) line(composer, 'italic', TYPE.composer);
    if (instrument) line(instrument, 'roman', 10, true);
    this.y += 14;
  }

  /** A part of the text under its title, which begins here. */
  part({ title, blocks }: TextPart): void {
    const [first] = blocks;
    this.room(TYPE.part * 4 + (first?.type === 'table' ? this.wholeTable(first) : 0));
    this.entry(title, 0);
    this.paragraph([{ type: 'text', text: title }], { face: 'bold', size: TYPE.part, after: 6 });
    blocks.forEach((b) => this.block(b));
    this.y += 8;
  }

  private block(block: TextBlock, indent = 0): void {
    switch (block.type) {
      case 'paragraph':
        this.paragraph(block.content ?? [], { indent });
        break;
      case 'heading': {
        const major = block.attrs.level === 2;
        // A heading does not stand alone at the foot of a page.
        this.room(5 * TYPE.text * TYPE.leading);
        if (major) this.y += 5;
        this.paragraph(block.content ?? [], { indent, face: 'bold', size: major ? TYPE.heading : TYPE.subheading, after: 1 });
        break;
      }
      case 'blockquote':
        block.content.forEach((b) => this.block(b, indent + TYPE.indent));
        break;
      case 'table':
        this.table(block);
        break;
      default:
        block.content.forEach((item, k) => {
          this.room(TYPE.text * TYPE.leading);
          const sign = block.type === 'orderedList' ? `${k + 1}.` : '–';
          const { page, y } = this;
          item.content.forEach((b) => this.block(b, indent + TYPE.indent));
          page.items.push({ kind: 'text', x: TYPE.margin + indent, y: y + TYPE.text, text: sign, face: 'roman', size: TYPE.text });
        });
    }
  }

  private paragraph(
    content: readonly Inline[],
    {
      indent = 0,
      face = 'roman',
      size = TYPE.text,
      after = TYPE.paragraphGap
    }: { indent?: number; face?: Face; size?: number; after?: number }
  ): void {
    for (const words of this.broken(content, face, size, this.lineWidth - indent)) {
      this.room(size * TYPE.leading);
      this.y += size;
      this.line(words, TYPE.margin + indent, size);
      this.y += size * (TYPE.leading - 1);
    }
    this.y += after;
  }

  private table({ head, rows, widths }: TableBlock): void {
    const size = TYPE.small;
    const row = (segments: readonly string[], face: Face): void => {
      const { lines, height } = this.tableRow(segments, face, widths);
      this.room(height);
      let x: number = TYPE.margin;
      lines.forEach((cell, k) => {
        cell.forEach((words, n) => {
          const { y } = this;
          this.y += size + n * size * TYPE.leading;
          this.line(words, x, size);
          this.y = y;
        });
        x += widths[k] * this.lineWidth;
      });
      this.y += height;
    };
    if (head.length) {
      row(head, 'bold');
      this.put({ kind: 'rule', x: TYPE.margin, y: this.y - 2, width: this.lineWidth });
    }
    for (const segments of rows) row(segments, 'roman');
    this.y += TYPE.paragraphGap;
  }

  /** The cells of a row in lines, and its height with the gap below. */
  private tableRow(segments: readonly string[], face: Face, widths: readonly number[]): { lines: Word[][][]; height: number } {
    const size = TYPE.small;
    const lines = segments.map((text, k) => [...this.broken([{ type: 'text', text }], face, size, widths[k] * this.lineWidth - 6)]);
    return { lines, height: Math.max(...lines.map((l) => l.length)) * size * TYPE.leading + 3 };
  }

  /** Room that keeps a small table on one page; none for a long one. */
  private wholeTable({ head, rows, widths }: TableBlock): number {
    const all = head.length ? [head, ...rows] : rows;
    const height = all.reduce((sum, segments) => sum + this.tableRow(segments, 'bold', widths).height, 0);
    return height < TYPE.keptWhole * this.height ? height : 0;
  }

  /** Begins a new page when less than `height` is left. */
  private room(height: number): void {
    if (this.y + height > this.bottom) this.newPage();
  }

  private *broken(content: readonly Inline[], face: Face, size: number, width: number): Generator<Word[]> {
    let line: Word[] = [];
    let used = 0;
    for (const word of this.words(content, face, size, width)) {
      const blank = word.blank && line.length ? this.measure(' ', word.face, size) : 0;
      if (line.length && (word.broken || used + blank + word.width > width)) {
        yield line;
        line = [];
        used = 0;
      }
      used += (line.length ? blank : 0) + word.width;
      line.push(word);
    }
    if (line.length) yield line;
  }

  private *words(content: readonly Inline[], face: Face, size: number, most: number): Generator<Word> {
    let blank = false;
    let broken = false;
    for (const i of content) {
      if (i.type === 'hardBreak') {
        broken = true;
        continue;
      }
      const own = faceOf(i, face);
      for (const piece of i.text.split(/(\s+)/)) {
        if (!piece) continue;
        if (/^\s/.test(piece)) {
          if (piece.includes('\n')) broken = true;
          blank = true;
          continue;
        }
        for (const text of this.fitting(piece, own, size, most)) {
          yield { text, face: own, width: this.measure(text, own, size), blank, broken };
          blank = broken = false;
        }
      }
    }
  }

  /** A word that is longer than a line, in pieces that are not. */
  private fitting(word: string, face: Face, size: number, most: number): string[] {
    if (word.length < 2 || this.measure(word, face, size) <= most) return [word];
    const half = word.length >> 1;
    return [word.slice(0, half), word.slice(half)].flatMap((w) => this.fitting(w, face, size, most));
  }

  private widthOf(words: readonly Word[], size: number): number {
    return words.reduce((sum, w, k) => sum + w.width + (k && w.blank ? this.measure(' ', w.face, size) : 0), 0);
  }

  /** One line at the current height: words of one face stand together. */
  private line(words: readonly Word[], x: number, size: number, quiet?: true): void {
    let text = '';
    let face: Face = words[0].face;
    let start = x;
    let at = x;
    const flush = (): void => {
      if (text.trim()) this.put({ kind: 'text', x: start, y: this.y, text, face, size, ...(quiet ? { quiet } : {}) });
      text = '';
    };
    words.forEach((w, k) => {
      if (w.face !== face) {
        flush();
        face = w.face;
        start = at;
      }
      if (k && w.blank) {
        if (!text) start += this.measure(' ', w.face, size);
        else text += ' ';
        at += this.measure(' ', w.face, size);
      }
      text += w.text;
      at += w.width;
    });
    flush();
  }

  private blank(): Page {
    return { number: ++this.count, width: this.width, height: this.height, items: [], entries: [] };
  }

  private footed(page: Page): Page {
    const y = this.height - TYPE.margin + 4;
    const number = String(page.number);
    const size = TYPE.small;
    page.items.push({ kind: 'text', x: TYPE.margin, y, text: this.title, face: 'roman', size, quiet: true });
    const x = this.width - TYPE.margin - this.measure(number, 'roman', size);
    page.items.push({ kind: 'text', x, y, text: number, face: 'roman', size, quiet: true });
    return page;
  }
}
