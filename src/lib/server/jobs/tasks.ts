import { analyse } from '../../../core/analysis/analyse.ts';
import { compareReadings } from '../../../core/edition/compare.ts';
import { chosenText, openEdition, type EditionInput } from '../../../core/edition/open-edition.ts';
import { collate, type Collation } from '../../../core/collation/collate.ts';
import { pageSvg } from '../../../core/edition/pages/page-svg.ts';
import { excerptDocument } from '../../../core/edition/excerpt.ts';
import { firstPicture, type ReadyLine } from '../../../core/edition/first-picture.ts';
import type { Facts } from '../../../core/analysis/facts.ts';
import { tunesOf, type AbcTuneText } from '../../../core/score/abc/tunes.ts';
import { joinWords } from '../../../core/rehearsal/tune-set.ts';
import { openScore } from '../../../core/score/read-file.ts';
import { readMusicXml } from '../../../core/score/musicxml/read.ts';
import { survey } from '../../../core/survey/survey.ts';
import type { Command } from '../../../core/reading/commands/index.ts';
import { advanced, type Standing } from '../../../core/reading/log.ts';
import { writtenFromAbc } from '../../../core/writing/from-abc.ts';
import { documentOf } from '../../../core/writing/to-tune.ts';
import { finished, type Written } from '../../../core/writing/written.ts';
import type { Comparison } from '../../shapes.ts';
import type { ReadArchive } from '../archive/archive.ts';
import type { Format } from '../formats.ts';
import type { Intake, StoredStudy } from '../study.ts';
import type { Progress } from './progress.ts';
import { openSource, type EditionSource } from './edition-source.ts';
import { TEXTS } from './texts.ts';
import { bookFile, type BookRequest } from './book-file.ts';
import { editionFile, pagesOf, wholeText } from './edition-file.ts';

/** Characters of a title and the like on the shelf, at most; the score keeps its own. */
const LONGEST_LINE = 200;

/** Words as one line of the shelf: without breaks and other signs that are not seen, and not longer than it takes. */
function oneLine(words: string): string {
  const line = words.replace(/[\p{Cc}\p{Cf}\s]+/gu, ' ').trim();
  return line.length > LONGEST_LINE ? `${line.slice(0, LONGEST_LINE - 1).trimEnd()}…` : line;
}

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
      title: oneLine(score.title) || oneLine(fallback) || 'Untitled',
      composer: oneLine(score.composer),
      instrument: oneLine(
        score.parts
          .map((p) => p.name)
          .filter(Boolean)
          .join(', ')
      ),
      bars: score.measures.length,
      parts: score.parts.length,
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

  /** A typed tune as the writing room has it; null where that cannot hold it whole. */
  written({ bytes, document }: { bytes: Uint8Array; document: string }): Written | null {
    return writtenFromAbc(bytes, document);
  },

  /** What was written, as the file that its piece follows from now on. */
  correction({ content, fileName }: { content: Written; fileName: string }, progress: Progress): { bytes: Uint8Array; intake: Intake } {
    const bytes = new TextEncoder().encode(documentOf(finished(content)));
    return { bytes, intake: TASKS.intake({ bytes, fileName }, progress) };
  },

  study({ document }: { document: string }, progress: Progress): StoredStudy {
    progress('reading the score');
    const score = readMusicXml(document);
    progress('finding keys, chords and phrases');
    const facts = analyse(score);
    return { facts, survey: survey(score, facts) };
  },

  /** The first systems of a source as the screen has them. */
  async picture({ document, phrases, line }: { document: string; phrases: Facts['phrases']; line: ReadyLine }): Promise<string> {
    const { openTool } = await import('./pages/engraver.ts');
    return firstPicture(await openTool(), document, readMusicXml(document), phrases, line);
  },

  /** The archive of a piece, checked: its sources are read anew from their bytes, its frozen editions are opened. */
  async archive({ bytes }: { bytes: Uint8Array }, progress: Progress): Promise<ReadArchive> {
    progress('reading the archive');
    const [{ readArchive }, { readSource }] = await Promise.all([import('../archive/read-archive.ts'), import('../archive/sources.ts')]);
    const archive = readArchive(bytes);
    const sources = archive.sources.map(readSource);
    for (const { number, content } of archive.editions) {
      progress(`edition ${number}`);
      wholeText(content);
    }
    return { ...archive, sources, study: TASKS.study({ document: sources[0].document }, progress) };
  },

  /** Copies a database's file and proves the copy. */
  async backup({ from, to }: { from: string; to: string }, progress: Progress): Promise<void> {
    progress('copying');
    const { copyDatabase } = await import('../backup/copy.ts');
    await copyDatabase(from, to);
  },

  /** Where a log stands after more commands. */
  standing({ standing, since }: { standing: Standing; since: Command[] }): Standing {
    return advanced(standing, since);
  },

  /** The pages of an edition as SVG pictures; each goes out as soon as it is full. */
  async pages(source: EditionSource, progress: Progress): Promise<{ count: number }> {
    const input = openSource(source);
    let count = 0;
    for await (const { page, maker } of pagesOf(input, progress)) {
      progress(`page ${page.number}`, pageSvg(page, maker.glyphs, maker.musicFont(), input.names.title));
      count++;
    }
    return { count };
  },

  /** What differs between two readings of one piece, and what each would sound and last; with the readings themselves. */
  compare({ a, b }: { a: EditionSource; b: EditionSource }): Comparison {
    const [one, two] = [openSource(a), openSource(b)];
    const open = (input: EditionInput) => openEdition(input, TEXTS).edition;
    const [first, second] = [open(one), open(two)];
    return { comparison: compareReadings(first.score, first, second), readings: [one.reading, two.reading] };
  },

  /** What differs between two sources of one piece. */
  collate({ document, other }: { document: string; other: string }): Collation {
    return collate(readMusicXml(document), readMusicXml(other));
  },

  /** The document of an edition that follows several sources. */
  chosen(source: EditionSource): string {
    return chosenText(openSource(source), TEXTS).document;
  },

  /** The notes of a task: whether they can be read. */
  sheet({ document }: { document: string }): number {
    return readMusicXml(document).measures.length;
  },

  /** How one tune goes into the next. */
  join({ from, to }: { from: string; to: string }): string {
    return joinWords(readMusicXml(from), readMusicXml(to));
  },

  /** A plan of practice on paper. */
  book(input: BookRequest): Promise<Uint8Array> {
    return bookFile(input);
  },

  /** An edition as a file of some format. */
  file({ source, format }: { source: EditionSource; format: Format }, progress: Progress): Promise<Uint8Array | string> {
    return editionFile(openSource(source), format, progress);
  }
};

export type TaskName = keyof typeof TASKS;
export type TaskInput<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type TaskResult<T extends TaskName> = Awaited<ReturnType<(typeof TASKS)[T]>>;
