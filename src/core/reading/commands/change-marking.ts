import { placeFault } from '../../markings/describe.ts';
import type { Marking, Placing } from '../../markings/marking.ts';
import { changeSchema } from '../../markings/schema.ts';
import type { CommandDescription } from './command.ts';

/** What changes about a marking; a word to the player, or a place of its own, is let go with null. The kind of a marking stays. */
export type MarkingChange = Partial<Omit<Marking, 'id' | 'remark' | 'placing'>> & { remark?: string | null; placing?: Placing | null };

export interface ChangeMarking {
  id: string;
  change: MarkingChange;
}

/** The marking as changed; as it was where it could not be drawn any more. */
function changed(m: Marking, { remark, placing, ...change }: MarkingChange): Marking {
  const result: Marking = { ...m, ...change, kind: m.kind };
  if (remark) result.remark = remark;
  else if (remark !== undefined) delete result.remark;
  if (placing) result.placing = placing;
  else if (placing !== undefined) delete result.placing;
  return (change.kind ?? m.kind) !== m.kind || (placeFault(result) && !placeFault(m)) ? m : result;
}

export const changeMarking: CommandDescription<ChangeMarking> = {
  schema: (kit) => ({ id: kit.id, change: changeSchema(kit) }),
  apply: (reading, { id, change }) => ({ ...reading, markings: reading.markings.map((m) => (m.id === id ? changed(m, change) : m)) }),
  words: () => 'changing a marking'
};
