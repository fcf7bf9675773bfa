import { openAnalysis, type Analysis } from '../analysis/analyse.ts';
import type { Facts } from '../analysis/facts.ts';
import { studyOf } from '../analysis/study.ts';
import type { SoundingScore } from '../analysis/sounding-score.ts';
import { chosenDocument, collateAll, type Collated, type OtherSource } from '../collation/chosen.ts';
import { lazily } from '../once.ts';
import { playableScore } from '../performance/playable-score.ts';
import { perform } from '../performance/perform.ts';
import { ruleContext } from '../reading/context.ts';
import { fitted } from '../reading/fitted.ts';
import { toldAnew } from '../reading/claims/anew.ts';
import { propose } from '../reading/propose.ts';
import { questionsOf } from '../reading/questions.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import type { Score } from '../score/model.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { renumbered } from '../score/numbering.ts';
import type { Edition } from './text/edition.ts';

/** What an edition is made of: its sources, the reading, its names, and the facts if they are known. */
export interface EditionInput {
  /** The document of the source that the pages follow, as it came in. */
  document: string;
  others: OtherSource[];
  reading: Reading;
  names: Pick<Edition, 'title' | 'composer' | 'instrument' | 'source'>;
  /** Of the document as it came in. */
  facts: Facts | null;
}

/** What is costly on the way to an edition and depends on its texts only: whoever makes pages again and again may remember it. */
export interface TextOpener {
  read(document: string): Score;
  collate(document: string, score: Score, others: readonly OtherSource[]): Collated[];
  /** A score with its bars numbered as the reading numbers them, opened for analysis. */
  analyse(document: string, score: Score, counted: boolean): Analysis;
}

/** Opens every text anew. */
export const OPEN_ANEW: TextOpener = {
  read: readMusicXml,
  collate: (_, score, others) => collateAll(score, others),
  analyse: (_, score, counted) => openAnalysis(counted ? renumbered(score) : score)
};

/** An edition with the text that it follows, and what is costly on the way to it. */
export interface OpenedEdition {
  /** The document with the readings of other sources that were chosen. */
  document: string;
  edition: Edition;
  sounding: () => SoundingScore;
}

/** The document that a reading is about: the source with the readings of other sources that were chosen. */
export function chosenText(
  { document, others, reading }: Pick<EditionInput, 'document' | 'others' | 'reading'>,
  texts: TextOpener = OPEN_ANEW
): { document: string; score: Score; collations: Collated[] } {
  const score = texts.read(document);
  const collations = texts.collate(document, score, others);
  const chosen = chosenDocument(document, score, collations, reading.sourceChoices);
  return { document: chosen, score: chosen === document ? score : readMusicXml(chosen), collations };
}

/**
 * Opens an edition. What is costly is worked out when a page or text asks for it, so that the first page need not wait
 * for the last.
 */
export function openEdition(input: EditionInput, texts: TextOpener = OPEN_ANEW): OpenedEdition {
  const { names } = input;
  const { document, score, collations } = chosenText(input, texts);
  const { reading, remarks } = fitted(input.reading, score);
  const stored = document === input.document && !reading.pins.length ? input.facts : null;
  const analysis = texts.analyse(document, score, reading.numbering === 'counted');
  const study = studyOf(analysis.score, reading.pins, stored, analysis);
  const style = styleOf(reading);
  const found = lazily<Pick<Edition, 'reading' | 'facts' | 'details' | 'proposals' | 'questions' | 'performance'>>({
    reading: () => ({ ...reading, markings: [...toldAnew(reading.markings, study.score, () => study.facts)] }),
    facts: () => study.facts,
    details: () => study.details,
    proposals: () => propose(study, style, reading.part),
    questions: () => questionsOf(ruleContext(study, style, reading.part), reading),
    performance: () => perform(playableScore(study, reading.part, reading.instruments), reading)
  });
  const edition: Edition = Object.assign(found, { ...names, collations, score: study.score, remarks });
  return { document, sounding: () => study.sounding, edition };
}
