/** How much of something is kept at most. Set by hand. */
export const LIMITS = {
  /** Lines of one's own on the card for the stand. */
  toRemember: 5,
  /** Seconds of a recording: ten hours. */
  recording: 36_000,
  /** Acts done together in one. */
  together: 2000,
  /** Acts sent at once. */
  acts: 500
} as const;
