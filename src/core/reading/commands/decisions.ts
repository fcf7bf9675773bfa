import type { Marking } from '../../markings/marking.ts';
import type { Reading } from '../reading.ts';

/** The markings without the one that a proposal was kept as. */
export function withoutKept(reading: Reading, key: string): Marking[] {
  const before = reading.decisions[key];
  return before?.status === 'kept' ? reading.markings.filter((m) => m.id !== before.marking) : reading.markings;
}
