import { strToU8, zipSync } from 'fflate';
import { withoutCountedIds } from '../../../core/collation/chosen.ts';
import { chunkWriter } from '../../../core/edition/chunk.ts';
import type { SourceMei } from '../../../core/edition/apparatus.ts';
import { fittingOssias } from '../../../core/reading/ossia.ts';
import { editionMeiFile } from '../../../core/edition/mei-file.ts';
import { withOssiaParts } from '../../../core/edition/ossia-musicxml.ts';
import { editionMusicXml } from '../../../core/edition/musicxml.ts';
import { chosenText, openEdition, type EditionInput } from '../../../core/edition/open-edition.ts';
import type { Page } from '../../../core/edition/pages/page.ts';
import { pageSvg } from '../../../core/edition/pages/page-svg.ts';
import { textAsHtml, textAsMarkdown } from '../../../core/edition/text/formats.ts';
import { after, before } from '../../../core/edition/text/parts.ts';
import { midiFile } from '../../../core/performance/midi.ts';
import { playableScore } from '../../../core/performance/playable-score.ts';
import { studyOf } from '../../../core/analysis/study.ts';
import { perform } from '../../../core/performance/perform.ts';
import { fitted } from '../../../core/reading/fitted.ts';
import type { Reading } from '../../../core/reading/reading.ts';
import { compressed } from '../../../core/score/compressed.ts';
import type { Score } from '../../../core/score/model.ts';
import { readMusicXml } from '../../../core/score/musicxml/read.ts';
import type { Format } from '../formats.ts';
import type { PageMaker } from './pages/make-pages.ts';
import type { Progress } from './progress.ts';
import { TEXTS } from './texts.ts';

/** Name of the editor in a file's header, until a studio has names of its own. */
const EDITOR = 'The instructor';

/** Makes the pages of an edition, each handed out as soon as it is full. */
export async function* pagesOf(input: EditionInput, progress: Progress): AsyncGenerator<{ page: Page; maker: PageMaker }> {
  progress('reading the score');
  const { makePages } = await import('./pages/make-pages.ts');
  const maker = makePages(openEdition(input, TEXTS), progress);
  for await (const page of maker.pages) yield { page, maker };
}

async function pdf(input: EditionInput, progress: Progress): Promise<Uint8Array> {
  const { Pdf } = await import('./pages/pdf.ts');
  let file: InstanceType<typeof Pdf> | null = null;
  for await (const { page, maker } of pagesOf(input, progress)) {
    file ??= new Pdf(input.names.title, input.names.composer, maker.glyphs);
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

async function mei(input: EditionInput): Promise<string> {
  const { meiOf, openTool } = await import('./pages/engraver.ts');
  const whole = (document: string, score: Score) => meiOf(chunkWriter(document, score)({ from: 0, to: score.measures.length }));
  const { document, score, collations } = chosenText(input, TEXTS);
  const sources: SourceMei[] = [];
  for (const c of collations) sources.push({ ...c, mei: await whole(c.document, c.score) });
  const base = readMusicXml(input.document);
  const { reading } = openEdition(input, TEXTS).edition;
  const frame = { measures: score.measures, parts: score.parts };
  const printed = fittingOssias(score, reading.ossias).filter((o) => o.printed);
  const ossias = (await openTool()).ossias(printed, frame);
  return editionMeiFile(await whole(document, score), score, reading.markings, ossias, EDITOR, {
    name: input.names.source,
    score: base,
    mei: collations.length ? await whole(input.document, base) : '',
    others: sources,
    choices: reading.sourceChoices
  });
}

/** The text of an edition, all of it whatever the pages show. */
export function wholeText(input: EditionInput, write: typeof textAsHtml = textAsHtml): string {
  const whole: Reading = { ...input.reading, pages: { ...input.reading.pages, variant: 'study' } };
  const { edition } = openEdition({ ...input, reading: whole }, TEXTS);
  return write(edition.title, edition.composer, [...before(edition), ...after(edition)]);
}

function midi(input: EditionInput, literal: boolean): Uint8Array {
  const { score } = chosenText(input, TEXTS);
  const { reading } = fitted(input.reading, score);
  const { pins, part, instruments } = reading;
  return midiFile(score, perform(playableScore(studyOf(score, pins), part, instruments), reading, literal));
}

/** An edition as a file. */
export async function editionFile(input: EditionInput, format: Format, progress: Progress): Promise<Uint8Array | string> {
  const xml = (): string => {
    const { document, edition } = openEdition(input, TEXTS);
    const marked = editionMusicXml(document, edition.score, edition.reading.markings);
    const text = withOssiaParts(marked, edition.score, edition.reading.ossias);
    return document === input.document ? text : withoutCountedIds(text);
  };
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
      return wholeText(input, textAsMarkdown);
    case 'html':
      return wholeText(input, textAsHtml);
    default:
      return midi(input, format === 'literal.mid');
  }
}
