/**
 * When two places count as the same music. Set by hand on scores with known repetitions; no published source.
 * Likeness of two beats is 0 to 1.
 */
export const LIKENESS = {
  /** Parts of a beat's likeness: its leading note, the other notes, the rhythm, the bass. */
  lead: 0.5,
  /** The leading note is there, but elsewhere in the beat. */
  leadElsewhere: 0.34,
  others: 0.2,
  rhythm: 0.15,
  bass: 0.15,
  /** A beat must be at least this alike, on average, for a place to go on. */
  goOn: 0.52,
  /** Average likeness that a whole place needs: at the same pitch, at another pitch. */
  samePitch: 0.6,
  otherPitch: 0.66,
  /**
   * Share of the leading notes that must agree, at the same pitch and at another; likeness that makes up for few different
   * notes, and for less agreement in four bars and more.
   */
  leadsAgree: 0.55,
  leadsAgreeElsewhere: 0.66,
  fewHeights: 0.8,
  longElsewhere: 0.75,
  /** Shortest places in bars, and with how many notes. */
  shortestBars: 2,
  shortestBarsElsewhere: 2,
  fewestNotes: 7,
  /** Share of leading notes at one interval within a look ahead of so many beats that makes a diagonal worth a closer look. */
  lookBeats: 8,
  lookShare: 0.5,
  /** No more places than these are kept, the longest and most alike first. */
  mostPlaces: 80,
  /** So many promising stretches get a closer look, each up to so many bars. */
  mostHints: 1500,
  mostBars: 128,
  /** Pieces of more beats than this are compared at shifts of half a bar only. */
  longPieceBeats: 1500,
  /** A stretch ends where its sum has fallen this far below its best. */
  drop: 1.6,
  /** Two places overlap when they share this much. */
  overlap: 0.6,
  /** Sections: same letter from here on, a prime from there on. */
  sameSection: 0.93,
  variedSection: 0.55,
  /** Factor on the likeness of a section at another pitch: a second strain that begins like the first in the dominant is other music. */
  sectionElsewhere: 0.75,
  /** Likeness of a return at another pitch that makes a section, and the share of two sections that known places must fill. */
  returnElsewhere: 0.72,
  knownShare: 0.55,
  /** Distance of the rhythms of four bars from those before, from which they are new material after a full close. */
  novelty: 0.4,
  /** Share of a section that counts as its opening, and how alike two openings must be to make the second a return. */
  opening: 0.34,
  sameOpening: 0.8
} as const;

/** Places that return note for note in another voice, or displaced by less than a beat. Set by hand on tests/unit/analysis/returns.ts. */
export const ECHO = {
  /** Intervals of the runs that are looked up; notes that a place must have in all. */
  run: 5,
  notes: 9,
  /** A run that comes more often than this is a figure, no theme. */
  mostHits: 16,
  /** In bars: nearest copy, widest gap within a place, shortest place. */
  shortestLag: 0.5,
  gap: 1.6,
  shortest: 1.4,
  shortestFigure: 4,
  /** Share of the notes that must belong together. */
  likeness: 0.72,
  overlap: 0.6,
  /** At most one for so many bars, but so many in any piece. */
  barsEach: 4,
  fewest: 6
} as const;

export const SEQUENCE = {
  /** Fewest units in all; lengths of a unit in beats at most. */
  fewestUnits: 3,
  longestUnitBeats: 16,
  /** Share of beats of a copy that must agree with the model. */
  agree: 0.78,
  rhythm: 0.8
} as const;
