import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import drawSvg from 'svg-to-pdfkit';
import { commentary, legend, preface } from '../../../../core/edition/commentary.ts';
import { fillPages, MARGIN, PAPERS, STAFF_SIZES, type PageSettings } from '../../../../core/edition/paper.ts';
import type { Facts } from '../../../../core/analysis/facts.ts';
import type { Reading } from '../../../../core/reading/commands.ts';
import type { Proposal } from '../../../../core/reading/markings.ts';
import type { Score } from '../../../../core/score/model.ts';
import { barLabel, measureAt } from '../../../../core/score/position.ts';
import { engraveSystems } from './engrave-systems.ts';

export interface PdfInput {
  document: string;
  score: Score;
  facts: Facts;
  reading: Reading;
  proposals: readonly Proposal[];
  title: string;
  composer: string;
  instrument: string;
  settings: PageSettings;
}

const require = createRequire(import.meta.url);
const font = (name: string): Buffer => readFileSync(require.resolve(`@expo-google-fonts/tinos/${name}.ttf`));
const FONTS = {
  roman: () => font('400Regular/Tinos_400Regular'),
  italic: () => font('400Regular_Italic/Tinos_400Regular_Italic'),
  bold: () => font('700Bold/Tinos_700Bold'),
  bolditalic: () => font('700Bold_Italic/Tinos_700Bold_Italic')
};

/** Points: text, its leading, room between blocks of systems, and for the foot of the page. */
const TEXT = 10.5;
const LINE_GAP = 1.8;
const BETWEEN_SYSTEMS = 12;
const FOOT = 18;
const MUTED = '#444444';

/** An edition as a PDF: vector pages with embedded fonts, bookmarks and a title. */
export async function editionPdf(input: PdfInput, progress: (stage: string) => void): Promise<Uint8Array> {
  const { score, facts, reading, settings, title } = input;
  const [short, long] = PAPERS[settings.paper];
  const doc = new PDFDocument({
    size: [short, long],
    layout: settings.landscape ? 'landscape' : 'portrait',
    margins: { top: MARGIN, left: MARGIN, right: MARGIN, bottom: MARGIN + FOOT },
    bufferPages: true,
    // The standard faces are never used, so that every font is in the file.
    font: require.resolve('@expo-google-fonts/tinos/400Regular/Tinos_400Regular.ttf'),
    info: { Title: title, Author: input.composer, Creator: 'Nuvelo' },
    lang: 'en',
    displayTitle: true
  });
  for (const [name, read] of Object.entries(FONTS)) doc.registerFont(name, read());
  const parts: Buffer[] = [];
  const done = new Promise<void>((resolve) => doc.on('end', resolve));
  doc.on('data', (part: Buffer) => parts.push(part));

  const width = doc.page.width - 2 * MARGIN;
  const bare = settings.variant === 'blank';
  const phraseStarts = new Set(facts.phrases.map((p) => measureAt(score, p.start).index));
  const { blocks, musicFont } = await engraveSystems(
    input.document,
    score,
    bare ? [] : reading.markings,
    [],
    phraseStarts,
    width,
    STAFF_SIZES[settings.staff],
    (at, of) => progress(`engraving bar ${at + 1} of ${of}`)
  );
  if (musicFont) doc.registerFont('music', musicFont);
  progress('setting the pages');

  head(doc, input);
  if (settings.variant === 'study') {
    outline(doc, 'Preface');
    heading(doc, 'Preface');
    for (const p of preface(score, facts, reading, `${title}, as imported`)) paragraph(doc, p);
    doc.moveDown(0.5);
    for (const line of legend(reading.markings)) {
      doc
        .font('italic')
        .fontSize(TEXT - 1)
        .text(`${line.sign}: `, { continued: true, lineGap: LINE_GAP });
      doc.font('roman').text(line.meaning);
    }
    doc.addPage();
  }
  music(doc, input, blocks);
  if (settings.variant === 'study') {
    const entries = commentary(score, reading, input.proposals);
    if (entries.length) {
      doc.addPage();
      outline(doc, 'Commentary');
      heading(doc, 'Commentary');
      for (const e of entries) {
        // A bar's name does not stand alone at the foot of a page.
        if (doc.y > doc.page.height - MARGIN - FOOT - 4 * TEXT) doc.addPage();
        doc.font('bold').fontSize(TEXT).fillColor('black').text(e.bar, { lineGap: LINE_GAP });
        for (const b of e.written) paragraph(doc, `${b.to ? `To ${b.to}: ` : ''}${b.text}`);
        for (const l of e.lines) {
          doc.font('italic').fontSize(TEXT).text(`${l.what}. `, { continued: true, lineGap: LINE_GAP });
          doc.font('roman').text(l.because + (l.remark ? ` To the player: ${l.remark}` : ''));
        }
        doc.fillColor(MUTED);
        for (const t of e.notTaken)
          doc
            .font('roman')
            .fontSize(TEXT - 1)
            .text(t, { lineGap: LINE_GAP });
        doc.fillColor('black').moveDown(0.5);
      }
    }
  }
  foot(doc, title);
  doc.end();
  await done;
  return Uint8Array.from(Buffer.concat(parts));
}

type Doc = InstanceType<typeof PDFDocument>;

const outline = (doc: Doc, name: string): void => void doc.outline.addItem(name);
const heading = (doc: Doc, text: string): void => void doc.font('bold').fontSize(14).fillColor('black').text(text).moveDown(0.3);
const paragraph = (doc: Doc, text: string): void =>
  void doc.font('roman').fontSize(TEXT).fillColor('black').text(text, { lineGap: LINE_GAP, paragraphGap: 4 });

function head(doc: Doc, { title, composer, instrument }: PdfInput): void {
  doc.font('bold').fontSize(20).text(title, { align: 'center' });
  if (composer) doc.font('italic').fontSize(12).text(composer, { align: 'center' });
  if (instrument) doc.font('roman').fontSize(10).fillColor(MUTED).text(instrument, { align: 'center' });
  doc.fillColor('black').moveDown(1);
}

function music(doc: Doc, { score, facts }: PdfInput, blocks: Awaited<ReturnType<typeof engraveSystems>>['blocks']): void {
  const top = doc.y;
  const bottom = doc.page.height - MARGIN - FOOT;
  // What is taller than a page (a large score) is made smaller until it fits.
  const room = bottom - MARGIN;
  const scales = blocks.map((b) => Math.min(1, room / b.height));
  const placed = fillPages(
    blocks.map((b, k) => b.height * scales[k]),
    bottom - top,
    room,
    BETWEEN_SYSTEMS
  );
  const root = doc.outline.addItem('Music');
  let page = 0;
  let named = 0;
  for (const p of placed) {
    if (p.page > page) {
      doc.addPage();
      page = p.page;
    }
    const block = blocks[p.block];
    for (; named < facts.sections.length && measureAt(score, facts.sections[named].start).index < block.to; named++) {
      const section = facts.sections[named];
      root.addItem(`${section.label}, ${barLabel(score.measures, measureAt(score, section.start))}`);
    }
    drawSvg(doc, block.svg, MARGIN, (page === 0 ? top : MARGIN) + p.y, {
      width: block.width * scales[p.block],
      height: block.height * scales[p.block],
      preserveAspectRatio: 'xMinYMin meet',
      fontCallback: (family: string, bold: boolean, italic: boolean) =>
        /Leipzig|Bravura/.test(family) ? 'music' : bold ? (italic ? 'bolditalic' : 'bold') : italic ? 'italic' : 'roman'
    });
  }
}

function foot(doc: Doc, title: string): void {
  const { start, count } = doc.bufferedPageRange();
  for (let k = start; k < start + count; k++) {
    doc.switchToPage(k);
    const y = doc.page.height - MARGIN;
    doc.page.margins.bottom = 0;
    doc.font('roman').fontSize(9).fillColor(MUTED);
    doc.text(title, MARGIN, y, { lineBreak: false });
    doc.text(`${k + 1} of ${count}`, MARGIN, y, { width: doc.page.width - 2 * MARGIN, align: 'right', lineBreak: false });
  }
}
