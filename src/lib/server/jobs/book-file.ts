import { readPicture } from '../../../core/edition/pages/picture.ts';
import type { Glyphs } from '../../../core/edition/pages/page.ts';
import { PAPERS, STAFF_SIZES } from '../../../core/reading/page-settings.ts';
import { bookPages, type BookInput } from '../../../core/rehearsal/book.ts';
import { TYPE } from '../../../core/style/page-weights.ts';

/** A plan with its days and the documents of its sheets, by key. */
export type BookRequest = Omit<BookInput, 'draw'> & { sheets: Record<string, string> };

/** A plan of practice as a PDF. */
export async function bookFile({ sheets, ...input }: BookRequest): Promise<Uint8Array> {
  const [{ openEngraver }, { measure }, { Pdf }] = await Promise.all([
    import('./pages/engraver.ts'),
    import('./pages/faces.ts'),
    import('./pages/pdf.ts')
  ]);
  const glyphs: Glyphs = new Map();
  const line = (await openEngraver())(PAPERS.A4[0] - 2 * TYPE.margin, STAFF_SIZES.usual);
  const pdf = new Pdf(input.plan.title, input.player, glyphs);
  const draw: BookInput['draw'] = (sheet) =>
    sheets[sheet] ? { picture: readPicture(line.alone(sheets[sheet]), glyphs, measure), scale: line.perUnit } : null;
  for (const page of bookPages({ ...input, draw }, measure)) await pdf.add(page, line.musicFont());
  return pdf.finish();
}
