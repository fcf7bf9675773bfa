import { fifthsName, fifthsPc } from '../score/pitch.ts';
import { HARMONY } from '../style/harmony-weights.ts';
import { TEMPERLEY } from '../style/key-profiles.ts';

/** A major or minor key; the tonic on the line of fifths (C = 0). */
export interface Key {
  readonly tonic: number;
  readonly minor: boolean;
}

export const keyName = (key: Key): string => `${fifthsName(key.tonic)} ${key.minor ? 'minor' : 'major'}`;

/** Signature of a key in sharps (positive) or flats (negative). */
export const keySignature = (key: Key): number => (key.minor ? key.tonic - 3 : key.tonic);

/** Reads "F# minor", "Bb major"; null when it is no key. */
export function parseKey(text: string): Key | null {
  const match = /^([A-G])(##|bb|#|b)?\s+(major|minor)$/.exec(text.trim());
  if (!match) return null;
  const alter = match[2] ? (match[2][0] === '#' ? match[2].length : -match[2].length) : 0;
  return { tonic: { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 }[match[1]]! + 7 * alter, minor: match[3] === 'minor' };
}

export const sameKey = (a: Key, b: Key): boolean => a.tonic === b.tonic && a.minor === b.minor;

/** Steps around the circle of fifths between two keys, a change of mode on one tonic counting as one. */
export function keyDistance(a: Key, b: Key): number {
  const direct = Math.abs(keySignature(a) - keySignature(b)) + (a.minor === b.minor ? 0 : 0.5);
  const parallel = a.tonic === b.tonic && a.minor !== b.minor ? 1 : Infinity;
  return Math.min(direct, parallel);
}

/** Mean profile weight is taken off, so that neutral notes count nothing. */
const centred = (profile: readonly number[]): number[] => {
  const mean = profile.reduce((a, b) => a + b, 0) / profile.length;
  return profile.map((v) => (v - mean) / 1.5);
};
const MAJOR = centred(TEMPERLEY.major);
const MINOR = centred(TEMPERLEY.minor);
const NATURAL_SEVENTH = MINOR[10] + HARMONY.naturalSeventh / 1.5;
/** A spelling that the key does not use weighs like a foreign note, though it sounds like a scale note. */
const FOREIGN_SPELLING = Math.min(...MAJOR);

/** How well a spelled note fits a key, roughly -1 to 1.4. */
export function profileWeight(key: Key, fifths: number): number {
  const relative = fifths - key.tonic;
  const [low, high] = key.minor ? [-5, 6] : [-4, 7];
  // The published profile counts the raised seventh; the natural one is as much at home in falling lines.
  if (key.minor && relative === -2) return NATURAL_SEVENTH;
  const weights = key.minor ? MINOR : MAJOR;
  if (relative < low || relative > high) return FOREIGN_SPELLING;
  return weights[fifthsPc(relative)];
}

/** All keys whose signature lies within `reach` of one of the given signatures. */
export function keysNear(signatures: readonly number[], reach: number): Key[] {
  const keys: Key[] = [];
  const low = Math.min(...signatures) - reach;
  const high = Math.max(...signatures) + reach;
  for (let s = low; s <= high; s++) {
    keys.push({ tonic: s, minor: false }, { tonic: s + 3, minor: true });
  }
  return keys;
}
