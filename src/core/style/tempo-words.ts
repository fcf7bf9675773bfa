/**
 * What tempo words mean in beats a minute, from slow to fast. Ranges of common practice, from memory; makers of
 * metronomes and writers of every time differ, so they are a first orientation and adjustable.
 */
export interface TempoWord {
  pattern: RegExp;
  name: string;
  /** Beats a minute. */
  low: number;
  high: number;
}

const word = (name: string, low: number, high: number, pattern: RegExp): TempoWord => ({ name, low, high, pattern });

/** Compounds first, so that "Allegretto" is not read as "Allegro". */
export const TEMPO_WORDS: readonly TempoWord[] = [
  word('Prestissimo', 184, 208, /\bprestissimo\b/i),
  word('Presto', 160, 192, /\b(presto|très vif|sehr schnell|very fast)\b/i),
  word('Vivace', 132, 168, /\b(vivace|vivacissimo|vivo|vif|lebhaft|lively)\b/i),
  word('Allegretto', 96, 120, /\b(allegretto|etwas bewegt)\b/i),
  word('Allegro moderato', 104, 126, /\ballegro (ma )?(non troppo|moderato|non tanto|comodo|maestoso)\b/i),
  word('Allegro', 116, 152, /\b(allegro|schnell|fast|animato|animé)\b/i),
  word('Moderato', 88, 112, /\b(moderato|modéré|mäßig|mässig|moderate)\b/i),
  word('Andantino', 72, 96, /\b(andantino)\b/i),
  word('Andante', 63, 84, /\b(andante|gehend|walking)\b/i),
  word('Larghetto', 56, 72, /\b(larghetto)\b/i),
  word('Adagietto', 60, 76, /\b(adagietto)\b/i),
  word('Adagio', 48, 66, /\b(adagio|ruhig|calme)\b/i),
  word('Lento', 44, 60, /\b(lento|lent|langsam|slow|slowly)\b/i),
  word('Largo', 40, 56, /\b(largo|breit|large)\b/i),
  word('Grave', 40, 50, /\b(grave|schwer)\b/i)
];

/** Beats a minute that the words of a tempo mark suggest; null when none of them is a tempo word. */
export const tempoOfWords = (text: string): TempoWord | null => TEMPO_WORDS.find((w) => w.pattern.test(text)) ?? null;

/** Words that set a tempo by character or dance, without a range of their own. Common usage. */
const BY_CHARACTER = /\b(maestoso|bewegt|swing|march|marcia|waltz|valse|menuet\w*|minuet|tempo di \w+)\b/i;

/** Words that set a tempo until the next ones; a ritardando or an expression does not. */
export const setsATempo = (text: string): boolean => tempoOfWords(text) !== null || BY_CHARACTER.test(text);

/** The classic clockwork scale. Handbook 1.2, common practice. */
export const METRONOME_SCALE: readonly number[] = [
  40, 42, 44, 46, 48, 50, 52, 54, 56, 58, 60, 63, 66, 69, 72, 76, 80, 84, 88, 92, 96, 100, 104, 108, 112, 116, 120, 126, 132, 138, 144, 152,
  160, 168, 176, 184, 192, 200, 208
];

/** The highest rate on the scale that is not above `rate`; the lowest one for rates below the scale. */
export const onScaleBelow = (rate: number): number => METRONOME_SCALE.findLast((r) => r <= rate) ?? METRONOME_SCALE[0];

/** The rate on the scale nearest to a rate. */
export const nearestOnScale = (rate: number): number =>
  METRONOME_SCALE.reduce((best, r) => (Math.abs(r - rate) < Math.abs(best - rate) ? r : best));

/** So many clicks up (positive) or down the scale: three under 120 is 108. */
export function clicks(rate: number, by: number): number {
  const at = METRONOME_SCALE.indexOf(nearestOnScale(rate));
  return METRONOME_SCALE[Math.max(0, Math.min(METRONOME_SCALE.length - 1, at + by))];
}
