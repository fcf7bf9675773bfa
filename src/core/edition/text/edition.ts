import type { Details } from '../../analysis/details.ts';
import type { Facts } from '../../analysis/facts.ts';
import type { Performance } from '../../performance/perform.ts';
import type { Reading } from '../../reading/commands.ts';
import type { Proposal } from '../../reading/markings.ts';
import type { Question } from '../../reading/questions.ts';
import type { Score } from '../../score/model.ts';

/** Everything that the pages and texts of an edition are made of. */
export interface Edition {
  title: string;
  composer: string;
  instrument: string;
  /** Names of the sources, the one that the pages follow first. */
  sources: string[];
  score: Score;
  facts: Facts;
  details: Details;
  reading: Reading;
  proposals: readonly Proposal[];
  questions: readonly Question[];
  /** The reading as it is played; with it what is said of time and length. */
  performance: Performance;
}
