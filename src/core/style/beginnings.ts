import type { Period } from './profiles.ts';

/** Whole words, one or several, whatever letters they begin with: “étude” begins with one that is no letter to a plain pattern. */
const whole = (words: string): RegExp => new RegExp(`(?<!\\p{L})(${words})s?(?!\\p{L})`, 'iu');

/** Years from a birth to the middle of a working life; from memory. */
export const WORKING_YEARS = 35;

/** Until which year a piece belongs to a period, the usual limits of histories of music; from memory. */
export const PERIODS_BY_YEAR: readonly (readonly [until: number, period: Period])[] = [
  [1755, 'baroque'],
  [1822, 'classical'],
  [1905, 'romantic'],
  [2100, 'modern']
];

/** How much each kind of evidence counts against the others; by hand. */
export const GUESS = {
  year: 5,
  dance: 2,
  language: 1.5,
  pipes: 4,
  hairpins: 1,
  /** Hairpins a bar that are many. */
  manyHairpins: 1 / 6,
  bare: 0.8
};

/** Periods for which the language of the words on a page speaks. Common usage, from memory. */
export const LANGUAGE_OF_PERIOD: readonly (readonly [language: 'German' | 'French', period: Period])[] = [
  ['German', 'romantic'],
  ['French', 'french-1900']
];

/** The notes of the Highland pipes as they are written. Handbook 9.5. */
export const CHANTER: readonly string[] = ['G4', 'A4', 'B4', 'C#5', 'D5', 'E5', 'F#5', 'G5', 'A5'];

/** Dances of the suite. */
export const SUITE_DANCES = whole(
  'allemand[ea]|courante|corrente|saraband[ea]|gavott[ea]|bourr[ée]e|minuet\\p{L}*|menuet\\p{L}*|gigue|passepied|rigaudon'
);

/** Names of genres and words on the page with the period for which they speak, and how much. Common usage, from memory. */
export const WORDS_OF_PERIOD: readonly (readonly [pattern: RegExp, period: Period, weight: number])[] = [
  [whole('swing|blues|shuffle|bossa'), 'swing', 4],
  [whole('strathspey|pibroch|pi[òo]baireachd|pipe march|retreat march'), 'highland-pipes', 4],
  [whole('toccata|passacaglia|chaconne|ricercar\\p{L}*|invention|two-part|suite|ordre'), 'baroque', 2],
  [whole('sonatin[ae]|rondo|divertimento|serenade'), 'classical', 1.5],
  [whole('[ée]tude|nocturne|romance|ballade|mazurka|barcarolle|intermezzo|lied|song without words|elegy|waltz|valse'), 'romantic', 2],
  [whole('pr[ée]lude pour|gymnop[ée]die|arabesque|morceau|[ée]l[ée]gie'), 'french-1900', 2]
];
