import { strToU8, zipSync } from 'fflate';
import type { Facts } from '../../../core/analysis/facts.ts';
import { chunkWriter } from '../../../core/edition/chunk.ts';
import { editionMeiFile } from '../../../core/edition/mei-file.ts';
import { editionMusicXml } from '../../../core/edition/musicxml.ts';
import { openEdition, type EditionNames } from '../../../core/edition/open-edition.ts';
import type { Page } from '../../../core/edition/pages/page.ts';
import { pageSvg } from '../../../core/edition/pages/page-svg.ts';
import { textAsHtml, textAsMarkdown } from '../../../core/edition/text/formats.ts';
import { after, before } from '../../../core/edition/text/parts.ts';
import { midiFile } from '../../../core/performance/midi.ts';
import { openPerformance } from '../../../core/performance/open.ts';
import { perform } from '../../../core/performance/perform.ts';
import type { Reading } from '../../../core/reading/commands.ts';
import { compressed } from '../../../core/score/compressed.ts';
import { readMusicXml } from '../../../core/score/musicxml/read.ts';
import type { Format } from '../formats.ts';
import type { PageMaker } from './pages/make-pages.ts';
import type { Progress } from './tasks.ts';

/** What an edition is made of: the source, the reading, and the facts if they are known. */
export interface EditionInput {
  document: string;
  reading: Reading;
  names: EditionNames;
  facts: Facts | null;
}

/** Name of the editor in a file's header, until a studio has names of its own. */
const EDITOR = 'The instructor';

/** Makes the pages of an edition, each handed out as soon as it is full. */
export async function* pagesOf(
  { document, reading, names, facts }: EditionInput,
  progress: Progress
): AsyncGenerator<{ page: Page; maker: PageMaker }> {
  progress('reading the score');
  const { makePages } = await import('./pages/make-pages.ts');
  const opened = openEdition(readMusicXml(document), reading, names, facts);
  const maker = await makePages({ document, ...opened }, progress);
  for (const page of maker.pages) yield { page, maker };
}

async function pdf(input: EditionInput, progress: Progress): Promise<Uint8Array> {
  const { Pdf } = await import('./pages/pdf.ts');
  let file: InstanceType<typeof Pdf> | null = null;
  for await (const { page, maker } of pagesOf(input, progress)) {
    file ??= new Pdf(input.names.title, input.names.composer, maker.glyphs, maker.measure);
    await file.add(page, maker.musicFont());
  }
  return file!.finish();
}

async function svgPages(input: EditionInput, progress: Progress): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  for await (const { page, maker } of pagesOf(input, progress))
    files[`page-${String(page.number).padStart(3, '0')}.svg`] = strToU8(pageSvg(page, maker.glyphs, maker.musicFont(), input.names.title));
  return zipSync(files);
}

async function mei({ document, reading }: EditionInput): Promise<string> {
  const score = readMusicXml(document);
  const { meiOf } = await import('./engrave.ts');
  return editionMeiFile(await meiOf(chunkWriter(document, score)({ from: 0, to: score.measures.length })), score, reading.markings, EDITOR);
}

/** The text of an edition, all of it whatever the pages show. */
function text({ document, reading, names, facts }: EditionInput, write: typeof textAsHtml): string {
  const whole: Reading = { ...reading, pages: { ...reading.pages, variant: 'study' } };
  const { edition } = openEdition(readMusicXml(document), whole, names, facts);
  return write(names.title, names.composer, [...before(edition), ...after(edition)]);
}

function midi({ document, reading }: EditionInput, literal: boolean): Uint8Array {
  const score = readMusicXml(document);
  return midiFile(score, perform(openPerformance(score, reading), reading, literal));
}

/** An edition as a file. */
export async function editionFile(input: EditionInput, format: Format, progress: Progress): Promise<Uint8Array | string> {
  const xml = (): string => editionMusicXml(input.document, readMusicXml(input.document), input.reading.markings);
  switch (format) {
    case 'pdf':
      return pdf(input, progress);
    case 'svg.zip':
      return svgPages(input, progress);
    case 'musicxml':
      return xml();
    case 'mxl':
      return compressed(xml());
    case 'mei':
      return mei(input);
    case 'md':
      return text(input, textAsMarkdown);
    case 'html':
      return text(input, textAsHtml);
    default:
      return midi(input, format === 'literal.mid');
  }
}
