import type { Collated } from '../../collation/chosen.ts';
import type { Details } from '../../analysis/details.ts';
import type { Facts } from '../../analysis/facts.ts';
import type { Performance } from '../../performance/perform.ts';
import type { Reading } from '../../reading/reading.ts';
import type { Proposal } from '../../reading/proposal.ts';
import type { Question } from '../../reading/questions.ts';
import type { Score } from '../../score/model.ts';

/** Everything that the pages and texts of an edition are made of. */
export interface Edition {
  title: string;
  composer: string;
  instrument: string;
  /** Name of the source that the pages follow. */
  source: string;
  /** The other sources, each laid beside that one as it came in, with what was decided. */
  collations: readonly Pick<Collated, 'hash' | 'name' | 'differences'>[];
  score: Score;
  facts: Facts;
  details: Details;
  reading: Reading;
  /** What of the reading had to be left out, in sentences. */
  remarks: readonly string[];
  proposals: readonly Proposal[];
  questions: readonly Question[];
  /** The reading as it is played; with it what is said of time and length. */
  performance: Performance;
}
