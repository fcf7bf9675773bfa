import { format, type Fraction } from '../../score/fraction.ts';

/** Beats as they are said, by their length in quarters. */
const NAMES: Record<string, string> = {
  '1/4': 'sixteenth',
  '1/2': 'eighth',
  '3/4': 'dotted eighth',
  '1': 'quarter',
  '3/2': 'dotted quarter',
  '2': 'half',
  '3': 'dotted half',
  '4': 'whole'
};

export const beatName = (beat: Fraction): string => NAMES[format(beat)] ?? `${format(beat)} quarters`;
