/**
 * Exact rational numbers for musical time, in quarter notes unless said otherwise.
 * Plain records, so that they survive JSON and structured cloning.
 */
export interface Fraction {
  /** Numerator; carries the sign. */
  readonly n: number;
  /** Denominator; always positive, coprime with the numerator. */
  readonly d: number;
}

export const ZERO: Fraction = { n: 0, d: 1 };

function gcd(a: number, b: number): number {
  a = Math.abs(a);
  b = Math.abs(b);
  while (b) [a, b] = [b, a % b];
  return a;
}

/**
 * The fraction n/d in lowest terms.
 * @throws RangeError when d is zero or a part cannot be held exactly (beyond 2^53).
 */
export function frac(n: number, d = 1): Fraction {
  if (d === 0) throw new RangeError('a fraction with denominator zero');
  if (!Number.isSafeInteger(n) || !Number.isSafeInteger(d)) throw new RangeError('a note value too fine to be held exactly');
  // Zero has no sign.
  if (d === 1) return { n: n || 0, d };
  const g = gcd(n, d) || 1;
  const sign = d < 0 ? -1 : 1;
  return { n: (sign * n) / g || 0, d: (sign * d) / g };
}

export function add(a: Fraction, b: Fraction): Fraction {
  if (a.d === b.d) return a.d === 1 ? { n: a.n + b.n || 0, d: 1 } : frac(a.n + b.n, a.d);
  return frac(a.n * b.d + b.n * a.d, a.d * b.d);
}

export function sub(a: Fraction, b: Fraction): Fraction {
  return add(a, { n: -b.n, d: b.d });
}

export function mul(a: Fraction, b: Fraction): Fraction {
  return frac(a.n * b.n, a.d * b.d);
}

export function div(a: Fraction, b: Fraction): Fraction {
  return frac(a.n * b.d, a.d * b.n);
}

/** Negative, zero or positive as a is before, at or after b. */
export function cmp(a: Fraction, b: Fraction): number {
  return a.d === b.d ? a.n - b.n : a.n * b.d - b.n * a.d;
}

export const eq = (a: Fraction, b: Fraction): boolean => a.n === b.n && a.d === b.d;
export const lt = (a: Fraction, b: Fraction): boolean => cmp(a, b) < 0;
export const lte = (a: Fraction, b: Fraction): boolean => cmp(a, b) <= 0;
export const max = (a: Fraction, b: Fraction): Fraction => (cmp(a, b) >= 0 ? a : b);
export const min = (a: Fraction, b: Fraction): Fraction => (cmp(a, b) <= 0 ? a : b);

/** The value as a floating-point number; for drawing and statistics only. */
export const toNumber = (a: Fraction): number => a.n / a.d;

/** "3", "1/2", "-7/4". */
export const format = (a: Fraction): string => (a.d === 1 ? String(a.n) : `${a.n}/${a.d}`);

/**
 * Reads "3", "1/2", "-7/4" or a decimal such as "0.5" or "-1.25", exactly.
 * @returns null when the text is no such number.
 * @throws RangeError when it has too many digits to be held exactly.
 */
export function parseFraction(text: string): Fraction | null {
  const t = text.trim();
  if (/^[+-]?\d+$/.test(t)) return frac(Number(t));
  const ratio = /^([+-]?\d+)\/(\d+)$/.exec(t);
  if (ratio) return Number(ratio[2]) === 0 ? null : frac(Number(ratio[1]), Number(ratio[2]));
  const decimal = /^([+-]?)(\d*)\.(\d*)$/.exec(t);
  if (!decimal || decimal[2] + decimal[3] === '') return null;
  const scale = 10 ** decimal[3].length;
  const value = frac(Number((decimal[2] || '0') + decimal[3]), scale);
  return decimal[1] === '-' ? { n: -value.n, d: value.d } : value;
}

export function lcm(a: number, b: number): number {
  return (a / gcd(a, b)) * b;
}

/** The fraction nearest to a number, with a denominator up to 960; for lengths that were computed as numbers. */
export const fromNumber = (value: number): Fraction => frac(Math.round(value * 960), 960);
