import { decompress } from 'wawoff2';
import type { Face, Glyphs, Measure, Page, PageItem, Picture, Stroke } from '../../../../core/edition/pages/page.ts';
import { runWidth } from '../../../../core/edition/pages/picture.ts';
import { documentWithFaces, measure, printable, type Doc } from './faces.ts';
import { pathOperators } from './path-operators.ts';

const MUTED = '#444444';
const CAPS: Record<string, number> = { butt: 0, round: 1, square: 2 };
const JOINS: Record<string, number> = { miter: 0, round: 1, bevel: 2 };
/** Bounds of a sign in the units of the music font; wide enough for the longest braces. */
const GLYPH_BOUNDS = [-8000, -8000, 8000, 8000];

const n = (x: number): string => String(Math.round(x * 1000) / 1000);

/** Draws pages into one PDF: vector graphics, embedded fonts, a title and bookmarks. */
export class Pdf {
  private readonly doc: Doc;
  private readonly chunks: Buffer[] = [];
  private readonly ended: Promise<void>;
  private readonly forms = new Map<string, { name: string; ref: PDFKit.PDFKitReference }>();
  private readonly outlines = new Map<string, string>();
  private parent: PDFKit.PDFOutline | null = null;
  private musicReady = false;

  constructor(
    title: string,
    author: string,
    private readonly glyphs: Glyphs
  ) {
    this.doc = documentWithFaces({
      autoFirstPage: false,
      info: { Title: title, Author: author, Creator: 'Nuvelo' },
      lang: 'en',
      displayTitle: true
    });
    this.ended = new Promise((resolve) => this.doc.on('end', resolve));
    this.doc.on('data', (part: Buffer) => this.chunks.push(part));
  }

  /** @param musicFont as WOFF2 in base64, once it is known */
  async add(page: Page, musicFont: string | null): Promise<void> {
    const { doc } = this;
    if (musicFont && !this.musicReady) {
      doc.registerFont('music', Buffer.from(await decompress(Buffer.from(musicFont, 'base64'))));
      this.musicReady = true;
    }
    doc.addPage({ size: [page.width, page.height], margin: 0 });
    for (const { title, level } of page.entries) {
      if (level === 0 || !this.parent) this.parent = doc.outline.addItem(title);
      else this.parent.addItem(title);
    }
    page.items.forEach((i) => this.item(i));
  }

  async finish(): Promise<Uint8Array> {
    this.doc.end();
    await this.ended;
    return Uint8Array.from(Buffer.concat(this.chunks));
  }

  private item(i: PageItem): void {
    const { doc } = this;
    if (i.kind === 'text') {
      doc.fillColor(i.quiet ? MUTED : 'black');
      this.text(i.text, i.x, i.y, i.face, i.size, 0);
    } else if (i.kind === 'rule')
      doc
        .moveTo(i.x, i.y)
        .lineTo(i.x + i.width, i.y)
        .lineWidth(0.6)
        .stroke(MUTED);
    else this.picture(i.picture, i.x, i.y, i.scale);
  }

  private picture(picture: Picture, x: number, y: number, scale: number): void {
    const operators = picture.strokes.flatMap((s) => (s.kind === 'words' ? [] : [this.stroke(s)]));
    this.doc.fillColor('black').strokeColor('black');
    // The document's own space has its origin at the upper left corner already.
    this.doc.addContent(`q ${n(scale)} 0 0 ${n(scale)} ${n(x)} ${n(y)} cm\n${operators.join('\n')}\nQ`);
    for (const s of picture.strokes) if (s.kind === 'words') this.words(s, x, y, scale);
  }

  private stroke(s: Exclude<Stroke, { kind: 'words' }>): string {
    const at = s.at.map(n).join(' ');
    if (s.kind === 'glyph') return `q ${at} cm /${this.form(s.glyph)} Do Q`;
    let d = this.outlines.get(s.d);
    if (d === undefined) this.outlines.set(s.d, (d = pathOperators(s.d)));
    const dash = s.dash ? `[${s.dash.split(/[\s,]+/).join(' ')}] 0 d ` : '';
    const pen = `${n(s.width)} w ${dash}${CAPS[s.cap ?? 'butt']} J ${JOINS[s.join ?? 'miter']} j`;
    // What is not dashed is filled and drawn around, as the engraver's stylesheet says.
    return `q ${at} cm ${pen}\n${d}\n${s.fill ? 'B' : 'S'} Q`;
  }

  /** A sign of the music font stands once in the file and is only named where it is drawn. */
  private form(glyph: string): string {
    const { doc } = this;
    let form = this.forms.get(glyph);
    if (!form) {
      const ref = doc.ref({ Type: 'XObject', Subtype: 'Form', BBox: GLYPH_BOUNDS, Resources: {} });
      ref.end(`${pathOperators(this.glyphs.get(glyph) ?? '')}\nf`);
      form = { name: `G${glyph}`, ref };
      this.forms.set(glyph, form);
    }
    (doc.page as unknown as { xobjects: Record<string, unknown> }).xobjects[form.name] = form.ref;
    return form.name;
  }

  private words(s: Stroke & { kind: 'words' }, x: number, y: number, scale: number): void {
    const widthOf: Measure = (text, face, size) =>
      face === 'music' && this.musicReady ? this.doc.font('music').fontSize(size).widthOfString(text) : measure(text, face, size);
    const width = s.anchor === 'start' ? 0 : s.runs.reduce((sum, r) => sum + runWidth(r, widthOf), 0);
    let at = s.x - (s.anchor === 'middle' ? width / 2 : s.anchor === 'end' ? width : 0);
    for (const r of s.runs) {
      this.text(r.text, x + at * scale, y + s.y * scale, r.face, r.size * scale, r.spacing * scale);
      at += runWidth(r, widthOf);
    }
  }

  private text(text: string, x: number, y: number, face: Face | 'music', size: number, spacing: number): void {
    this.doc
      .font(face === 'music' && !this.musicReady ? 'roman' : face)
      .fontSize(size)
      .text(face === 'music' ? text : printable(text), x, y, { lineBreak: false, baseline: 'alphabetic', characterSpacing: spacing });
  }
}
