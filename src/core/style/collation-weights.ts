/** How bars of two sources are told to be the same; set by hand, adjustable. */
export const BARS = {
  /** Shares of notes that agree in moment and height, in moment alone, in height alone. */
  both: 0.5,
  moments: 0.25,
  heights: 0.25,
  /** Cost of a bar that one source lacks; two bars without anything in common cost 1. */
  missing: 0.55,
  /** Bars on either side of the diagonal that are compared. */
  band: 64
} as const;

/** How parts of two sources are told to be the same where their names do not say it; set by hand, adjustable. */
export const PARTS = {
  /** Share of notes that agree in moment of the bar and height, under which two parts are not the same. */
  least: 0.35
} as const;
