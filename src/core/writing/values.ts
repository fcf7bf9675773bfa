import { cmp, div, eq, frac, mul, sub, lt, toNumber, type Fraction } from '../score/fraction.ts';

/** Written values by the first letters of their names. */
export const VALUES = [
  { letter: 'w', name: 'whole', quarters: frac(4) },
  { letter: 'h', name: 'half', quarters: frac(2) },
  { letter: 'q', name: 'quarter', quarters: frac(1) },
  { letter: 'e', name: 'eighth', quarters: frac(1, 2) },
  { letter: 's', name: 'sixteenth', quarters: frac(1, 4) },
  { letter: 't', name: 'thirty-second', quarters: frac(1, 8) }
] as const;

/** A value of a rhythm: its written length, in a group of n in the time of m where `tuplet` says so. */
export interface Value {
  /** Written length in quarters, dots counted, as if there were no tuplet. */
  written: Fraction;
  rest: boolean;
  tuplet?: { actual: number; normal: number; start: boolean; stop: boolean };
}

export const durationOf = ({ written, tuplet }: Value): Fraction => (tuplet ? mul(written, frac(tuplet.normal, tuplet.actual)) : written);

const dotted = (base: Fraction, dots: number): Fraction => mul(base, frac(2 ** (dots + 1) - 1, 2 ** dots));

/** The name of a written length and its dots; null where no one sign shows it. */
export function nameOf(written: Fraction): { letter: string; name: string; dots: number } | null {
  for (const { letter, name, quarters } of VALUES)
    for (let dots = 0; dots <= 2; dots++) if (eq(dotted(quarters, dots), written)) return { letter, name, dots };
  return null;
}

const article = (name: string): string => (/^e/.test(name) ? `an ${name}` : `a ${name}`);

/** "an eighth", "a dotted quarter", "a quarter and a sixteenth"; numbers of quarters where signs do not say it. */
export function lengthWords(length: Fraction): string {
  const whole = nameOf(length);
  if (whole) return whole.dots ? `a ${whole.dots > 1 ? 'double-' : ''}dotted ${whole.name}` : article(whole.name);
  const largest = VALUES.find((v) => lt(v.quarters, length));
  const rest = largest && sub(length, largest.quarters);
  const second = rest && nameOf(rest);
  if (largest && second && !second.dots) return `${article(largest.name)} and ${article(second.name)}`;
  return `${Number(toNumber(length).toFixed(2))} quarters`;
}

/** Values of a rhythm as it is written with letters: "h q. e", a stroke for a rest "q/", a group "(eee)" for three in the time of two. */
export const spelled = (rhythm: readonly Value[]): string =>
  rhythm
    .map((v) => {
      const name = nameOf(v.written);
      const sign = (name ? name.letter + '.'.repeat(name.dots) : `${v.written.n}/${v.written.d}`) + (v.rest ? '/' : '');
      return (v.tuplet?.start ? '(' : '') + sign + (v.tuplet?.stop ? ')' : '');
    })
    .join(' ');

/** "half, dotted quarter, eighth, quarter rest". */
export const inWords = (rhythm: readonly Value[]): string =>
  rhythm
    .map((v) => {
      const name = nameOf(v.written);
      const dots = name?.dots ? `${name.dots > 1 ? 'double-' : ''}dotted ` : '';
      const group = v.tuplet?.start ? `${v.tuplet.actual} in the time of ${v.tuplet.normal}: ` : '';
      return `${group}${dots}${name?.name ?? lengthWords(v.written)}${v.rest ? ' rest' : ''}`;
    })
    .join(', ');

/** What a key does to a rhythm that is being written; null where the key means nothing there. */
export function typed(rhythm: readonly Value[], key: string): Value[] | null {
  const value = VALUES.find((v) => v.letter === key.toLowerCase());
  if (value) return [...rhythm, { written: value.quarters, rest: false }];
  const last = rhythm.at(-1);
  if (!last) return null;
  const before = rhythm.slice(0, -1);
  const name = nameOf(last.written);
  if (key === '.' && name && !last.tuplet) {
    const base = VALUES.find((v) => v.letter === name.letter)!.quarters;
    return [...before, { ...last, written: dotted(base, (name.dots + 1) % 3) }];
  }
  if (key === '/') return [...before, { ...last, rest: !last.rest }];
  if (key === '3' || key === '5' || key === '6') return grouped(rhythm, Number(key));
  if (key === 'Backspace') return last.tuplet ? ungrouped(rhythm) : before;
  return null;
}

/** In the time of how many a group of so many is played. */
const IN_TIME_OF: Record<number, number> = { 3: 2, 5: 4, 6: 4 };

/** The last values become a group, where they are as many equal ones. */
function grouped(rhythm: readonly Value[], actual: number): Value[] | null {
  const group = rhythm.slice(-actual);
  if (group.length < actual || group.some((v) => v.tuplet || cmp(v.written, group[0].written) !== 0)) return null;
  const normal = IN_TIME_OF[actual];
  return [
    ...rhythm.slice(0, -actual),
    ...group.map((v, k): Value => ({ ...v, tuplet: { actual, normal, start: k === 0, stop: k === actual - 1 } }))
  ];
}

/** The last group is single values again. */
function ungrouped(rhythm: readonly Value[]): Value[] {
  const from = rhythm.findLastIndex((v) => v.tuplet?.start);
  return rhythm.map((v, k) => (k < from ? v : { written: v.written, rest: v.rest }));
}

/** Rhythms of tapped moments: gaps in seconds become values against a beat of so many quarters. */
export function tapped(gaps: readonly number[], secondsPerQuarter: number): Value[] {
  const choices = VALUES.flatMap((v) => [0, 1].map((dots) => dotted(v.quarters, dots)));
  return gaps.map((gap) => {
    const quarters = gap / secondsPerQuarter;
    // Nearest by proportion: a sixteenth too much weighs more on an eighth than on a half.
    const written = choices.reduce((best, c) =>
      Math.abs(Math.log(toNumber(c) / quarters)) < Math.abs(Math.log(toNumber(best) / quarters)) ? c : best
    );
    return { written, rest: false };
  });
}

/** The written value of a sound's duration. */
export const writtenOf = (duration: Fraction, tuplet?: Value['tuplet']): Fraction =>
  tuplet ? div(duration, frac(tuplet.normal, tuplet.actual)) : duration;
