import type { SourceKey } from './bibliography.ts';

/** Counts a minute of a unit in quarters; null where it is counted in the beat of its meter. A first orientation, from memory. */
export interface DanceTempo {
  unit: number | null;
  low: number;
  high: number;
}

/**
 * What a dance's name asks of the player. Handbook 3.7: common practice, the French ones after Quantz 1752, XVII.vii, from
 * memory; polonaise, hornpipe and the wording are from memory, too.
 */
export interface Dance {
  name: string;
  pattern: RegExp;
  tempo: DanceTempo | null;
  character: string;
  sources: readonly SourceKey[];
}

const dance = (name: string, pattern: RegExp, tempo: DanceTempo | null, character: string, ...sources: SourceKey[]): Dance => ({
  name,
  pattern,
  tempo,
  character,
  sources: sources.length ? sources : ['common']
});

const DANCES: readonly Dance[] = [
  dance(
    'Gigue',
    /\b(gigue|giga|jig)\b/i,
    { unit: 1.5, low: 100, high: 126 },
    'light and springing in compound time, felt in two or in four',
    'quantz'
  ),
  dance('Corrente', /\b(corrente)\b/i, { unit: 1, low: 116, high: 144 }, 'running evenly in three, carried by its harmony from bar to bar'),
  dance(
    'Courante',
    /\b(courante)\b/i,
    { unit: 2, low: 60, high: 76 },
    'broad and grave in 3/2, its beats regrouping in two and three',
    'quantz'
  ),
  dance(
    'Sarabande',
    /\b(sarabande|sarabanda)\b/i,
    { unit: 1, low: 60, high: 76 },
    'slow in three with weight on the second beat',
    'quantz'
  ),
  dance('Allemande', /\b(allemande|allemanda)\b/i, { unit: 1, low: 66, high: 84 }, 'even and flowing after a short upbeat'),
  dance(
    'Minuet',
    /\b(minuet|menuet|menuetto|minuetto)\b/i,
    { unit: 1, low: 108, high: 138 },
    'in steps of one bar or two, the first beat lifted into',
    'quantz'
  ),
  dance('Gavotte', /\b(gavotte|gavotta)\b/i, { unit: 2, low: 60, high: 76 }, 'poised, with an upbeat of half a bar', 'quantz'),
  dance('Bourrée', /\b(bourr[ée]e)\b/i, { unit: 2, low: 76, high: 92 }, 'quick in two, with an upbeat of a quarter', 'quantz'),
  dance(
    'Siciliana',
    /\b(sicilian[ao]|sicilienne)\b/i,
    { unit: 1.5, low: 40, high: 50 },
    'rocking in dotted threes, never sharpened into a march'
  ),
  dance('Waltz', /\b(waltz|valse|walzer)\b/i, { unit: 1, low: 144, high: 184 }, 'one impulse a bar, the third beat light'),
  dance('Mazurka', /\b(mazurka)\b/i, { unit: 1, low: 120, high: 152 }, 'in three with weight on the second or third beat'),
  dance('Polonaise', /\b(polonaise|polacca)\b/i, { unit: 1, low: 84, high: 100 }, 'proud in three, the cadence on the last two beats'),
  dance(
    'Funeral march',
    /\b(fun[eè]bre|funeral|trauermarsch)\b/i,
    { unit: null, low: 52, high: 66 },
    'heavy and even, every step the same'
  ),
  dance('March', /\b(march|marche|marcia|marsch)\b/i, { unit: null, low: 104, high: 120 }, 'steady in two, the step never hurried'),
  dance('Hornpipe', /\b(hornpipe)\b/i, null, 'firm on every beat, the syncopations against it'),
  dance('Reel', /\b(reel)\b/i, { unit: 2, low: 100, high: 116 }, 'driving in two, the off-beats light'),
  dance('Strathspey', /\b(strathspey)\b/i, { unit: 1, low: 112, high: 126 }, 'dotted in four, the short notes snapped and exact'),
  dance(
    'Barcarolle',
    /\b(barcarol(le|a)|gondellied)\b/i,
    { unit: 1.5, low: 54, high: 66 },
    'rocking in wide compound bars, the bass carrying'
  )
];

/** The dance that a title names; null where it names none. */
export const danceOf = (title: string): Dance | null => DANCES.find((d) => d.pattern.test(title)) ?? null;
