import { frac, mul, toNumber, type Fraction } from './fraction.ts';

/** Written units of a metronome mark with the names and signs under which scores print them. Common practice. */
const UNITS = [
  { unit: 'breve', quarters: frac(8), names: ['breve', 'double whole'] },
  { unit: 'whole', quarters: frac(4), names: ['whole', 'semibreve', '𝅝'] },
  { unit: 'half', quarters: frac(2), names: ['half', 'minim', 'blanche', 'halbe', '𝅗𝅥'] },
  { unit: 'quarter', quarters: frac(1), names: ['quarter', 'crotchet', 'noire', 'viertel', '♩', '𝅘𝅥'] },
  { unit: 'eighth', quarters: frac(1, 2), names: ['eighth', 'quaver', 'croche', 'achtel', '♪', '𝅘𝅥𝅮'] },
  { unit: '16th', quarters: frac(1, 4), names: ['16th', 'sixteenth', 'semiquaver', 'sechzehntel', '𝅘𝅥𝅯'] },
  { unit: '32nd', quarters: frac(1, 8), names: ['32nd'] },
  { unit: '64th', quarters: frac(1, 16), names: ['64th'] }
] as const;

/** A note value as MusicXML names it. */
export type BeatUnit = (typeof UNITS)[number]['unit'];

/** A metronome mark: so many of a note value a minute, from `low` to `high` (the same where one number is given). */
export interface Metronome {
  unit: BeatUnit;
  dots: number;
  low: number;
  high: number;
}

/** A metronome mark as files give it: a unit, its dots, and the text of its number. */
export interface WrittenMetronome {
  unit: string;
  dots: number;
  perMinute?: string;
}

const unitNamed = (name: string): (typeof UNITS)[number] | undefined =>
  UNITS.find((u) => (u.names as readonly string[]).includes(name.toLowerCase().replace(/ note$/, '')));

/** Length of a metronome mark's unit in quarters, dots counted; a quarter for units that no metronome has. */
export const unitLength = (unit: string, dots: number): Fraction =>
  mul(unitNamed(unit)?.quarters ?? frac(1), frac(2 ** (dots + 1) - 1, 2 ** dots));

const NUMBER = String.raw`(\d{1,3}(?:\.\d+)?)(?:\s*(?:[-–—]|to)\s*(\d{1,3}(?:\.\d+)?))?`;
const ABOUT = String.raw`(?:(?:c|ca|circa|etwa|about)\b\.?\s*)?`;
const NAMES = UNITS.flatMap((u) => u.names).sort((a, b) => b.length - a.length);
/** "dotted quarter =", "♩. =", "M.M."; the equals sign may be missing after M.M. and a sign. */
const UNIT = String.raw`((?:double[- ]?)?dotted\s+)?(${NAMES.join('|')}|M\.?\s?M\.?)(?:\s+note)?\s*(\.{0,2})\s*=?`;
const ANYWHERE = new RegExp(String.raw`(?<![\p{L}\d])${UNIT}\s*${ABOUT}${NUMBER}(?!\d)`, 'iu');
const WHOLE = new RegExp(String.raw`^[\s(\[]*${UNIT}\s*${ABOUT}${NUMBER}[\s)\]]*$`, 'iu');
const BARE = new RegExp(`^\\s*${ABOUT}${NUMBER}\\s*$`, 'i');

function fromMatch(m: RegExpExecArray): Metronome | null {
  const unit = /^m/i.test(m[2]) && !unitNamed(m[2]) ? UNITS[3] : unitNamed(m[2]);
  const dots = (m[1] ? (/double/i.test(m[1]) ? 2 : 1) : 0) + m[3].length;
  return unit ? ranged(unit.unit, dots, m[4], m[5]) : null;
}

function ranged(unit: BeatUnit, dots: number, a: string, b: string | undefined): Metronome | null {
  const [x, y] = [Number(a), Number(b ?? a)];
  return x > 0 && y > 0 ? { unit, dots, low: Math.min(x, y), high: Math.max(x, y) } : null;
}

/**
 * A metronome mark in words: "quarter = 96", "dotted quarter = c. 60–66", "♪. = 84", "M.M. 92"; a bare number counts
 * quarters. Null when the text is anything else.
 */
export function parseMetronome(text: string): Metronome | null {
  const whole = WHOLE.exec(text);
  if (whole) return fromMatch(whole);
  const bare = BARE.exec(text);
  return bare ? ranged('quarter', 0, bare[1], bare[2]) : null;
}

/** A metronome mark somewhere within words: "Allegro (♩ = 120)"; a bare number is none. */
export function findMetronome(text: string): Metronome | null {
  const match = ANYWHERE.exec(text);
  return match ? fromMatch(match) : null;
}

/** A metronome mark as a file gives it; null when it gives no number ("quarter = eighth"). */
export function readMetronome(mark: WrittenMetronome): Metronome | null {
  const numbers = new RegExp(NUMBER).exec(mark.perMinute ?? '');
  return numbers ? ranged(unitNamed(mark.unit)?.unit ?? 'quarter', mark.dots, numbers[1], numbers[2]) : null;
}

const DOTTED = ['', 'dotted ', 'double dotted '];

/** "dotted quarter = 60–66": the one way in which metronome marks are written out. */
export function printMetronome(mark: WrittenMetronome | Metronome): string {
  const rate = 'low' in mark ? (mark.low === mark.high ? `${mark.low}` : `${mark.low}–${mark.high}`) : (mark.perMinute ?? '');
  return `${DOTTED[mark.dots] ?? ''}${mark.unit} = ${rate}`;
}

/** Lowest and highest rate in quarters a minute. */
export function quartersAMinute({ unit, dots, low, high }: Metronome): [low: number, high: number] {
  const quarters = toNumber(unitLength(unit, dots));
  return [low * quarters, high * quarters];
}

/** The middle of a metronome mark's range in quarters a minute. */
export function metronomeTempo(mark: Metronome): number {
  const [low, high] = quartersAMinute(mark);
  return (low + high) / 2;
}

/** A metronome mark in MusicXML. @param escaped its number, ready to stand in XML */
export const metronomeXml = ({ unit, dots }: WrittenMetronome, escaped: string, attributes = ''): string =>
  `<metronome${attributes}><beat-unit>${unit}</beat-unit>${'<beat-unit-dot/>'.repeat(dots)}<per-minute>${escaped}</per-minute></metronome>`;
