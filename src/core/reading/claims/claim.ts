import type { Facts } from '../../analysis/facts.ts';
import type { Claim } from '../../markings/claim.ts';
import type { Score } from '../../score/model.ts';
import type { Level } from '../in-force.ts';
import type { Page } from './page.ts';

/** What claims are told from and read back from. */
export interface Ground {
  score: Score;
  facts: Facts;
  /** Levels that hold, printed and editorial. */
  levels: readonly Level[];
  page: Page;
}

/** All that there is to say about one kind of claim. */
export interface ClaimKind {
  /** The statement without its place: "a phrase ends without a rest". */
  words(claim: Claim, ground: Ground): string;
  /** Whether it can be read back from what is printed, by its definition and not by the search that made it. */
  holds(claim: Claim, ground: Ground): boolean;
  /** What it cannot be told without. */
  needs?: readonly (keyof Claim)[];
  /** Its place is told with the beat. */
  beat?: true;
  /** Its words name their place themselves. */
  placed?: true;
}
