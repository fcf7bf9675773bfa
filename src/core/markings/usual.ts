import { cmp } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import type { Placed } from './description.ts';

/** What most kinds say alike; a kind says otherwise where it is otherwise. */

/** "tempo word poco rit.", "hairpin crescendo"; "comma" where name and value are one. */
export const withName =
  (name: string) =>
  (value: string): string =>
    value === name ? name : `${name} ${value.replace(/-/g, ' ')}`;

/** One place has one of this kind. */
export const atOnePlace = (m: Placed, other: Placed): boolean => cmp(m.start, other.start) === 0;

/** Words on different matters may stand side by side; the same ones at one place are said twice. */
export const sameWords = (m: Placed, other: Placed): boolean => m.value === other.value && atOnePlace(m, other);

/** Nothing that is printed says the opposite of it. */
export const neverAgainstPrint = (): null => null;

export const noteOf = (score: Score, m: Placed): Note | undefined =>
  m.note === undefined ? undefined : score.notes.find((n) => n.id === m.note);

/** The legend's line for signs that would look like printed ones without their brackets. */
export const IN_BRACKETS = {
  sign: '[>] [–] [·]',
  meaning: 'editorial accents, articulation and fermatas, in square brackets'
};

/** Words that may be anything. */
export const anyWords = (hint: string) => ({ hint, most: 200, fault: () => null });

/** Words as an italic direction in MusicXML. */
export const wordsXml = (value: string): string => `<words font-style="italic">${escapeXml(value)}</words>`;
