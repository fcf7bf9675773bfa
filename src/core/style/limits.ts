/** How much of something is kept at most. Set by hand. */
export const LIMITS = {
  /** Lines of one's own on the card for the stand. */
  toRemember: 5,
  /** Bars from which a brief is a summary, and chords that it names by how often they come. */
  briefBars: 8,
  briefChords: 5,
  /** Seconds of a recording: ten hours. */
  recording: 36_000,
  /** Acts done together in one. */
  together: 2000,
  /** Acts sent at once, and all together, those inside others counted too. */
  acts: 500,
  actsInAll: 4000,
  /** Records and lists in what is sent at once, those inside others counted too: a draft of a thousand bars has about 16,000. */
  records: 40_000,
  /** Players of a studio. */
  players: 500,
  /** Plans of practice of a studio. */
  plans: 1000,
  /** How far undo reaches back, in acts. */
  undo: 500,
  /** Days for which a piece lies in the bin. */
  binDays: 30,
  /** How deep records in each other are sent at most: a preface needs about twenty. */
  depth: 60
} as const;
