import { toNumber, type Fraction } from '../score/fraction.ts';
import type { ParallelFact } from './facts.ts';

const QUALITIES: Record<string, string> = { P: '', M: 'major ', m: 'minor ', A: 'augmented ', d: 'diminished ' };
const SIZES = ['', 'unison', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'octave'];

/** An interval from one place to another in words: "P5" is "a fifth higher", "-M2" "a major second lower", "P1" "at the same pitch". */
export function intervalWords(interval: string): string {
  const match = /^(-?)([PMmAd]+)(\d+)$/.exec(interval);
  if (!match) return interval;
  const number = Number(match[3]);
  if (number === 1 && match[2] === 'P') return 'at the same pitch';
  const octaves = Math.floor((number - 1) / 7);
  const rest = number - 7 * octaves;
  const way = match[1] ? 'lower' : 'higher';
  const many = octaves > 1 ? `${octaves} octaves` : 'an octave';
  if (octaves && rest === 1 && match[2] === 'P') return `${many} ${way}`;
  const name = `${QUALITIES[match[2][0]] ?? ''}${SIZES[rest]}`;
  const article = /^[aeiou]/.test(name) ? 'an' : 'a';
  return octaves ? `${many} and ${article} ${name} ${way}` : `${article} ${name} ${way}`;
}

const VALUES: [quarters: number, words: string][] = [
  [0.125, 'a 32nd'],
  [0.25, 'a sixteenth'],
  [0.5, 'an eighth'],
  [0.75, 'a dotted eighth'],
  [1, 'a quarter'],
  [1.5, 'a dotted quarter'],
  [2, 'a half'],
  [3, 'a dotted half'],
  [1 / 3, 'a third of a quarter'],
  [2 / 3, 'two thirds of a quarter']
];

/** A length as musicians say it: “an eighth”, “a dotted quarter”, “5 quarters”. */
export function valueWords(length: Fraction): string {
  const quarters = Math.abs(toNumber(length));
  return VALUES.find(([q]) => Math.abs(q - quarters) < 1e-6)?.[1] ?? `${Number(quarters.toFixed(2))} quarters`;
}

/** How much later or earlier in its bar the second place stands: "an eighth later"; empty where it does not. */
export function shiftWords(shift: ParallelFact['shift']): string {
  const by = toNumber(shift);
  if (by === 0) return '';
  return `${valueWords(shift)} ${by > 0 ? 'later' : 'earlier'} in the bar`;
}

/** How the second place stands to the first: "a fifth higher, an eighth later in the bar, from the upper staff to the bass". */
export const parallelWords = (p: Pick<ParallelFact, 'transposition' | 'shift' | 'lines'>): string =>
  [intervalWords(p.transposition), shiftWords(p.shift), p.lines ? `from ${p.lines[0]} to ${p.lines[1]}` : ''].filter(Boolean).join(', ');

const NOTE = /(?<![A-Za-z])([A-G])(#{1,2}|b{1,2})(?![A-Za-z#])/g;
const NUMERAL = /(?<![A-Za-z#])([b#]*)([iv]+|[IV]+)(o|%)?(?![A-Za-z%])/g;
const ALTERED: Record<string, string> = { '#': '♯', b: '♭' };
const KINDS: Record<string, string> = { o: '°', '%': 'ø' };

const altered = (signs: string): string => signs.replace(/[#b]/g, (s) => ALTERED[s]);

/** Names of notes and Roman numerals in a text as musicians write them: "F♯ minor" for "F# minor", "vii°7", "♭VI", "viiø7". */
export const inSigns = (text: string): string =>
  text
    .replace(NOTE, (_, letter: string, signs: string) => letter + altered(signs))
    .replace(NUMERAL, (_, signs: string, numeral: string, kind?: string) => altered(signs) + numeral + (kind ? KINDS[kind] : ''));
