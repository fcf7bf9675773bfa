import type { ObjectSchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import type { Fraction } from '../score/fraction.ts';

/** One statement about the score: what is said, of which place and notes, and what was measured. Its words are made when it is told. */
export interface Claim {
  /** Name of its kind in CLAIMS. */
  what: string;
  part: number;
  /** Quarters from the beginning, as written: where it is said of, and how far it reaches. */
  at: Fraction;
  to?: Fraction;
  /** A place that it is compared with. */
  beside?: Fraction;
  /** Ids of the notes that it is about, in order of time. */
  notes?: string[];
  /** What was counted or measured; its kind says the unit. */
  count?: number;
  /** What is quoted: printed words, a sign, a name. */
  text?: string;
  /** Id of the fact of the analysis that it rests on. */
  fact?: string;
}

/** Notes that a claim names at most. */
export const MOST_NOTES = 1000;

/** Schema of a claim. A kind that is not known claims nothing, so that readings of other versions can be opened. */
export const claimSchema = (kit: SchemaKit): ObjectSchema =>
  kit.record(
    { what: kit.words(60), part: kit.part, at: kit.fraction },
    {
      to: kit.fraction,
      beside: kit.fraction,
      notes: kit.list(kit.key, MOST_NOTES),
      count: kit.joi.number(),
      text: kit.words(),
      fact: kit.key
    }
  );
