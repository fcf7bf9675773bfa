import { fifthsOf, stepOf } from './pitch.ts';

/** Kinds of chords that a symbol can state, with what colours them (ninths, sixths, suspensions) folded in. */
export type SymbolKind = 'maj' | 'min' | 'dim' | 'aug' | 'dom7' | 'maj7' | 'min7' | 'hdim7' | 'dim7';

/** A chord symbol as read: root and bass on the line of fifths (C = 0). */
export interface ChordSymbol {
  root: number;
  kind: SymbolKind;
  bass: number;
}

/** Values of MusicXML's <kind> (kind-value, MusicXML 4.0); what is not here is read from the text. */
const KINDS: Record<string, SymbolKind | null> = {
  major: 'maj',
  minor: 'min',
  augmented: 'aug',
  diminished: 'dim',
  dominant: 'dom7',
  'major-seventh': 'maj7',
  'minor-seventh': 'min7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': 'dom7',
  'half-diminished': 'hdim7',
  'major-minor': 'min',
  'major-sixth': 'maj',
  'minor-sixth': 'min',
  'dominant-ninth': 'dom7',
  'major-ninth': 'maj7',
  'minor-ninth': 'min7',
  'dominant-11th': 'dom7',
  'major-11th': 'maj7',
  'minor-11th': 'min7',
  'dominant-13th': 'dom7',
  'major-13th': 'maj7',
  'minor-13th': 'min7',
  'suspended-second': 'maj',
  'suspended-fourth': 'maj',
  power: 'maj',
  pedal: null,
  none: null
};

/** What stands after the root, in the spellings of lead sheets, the first that fits; common practice. */
const TEXTS: [RegExp, SymbolKind][] = [
  [/^(ø|Ø|half)/, 'hdim7'],
  [/^(m|mi|min|-)7?[(-]?(b|♭|-)5/, 'hdim7'],
  [/^(m|mi|min|-)[(/]?(maj|ma|M|Δ|△)/, 'min'],
  [/^(m|mi|min|-)(6|69|add)/, 'min'],
  [/^(m|mi|min|-)(7|9|11|13)/, 'min7'],
  [/^(maj|major|ma|M|j)[(]?(7|9|11|13)|^[Δ△^]/, 'maj7'],
  [/^(maj|major|ma|M)/, 'maj'],
  [/^(m|mi|min|minor|-)/, 'min'],
  [/^(dim|o|°)7/, 'dim7'],
  [/^(dim|o|°)/, 'dim'],
  [/^(aug|\+)7/, 'dom7'],
  [/^(aug|\+)/, 'aug'],
  [/^(7|9|11|13)/, 'dom7'],
  [/^(6|69|add|2|4|5|sus|\(|$)/, 'maj']
];

const place = (letter: string, signs: string): number =>
  fifthsOf({ step: stepOf(letter), alter: [...signs].reduce((sum, s) => sum + (s === '#' || s === '♯' ? 1 : -1), 0), octave: 4 });

/**
 * Reads a chord symbol: "Dm7", "B♭maj7/D", "F#ø".
 * @param kind value of MusicXML's <kind>, where the file has one; it outweighs the text
 * @returns null where the text states no chord ("N.C.", words)
 */
export function readChordSymbol(text: string, kind?: string): ChordSymbol | null {
  const match = /^([A-G])([#b♯♭]{0,2})([^/]*)(?:\/([A-G])([#b♯♭]{0,2}))?/.exec(text.trim());
  if (!match) return null;
  const root = place(match[1], match[2]);
  const stated = kind === undefined || !(kind in KINDS) ? TEXTS.find(([pattern]) => pattern.test(match[3].trim()))?.[1] : KINDS[kind];
  if (!stated) return null;
  return { root, kind: stated, bass: match[4] ? place(match[4], match[5]) : root };
}
