/** Beats a minute within which a tempo may be asked for. */
export const TEMPI = { least: 10, most: 500 };

/** What is wrong with a range of tempi that is asked for, in one sentence; empty when nothing is. A single number is a range of one. */
export function tempoRangeFault(low: number | null, high: number | null): string {
  const [from, to] = [low ?? high, high ?? low];
  if (from === null || to === null) return 'Please give at least one number.';
  if (![from, to].every((t) => Number.isFinite(t) && t >= TEMPI.least && t <= TEMPI.most))
    return `A tempo lies between ${TEMPI.least} and ${TEMPI.most} beats a minute.`;
  return from > to ? 'The lowest tempo must not be above the highest.' : '';
}
