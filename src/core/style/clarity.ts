/** Shortest sound or silence that is heard as such, in seconds; from memory, adjustable. Handbook 6.3. */
const LEAST_SECONDS = 0.07;

/** Seconds that a detached note of `value` quarters and a sounding share sounds and is silent at a tempo in quarters a minute. */
export const soundAndSilence = (value: number, share: number, tempo: number): { sound: number; silence: number } => ({
  sound: (60 * value * share) / tempo,
  silence: (60 * value * (1 - share)) / tempo
});

/** The tempo in quarters a minute at which the shorter of sound and silence meets the limit. */
export const clarityCeiling = (value: number, share: number, least = LEAST_SECONDS): number =>
  (60 * value * Math.min(share, 1 - share)) / least;
