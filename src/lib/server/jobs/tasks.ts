import { analyse } from '../../../core/analysis/analyse.ts';
import type { Facts } from '../../../core/analysis/facts.ts';
import { chunkWriter } from '../../../core/edition/chunk.ts';
import { editionMeiFile } from '../../../core/edition/mei-file.ts';
import { editionMusicXml } from '../../../core/edition/musicxml.ts';
import { midiFile } from '../../../core/performance/midi.ts';
import { openPerformance } from '../../../core/performance/open.ts';
import { perform } from '../../../core/performance/perform.ts';
import { styleOf, type Reading } from '../../../core/reading/commands.ts';
import { propose } from '../../../core/reading/propose.ts';
import type { PdfInput } from './pdf/edition-pdf.ts';
import type { Marking } from '../../../core/reading/markings.ts';
import { excerptDocument } from '../../../core/score/excerpt.ts';
import { openScore } from '../../../core/score/open.ts';
import { readMusicXml } from '../../../core/score/musicxml/read.ts';
import { survey, type Survey } from '../../../core/survey/survey.ts';

/** What came of a file: its document, what stands on the shelf, and the first study. */
export interface Intake {
  document: string;
  format: 'musicxml' | 'abc';
  title: string;
  composer: string;
  instrument: string;
  bars: number;
  facts: Facts;
  survey: Survey;
}

export type Progress = (stage: string) => void;

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

  excerpt({ document, from, to }: { document: string; from: number; to: number }, progress: Progress): Intake {
    const text = excerptDocument(document, readMusicXml(document), { from, to });
    return TASKS.intake({ bytes: new TextEncoder().encode(text), fileName: 'excerpt.musicxml' }, progress);
  },

  study({ document }: { document: string }, progress: Progress): { facts: Facts; survey: Survey } {
    progress('reading the score');
    const score = readMusicXml(document);
    progress('finding keys, chords and phrases');
    const facts = analyse(score);
    return { facts, survey: survey(score, facts) };
  },

  edition({ document, markings }: { document: string; markings: Marking[] }): string {
    return editionMusicXml(document, readMusicXml(document), markings);
  },

  /** A Standard MIDI File of a reading, or of the page to the letter. */
  midi({ document, reading, literal }: { document: string; reading: Reading; literal: boolean }): Uint8Array {
    const score = readMusicXml(document);
    return midiFile(score, perform(openPerformance(score, reading), reading, literal));
  },

  /** The edition as a PDF. */
  async pdf(
    { document, reading, title, composer, instrument, settings }: Omit<PdfInput, 'score' | 'facts' | 'proposals'>,
    progress: Progress
  ): Promise<Uint8Array> {
    progress('reading the score');
    const score = readMusicXml(document);
    const { facts, details } = openPerformance(score, reading);
    const proposals = propose(score, facts, { ...styleOf(reading), details }, reading.part);
    const { editionPdf } = await import('./pdf/edition-pdf.ts');
    return editionPdf({ document, score, facts, reading, proposals, title, composer, instrument, settings }, progress);
  },

  async mei({ document, markings, editor }: { document: string; markings: Marking[]; editor: string }): Promise<string> {
    const score = readMusicXml(document);
    const { meiOf } = await import('./engrave.ts');
    const mei = await meiOf(chunkWriter(document, score)({ from: 0, to: score.measures.length }));
    return editionMeiFile(mei, score, markings, editor);
  }
};

export type TaskName = keyof typeof TASKS;
export type TaskInput<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type TaskResult<T extends TaskName> = Awaited<ReturnType<(typeof TASKS)[T]>>;
