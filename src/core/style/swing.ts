/** Numbers of swing. Friberg & Sundström, Music Perception 19(3), 2002, as commonly summarised; handbook 1.8. */
const SWING = { shortSeconds: 0.1, mostRatio: 3.5, leastRatio: 1 };

/**
 * Ratio of the long to the short eighth at a tempo in beats a minute: the short note settles near a tenth of a
 * second, so the ratio falls as the tempo rises.
 */
export function swingRatio(beatsPerMinute: number): number {
  const beat = 60 / beatsPerMinute;
  return Math.max(SWING.leastRatio, Math.min(SWING.mostRatio, (beat - SWING.shortSeconds) / SWING.shortSeconds));
}
