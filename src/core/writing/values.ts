import { add, div, eq, frac, lt, mul, sub, toNumber, type Fraction } from '../score/fraction.ts';

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

/** A rhythm as its keys: "h q. e", a stroke before a rest "/q", a group in brackets "(e e e)". */
export const spelled = (rhythm: readonly Value[]): string =>
  rhythm
    .map((v) => {
      const name = nameOf(v.written);
      const sign = (v.rest ? '/' : '') + (name ? name.letter + '.'.repeat(name.dots) : `${v.written.n}/${v.written.d}`);
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

/** A rhythm while it is typed. */
export interface Typing {
  values: readonly Value[];
  /** The next value is a rest. */
  rest: boolean;
  /** Where a group was begun that is not ended yet; null for none. */
  group: number | null;
}

export const NOTHING_TYPED: Typing = { values: [], rest: false, group: null };

/** In the time of how many a group of so many is played. [common practice] */
const IN_TIME_OF: Record<number, number> = { 2: 3, 3: 2, 4: 3, 5: 4, 6: 4, 7: 4 };

/**
 * What a key does to a rhythm that is being typed: a letter puts a value, a dot dots the last, a stroke makes the next one a
 * rest, brackets hold a group; null where the key means nothing there.
 */
export function typed({ values, rest, group }: Typing, key: string): Typing | null {
  const value = VALUES.find((v) => v.letter === key.toLowerCase());
  if (value) return { values: [...values, { written: value.quarters, rest }], rest: false, group };
  const last = values.at(-1);
  if (key === '/') return { values, rest: !rest, group };
  if (key === '(') return group === null ? { values, rest, group: values.length } : null;
  if (key === ')') return group === null ? null : grouped(values, group);
  if (key === 'Backspace' && rest) return { values, rest: false, group };
  if (key === 'Backspace' && group === values.length) return { values, rest, group: null };
  if (!last) return null;
  if (key === '.') {
    const name = last.tuplet ? null : nameOf(last.written);
    const base = VALUES.find((v) => v.letter === name?.letter);
    if (!name || !base) return null;
    return { values: [...values.slice(0, -1), { ...last, written: dotted(base.quarters, (name.dots + 1) % 3) }], rest, group };
  }
  if (key !== 'Backspace') return null;
  if (!last.tuplet) return { values: values.slice(0, -1), rest, group };
  // A group is opened again before its values go.
  const from = values.findLastIndex((v) => v.tuplet?.start);
  return { values: values.map((v, k) => (k < from ? v : { written: v.written, rest: v.rest })), rest, group: from };
}

/** The values from a place on become a group: as many as its shortest value goes into it, in the usual time. */
function grouped(values: readonly Value[], from: number): Typing | null {
  const group = values.slice(from);
  if (group.length < 2) return null;
  const shortest = group.map((v) => v.written).reduce((a, b) => (lt(b, a) ? b : a));
  const count = div(
    group.map((v) => v.written).reduce((a, b) => add(a, b)),
    shortest
  );
  const normal = count.d === 1 ? IN_TIME_OF[count.n] : undefined;
  if (normal === undefined) return null;
  const inGroup = group.map((v, k): Value => ({ ...v, tuplet: { actual: count.n, normal, start: k === 0, stop: k === group.length - 1 } }));
  return { values: [...values.slice(0, from), ...inGroup], rest: false, group: null };
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
