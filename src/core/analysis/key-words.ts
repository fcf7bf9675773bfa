import { fifthsName, type Interval } from '../score/pitch.ts';
import { signatureShift } from '../score/transposition.ts';
import type { KeyFact } from './facts.ts';
import { keyName, type Key } from './keys.ts';
import type { Tonality } from './tonality.ts';
import { inSigns } from './words.ts';

type Told = Pick<KeyFact, 'key' | 'tonality'>;

/** A key as musicians name it: "F♯ minor", "D dorian", "blues in F", "F major, on five notes", "no key". */
export const keyWords = (key: Key, tonality?: Tonality): string => inSigns(plainWords(key, tonality));

function plainWords(key: Key, tonality?: Tonality): string {
  switch (tonality) {
    case undefined:
      return keyName(key);
    case 'none':
      return 'no key';
    case 'blues':
      return `blues in ${fifthsName(key.tonic)}`;
    case 'pentatonic':
      return `${keyName(key)}, on five notes`;
    default:
      return `${fifthsName(key.tonic)} ${tonality}`;
  }
}

export const toldKey = ({ key, tonality }: Told): string => keyWords(key, tonality);

/** A sounding key as it is written for a transposing player: F sharp minor for concert E minor on a B flat instrument. */
export const keyForPlayer = (key: Key, transpose: Interval, tonality?: Tonality): string =>
  keyWords({ ...key, tonic: key.tonic - signatureShift(transpose.chromatic) }, tonality);

/** A key as a player reads it, with the sounding one behind it where the part transposes: "E minor (sounding D minor)". */
export function keyAsRead(fact: Told, transpose: Interval): string {
  const sounding = toldKey(fact);
  if (transpose.chromatic % 12 === 0 || fact.tonality === 'none') return sounding;
  return `${keyForPlayer(fact.key, transpose, fact.tonality)} (sounding ${sounding})`;
}
