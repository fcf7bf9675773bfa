import { fifthsName, type Interval } from './pitch.ts';

/** Fifths from a written to a sounding signature for a transposition in semitones. */
export const signatureShift = (chromatic: number): number => {
  const fifths = (((chromatic * 7) % 12) + 12) % 12;
  return fifths > 6 ? fifths - 12 : fifths;
};

/** A sounding key as it is written for a transposing player: "F# minor" for concert E minor on a B flat instrument. */
export function keyForPlayer(key: { tonic: number; minor: boolean }, transpose: Interval): string {
  return `${fifthsName(key.tonic - signatureShift(transpose.chromatic))} ${key.minor ? 'minor' : 'major'}`;
}

/** A key as a player reads it, with the sounding one behind it where the part transposes: "E minor (sounding D minor)". */
export const keyAsRead = ({ key, name }: { key: { tonic: number; minor: boolean }; name: string }, transpose: Interval): string =>
  transpose.chromatic % 12 === 0 ? name : `${keyForPlayer(key, transpose)} (sounding ${name})`;
