/** A term, its translation, and what it acts on: t tempo, l loudness, a articulation, c character, x technique, f form, m modifies another word. */
export type TermRow = readonly [term: string, translation: string, effects: string];

export const EFFECT_NAMES: Record<string, string> = {
  t: 'tempo',
  l: 'loudness',
  a: 'articulation',
  c: 'character',
  x: 'technique',
  f: 'form',
  m: 'modifier'
};
