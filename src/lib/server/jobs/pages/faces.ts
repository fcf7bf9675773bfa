import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { once } from '../../../../core/once.ts';
import type { Face, Measure } from '../../../../core/edition/pages/page.ts';

const require = createRequire(import.meta.url);
const font = (name: string): Buffer => readFileSync(require.resolve(`@expo-google-fonts/tinos/${name}.ttf`));

/** The faces of the text, as TrueType. */
const FACES: Record<Face, Buffer> = {
  roman: font('400Regular/Tinos_400Regular'),
  italic: font('400Regular_Italic/Tinos_400Regular_Italic'),
  bold: font('700Bold/Tinos_700Bold'),
  bolditalic: font('700Bold_Italic/Tinos_700Bold_Italic')
};

/** Signs that the text face lacks, in words or in signs that it has. */
const STAND_INS: Record<string, string> = { '♩': 'quarter', '♪': 'eighth', '♭': 'b', '♮': '-natural', '⌜': '[', '⌝': ']', '△': '▲' };
const LACKING = new RegExp(`[${Object.keys(STAND_INS).join('')}]`, 'g');

/** Text as the face can show it. */
export const printable = (text: string): string => text.replace(LACKING, (c) => STAND_INS[c]);

/** Size at which widths are measured once; they grow evenly with it. */
const MEASURED = 100;

export type Doc = InstanceType<typeof PDFDocument>;

/** An empty document that has the faces and no other: one that is set from the start would be read again at every use. */
export function documentWithFaces(options: PDFKit.PDFDocumentOptions = {}): Doc {
  const doc = new PDFDocument({ ...options, font: '' });
  for (const [name, bytes] of Object.entries(FACES)) doc.registerFont(name, bytes);
  return doc;
}

const measuring = once(documentWithFaces);
const known = new Map<string, number>();

/** Widths of text in the faces, in points; signs of the music font are about half as wide as their size. */
export const measure: Measure = (text, face, size) => {
  if (face === 'music') return 0.5 * size * text.length;
  const key = `${face}|${text}`;
  let width = known.get(key);
  if (width === undefined) {
    width = measuring().font(face).fontSize(MEASURED).widthOfString(printable(text));
    known.set(key, width);
  }
  return (width * size) / MEASURED;
};

/** Opens the faces and the outlines of the usual letters, which takes longer than measuring a page of text with them. */
export function openFaces(): void {
  const letters = String.fromCodePoint(...Array.from({ length: 0x7f - 0x20 }, (_, k) => 0x20 + k));
  for (const face of Object.keys(FACES) as Face[]) measure(letters, face, MEASURED);
}
