import type { SourceKey } from './bibliography.ts';

/**
 * What a dance's name asks of the player. Handbook 3.7: common practice, the French ones after Quantz 1752, XVII.vii, from
 * memory; polonaise, hornpipe and the wording are from memory, too.
 */
export interface Dance {
  name: string;
  pattern: RegExp;
  character: string;
  sources: readonly SourceKey[];
}

const dance = (name: string, pattern: RegExp, character: string, ...sources: SourceKey[]): Dance => ({
  name,
  pattern,
  character,
  sources: sources.length ? sources : ['common']
});

const DANCES: readonly Dance[] = [
  dance('Gigue', /\b(gigue|giga|jig)\b/i, 'light and springing in compound time, felt in two or in four', 'quantz'),
  dance('Corrente', /\b(corrente)\b/i, 'running evenly in three, carried by its harmony from bar to bar'),
  dance('Courante', /\b(courante)\b/i, 'broad and grave in 3/2, its beats regrouping in two and three', 'quantz'),
  dance('Sarabande', /\b(sarabande|sarabanda)\b/i, 'slow in three with weight on the second beat', 'quantz'),
  dance('Allemande', /\b(allemande|allemanda)\b/i, 'even and flowing after a short upbeat'),
  dance('Minuet', /\b(minuet|menuet|menuetto|minuetto)\b/i, 'in steps of one bar or two, the first beat lifted into', 'quantz'),
  dance('Gavotte', /\b(gavotte|gavotta)\b/i, 'poised, with an upbeat of half a bar', 'quantz'),
  dance('Bourrée', /\b(bourr[ée]e)\b/i, 'quick in two, with an upbeat of a quarter', 'quantz'),
  dance('Siciliana', /\b(sicilian[ao]|sicilienne)\b/i, 'rocking in dotted threes, never sharpened into a march'),
  dance('Waltz', /\b(waltz|valse|walzer)\b/i, 'one impulse a bar, the third beat light'),
  dance('Mazurka', /\b(mazurka)\b/i, 'in three with weight on the second or third beat'),
  dance('Polonaise', /\b(polonaise|polacca)\b/i, 'proud in three, the cadence on the last two beats'),
  dance('March', /\b(march|marche|marcia|marsch)\b/i, 'steady in two, the step never hurried'),
  dance('Hornpipe', /\b(hornpipe)\b/i, 'firm on every beat, the syncopations against it'),
  dance('Reel', /\b(reel)\b/i, 'driving in two, the off-beats light'),
  dance('Strathspey', /\b(strathspey)\b/i, 'dotted in four, the short notes snapped and exact'),
  dance('Barcarolle', /\b(barcarol(le|a)|gondellied)\b/i, 'rocking in wide compound bars, the bass carrying')
];

/** The dance that a title names; null where it names none. */
export const danceOf = (title: string): Dance | null => DANCES.find((d) => d.pattern.test(title)) ?? null;
