/**
 * What makes a fact likely to be right: logistic regressions over one half of the test sets (tests/unit/analysis), checked on the
 * other half by a reliability table and then set a little by hand. `margin` is the logit by which the search preferred the fact to its rivals; lengths in octaves.
 */
export const CONFIDENCE = {
  chord: { constant: -0.9, margin: 1.8, quarters: 0.3, symbol: 3.9 },
  key: { constant: -4.9, margin: 0.8, bars: 1.85, dominant: 2.8, tonality: 2.3 },
  /** Evaded and deceptive closes are rare in the sets; theirs are set by hand. */
  cadence: { constant: -7.4, margin: 2.15, half: 8.2, perfect: 0.45, evaded: 7.9, deceptive: 1.5, sectionEnd: 4.3 },
  phrase: { constant: -2.9, cadence: 2.7, rest: 4.6, end: 6.5, returns: 2 },
  /** Share of foreign notes that music in a key has (agreed analyses: up to .12), and what each part beyond it takes away. */
  foreign: { usual: 0.15, loss: 3 },
  /** A margin beyond this says no more. */
  mostMargin: 5.3,
  /** Nothing that is computed is surer, or less sure, than this. */
  most: 0.98,
  least: 0.03,
  /** From where a fact is told as sure, and as likely; below it is doubtful. */
  sure: 0.85,
  likely: 0.6
} as const;
