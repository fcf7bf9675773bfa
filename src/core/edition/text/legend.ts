import { kindOf } from '../../markings/describe.ts';
import type { LegendLine } from '../../markings/description.ts';
import { MARKING_KINDS } from '../../markings/marking-kind.ts';
import type { Marking } from '../../markings/marking.ts';

/** The signs that this edition uses, explained; kinds that look alike share a line. */
export function legend(markings: readonly Pick<Marking, 'kind'>[]): LegendLine[] {
  const used = new Set(markings.map((m) => m.kind));
  const lines = MARKING_KINDS.filter((kind) => used.has(kind)).flatMap((kind) => kindOf(kind).legend ?? []);
  return [{ sign: 'full black', meaning: 'everything that stands in the source' }, ...new Set(lines)];
}
