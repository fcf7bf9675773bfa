import { frac, type Fraction } from '$core/score/fraction';
import { inSigns } from '$core/analysis/words';
import { fifthsName } from '$core/score/pitch';
import type { KeySignature } from '$core/score/model';
import type { WrittenHead } from '$core/writing/written';
import { isMeter } from '$core/writing/from-tune';

/** Signatures from seven flats to seven sharps. */
const FIFTHS = Array.from({ length: 15 }, (_, k) => k - 7);
/** How far the tonic lies from the signature on the line of fifths. */
const TONIC = { major: 0, minor: 3 };

/** Keys to choose from, by their names. */
export const KEYS: readonly { value: string; name: string; key: KeySignature }[] = (['major', 'minor'] as const).flatMap((mode) =>
  FIFTHS.map((fifths) => ({
    value: `${fifths} ${mode}`,
    name: `${inSigns(fifthsName(fifths + TONIC[mode]))} ${mode}`,
    key: { fifths, mode }
  }))
);
export const keyValue = (key: KeySignature): string => `${key.fifths} ${key.mode ?? 'major'}`;
export const keyOf = (value: string): KeySignature => KEYS.find((k) => k.value === value)?.key ?? { fifths: 0, mode: 'major' };

export const CLEFS = {
  treble: 'treble',
  bass: 'bass',
  alto: 'alto',
  tenor: 'tenor',
  'treble-8': 'treble, an octave lower',
  perc: 'percussion'
};

/** How instruments sound against what is written, in semitones. */
export const TRANSPOSITIONS: [number, string][] = [
  [0, 'as written'],
  [-2, 'in B flat: a tone lower'],
  [-3, 'in A: a minor third lower'],
  [-7, 'in F: a fifth lower'],
  [-9, 'in E flat: a sixth lower'],
  [-14, 'in B flat: a ninth lower'],
  [-12, 'an octave lower'],
  [12, 'an octave higher']
];

export const UPBEATS: [string, Fraction | null][] = [
  ['none', null],
  ['a sixteenth', frac(1, 4)],
  ['an eighth', frac(1, 2)],
  ['a dotted eighth', frac(3, 4)],
  ['a quarter', frac(1)],
  ['a dotted quarter', frac(3, 2)],
  ['a half', frac(2)],
  ['a dotted half', frac(3)]
];

export const BEATS: [string, Fraction][] = [
  ['quarter', frac(1)],
  ['dotted quarter', frac(3, 2)],
  ['half', frac(2)],
  ['eighth', frac(1, 2)]
];

/** What is wrong with a head, in one sentence; null when nothing is. */
export function headFault(head: WrittenHead): string | null {
  if (!head.title.trim()) return 'The piece needs a title.';
  if (!isMeter(head.meter)) return `“${head.meter}” is no meter; write 3/4, 6/8, C, or nothing.`;
  if (head.tempo.perMinute && !/^\d+(\.\d+)?$/.test(head.tempo.perMinute)) return 'Beats a minute are a number.';
  return null;
}
