import { frac, type Fraction } from '$core/score/fraction';
import type { KeySignature } from '$core/score/model';
import type { WrittenHead } from '$core/writing/written';
import { isMeter } from '$core/writing/from-tune';

/** Names of major keys from seven flats to seven sharps. */
const MAJOR = ['C♭', 'G♭', 'D♭', 'A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯'];
const MINOR = ['A♭', 'E♭', 'B♭', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F♯', 'C♯', 'G♯', 'D♯', 'A♯'];

export interface KeyChoice {
  value: string;
  name: string;
  key: KeySignature;
}

export const KEYS: readonly KeyChoice[] = (['major', 'minor'] as const).flatMap((mode) =>
  (mode === 'major' ? MAJOR : MINOR).map((tonic, k) => ({
    value: `${k - 7} ${mode}`,
    name: `${tonic} ${mode}`,
    key: { fifths: k - 7, mode }
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

export const EMPTY_HEAD: WrittenHead = {
  title: '',
  composer: '',
  instrument: '',
  transpose: 0,
  clefs: ['treble'],
  key: { fifths: 0, mode: 'major' },
  meter: '4/4',
  tempo: { words: '', unit: null, perMinute: null },
  upbeat: null
};

/** What is wrong with a head, in one sentence; null when nothing is. */
export function headFault(head: WrittenHead): string | null {
  if (!head.title.trim()) return 'The piece needs a title.';
  if (!isMeter(head.meter)) return `“${head.meter}” is no meter; write 3/4, 6/8, C, or nothing.`;
  if (head.tempo.perMinute && !/^\d+(\.\d+)?$/.test(head.tempo.perMinute)) return 'Beats a minute are a number.';
  return null;
}
