import type { Facts } from '../../core/analysis/facts.ts';
import type { Survey } from '../../core/survey/survey.ts';

/** What is worked out about a source once and stored. */
export interface StoredStudy {
  facts: Facts;
  survey: Survey;
}

/** The same as it is sent: the facts stay text, for those of a long piece are read from JSON in one go. */
export interface SentStudy {
  facts: string;
  survey: Survey;
}

/** What came of a file: its document, what stands on the shelf, and the first study. */
export interface Intake extends StoredStudy {
  document: string;
  format: 'musicxml' | 'abc';
  title: string;
  composer: string;
  instrument: string;
  bars: number;
  parts: number;
}
