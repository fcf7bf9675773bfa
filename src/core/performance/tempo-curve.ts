/**
 * Time passed from the beginning of a gradual change of tempo to x, as a multiple of the whole change's literal time.
 * The tempo is v(x) = (1 + (w^q − 1)·x)^(1/q), x from 0 to 1 in score time, w = last tempo / first tempo; this is the
 * integral of its inverse. Friberg & Sundberg 1999; handbook 7.2.
 */
export function timeAlong(x: number, w: number, q: number): number {
  const c = w ** q - 1;
  if (Math.abs(c) < 1e-12) return x;
  if (q === 1) return Math.log(1 + c * x) / c;
  const e = 1 - 1 / q;
  return ((1 + c * x) ** e - 1) / (c * e);
}
