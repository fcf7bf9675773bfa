import { analyse } from '../../../core/analysis/analyse.ts';
import { compareReadings, type ReadingComparison } from '../../../core/edition/compare.ts';
import { chosenText, openEdition, type EditionInput } from '../../../core/edition/open-edition.ts';
import { collate, type Collation } from '../../../core/collation/collate.ts';
import { pageSvg } from '../../../core/edition/pages/page-svg.ts';
import { excerptDocument } from '../../../core/edition/excerpt.ts';
import { tunesOf, type AbcTuneText } from '../../../core/score/abc/tunes.ts';
import { openScore } from '../../../core/score/read-file.ts';
import { readMusicXml } from '../../../core/score/musicxml/read.ts';
import { survey } from '../../../core/survey/survey.ts';
import type { Archive } from '../archive/archive.ts';
import type { Format } from '../formats.ts';
import type { Intake, StoredStudy } from '../study.ts';
import type { Progress } from './progress.ts';
import { TEXTS } from './texts.ts';
import { editionFile, pagesOf } from './edition-file.ts';

/** Work that is too heavy for the server's main thread; each runs in a worker, by name. */
export const TASKS = {
  intake({ bytes, fileName }: { bytes: Uint8Array; fileName: string }, progress: Progress): Intake {
    progress('reading the score');
    const { text, format, score } = openScore(bytes, fileName);
    progress(`finding keys, chords and phrases in ${score.measures.length} bars`);
    const facts = analyse(score);
    progress('surveying');
    const fallback = fileName.replace(/\.[^.]+$/, '');
    return {
      document: text,
      format,
      title: score.title || fallback,
      composer: score.composer,
      instrument: score.parts
        .map((p) => p.name)
        .filter(Boolean)
        .join(', '),
      bars: score.measures.length,
      facts,
      survey: survey(score, facts)
    };
  },

  /** The tunes of an ABC file, each as a text of its own; none where the file is no ABC. */
  tunes({ bytes }: { bytes: Uint8Array }): AbcTuneText[] {
    return tunesOf(bytes);
  },

  excerpt({ document, from, to }: { document: string; from: number; to: number }, progress: Progress): Intake {
    const text = excerptDocument(document, readMusicXml(document), { from, to });
    return TASKS.intake({ bytes: new TextEncoder().encode(text), fileName: 'excerpt.musicxml' }, progress);
  },

  study({ document }: { document: string }, progress: Progress): StoredStudy {
    progress('reading the score');
    const score = readMusicXml(document);
    progress('finding keys, chords and phrases');
    const facts = analyse(score);
    return { facts, survey: survey(score, facts) };
  },

  /** The archive of a piece, and the study of the source that its pages follow. */
  async archive({ bytes }: { bytes: Uint8Array }, progress: Progress): Promise<{ archive: Archive; study: StoredStudy }> {
    progress('reading the archive');
    const { readArchive } = await import('../archive/read-archive.ts');
    const archive = readArchive(bytes);
    return { archive, study: TASKS.study({ document: archive.sources[0].document }, progress) };
  },

  /** The pages of an edition as SVG pictures; each goes out as soon as it is full. */
  async pages(input: EditionInput, progress: Progress): Promise<{ count: number }> {
    let count = 0;
    for await (const { page, maker } of pagesOf(input, progress)) {
      progress(`page ${page.number}`, pageSvg(page, maker.glyphs, maker.musicFont(), input.names.title));
      count++;
    }
    return { count };
  },

  /** What differs between two readings of one piece, and what each would sound and last. */
  compare({ a, b }: { a: EditionInput; b: EditionInput }): ReadingComparison {
    const open = (input: EditionInput) => openEdition(input, TEXTS).edition;
    const [one, two] = [open(a), open(b)];
    return compareReadings(one.score, one, two);
  },

  /** What differs between two sources of one piece. */
  collate({ document, other }: { document: string; other: string }): Collation {
    return collate(readMusicXml(document), readMusicXml(other));
  },

  /** The document of an edition that follows several sources. */
  chosen(input: EditionInput): string {
    return chosenText(input, TEXTS).document;
  },

  /** An edition as a file of some format. */
  file({ input, format }: { input: EditionInput; format: Format }, progress: Progress): Promise<Uint8Array | string> {
    return editionFile(input, format, progress);
  }
};

export type TaskName = keyof typeof TASKS;
export type TaskInput<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type TaskResult<T extends TaskName> = Awaited<ReturnType<(typeof TASKS)[T]>>;
