import type { Period } from './profiles.ts';

/** Years from a birth to the middle of a working life; from memory. */
export const WORKING_YEARS = 35;

/** Until which year a piece belongs to a period, the usual limits of histories of music; from memory. */
export const PERIODS_BY_YEAR: readonly (readonly [until: number, period: Period])[] = [
  [1755, 'baroque'],
  [1822, 'classical'],
  [1905, 'romantic'],
  [2100, 'modern']
];

/** Dances of the suite. */
export const SUITE_DANCES =
  /\b(allemand[ea]|courante|corrente|saraband[ea]|gavott[ea]|bourr[ée]e|minuet\w*|menuet\w*|gigue|passepied|rigaudon)\b/i;

/** Names of genres and words on the page with the period for which they speak, and how much. Common usage, from memory. */
export const WORDS_OF_PERIOD: readonly (readonly [pattern: RegExp, period: Period, weight: number])[] = [
  [/\b(swing|blues|shuffle|bossa)\b/i, 'swing', 4],
  [/\b(strathspey|pibroch|pi[òo]baireachd|pipe march|retreat march)\b/i, 'highland-pipes', 4],
  [/\b(toccata|passacaglia|chaconne|ricercar\w*|invention|two-part|suite|ordre)\b/i, 'baroque', 2],
  [/\b(sonatin[ae]|rondo|divertimento|serenade)\b/i, 'classical', 1.5],
  [/\b([ée]tude|nocturne|romance|ballade|mazurka|barcarolle|intermezzo|lied|song without words|elegy|waltz|valse)\b/i, 'romantic', 2],
  [/\b(pr[ée]lude pour|gymnop[ée]die|arabesque|morceau|[ée]l[ée]gie)\b/i, 'french-1900', 2]
];
