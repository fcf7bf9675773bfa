import { placeFault } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { changeSchema } from '../../markings/schema.ts';
import type { CommandDescription } from './command.ts';

/** What changes about a marking; a word to the player is let go with null. The kind of a marking stays. */
export type MarkingChange = Partial<Omit<Marking, 'id' | 'remark'>> & { remark?: string | null };

export interface ChangeMarking {
  id: string;
  change: MarkingChange;
}

/** The marking as changed; as it was where it could not be drawn any more. */
function changed(m: Marking, { remark, ...change }: MarkingChange): Marking {
  const result: Marking = { ...m, ...change, kind: m.kind };
  if (remark) result.remark = remark;
  else if (remark !== undefined) delete result.remark;
  return (change.kind ?? m.kind) !== m.kind || (placeFault(result) && !placeFault(m)) ? m : result;
}

export const changeMarking: CommandDescription<ChangeMarking> = {
  schema: (kit) => ({ id: kit.id, change: changeSchema(kit) }),
  apply: (reading, { id, change }) => ({ ...reading, markings: reading.markings.map((m) => (m.id === id ? changed(m, change) : m)) }),
  words: () => 'changing a marking'
};
