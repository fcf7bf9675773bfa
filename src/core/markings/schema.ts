import type { AnySchema, ObjectSchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import { SOURCES } from '../style/bibliography.ts';
import { markingFault, valueFault } from './describe.ts';
import { MARKING_KINDS } from './marking-kind.ts';
import { claimSchema } from './claim.ts';
import type { Marking } from './marking.ts';

const LONGEST_VALUE = 200;
/** Staff spaces that a marking can be moved from its place. */
export const FARTHEST = 15;

function fields(kit: SchemaKit): Record<string, AnySchema> {
  const distance = kit.joi.number().min(-FARTHEST).max(FARTHEST);
  const because = kit.record(
    { text: kit.words() },
    { claim: claimSchema(kit), rule: kit.id, facts: kit.list(kit.id, 20), sources: kit.list(kit.oneOf(Object.keys(SOURCES)), 10) }
  );
  return {
    kind: kit.oneOf(MARKING_KINDS),
    value: kit.joi.string().min(1).max(LONGEST_VALUE),
    part: kit.part,
    staff: kit.integer.min(1).max(64),
    start: kit.fraction,
    end: kit.fraction,
    note: kit.key,
    endNote: kit.key,
    placing: kit.record({}, { side: kit.oneOf(['above', 'below']), right: distance, up: distance }),
    because: kit.list(because, 20),
    remark: kit.words(),
    proposal: kit.key,
    proposed: kit.joi.string().max(LONGEST_VALUE)
  };
}

/** Schema of a whole marking: its shape, and whether its kind can be drawn with it. */
export function markingSchema(kit: SchemaKit): ObjectSchema {
  const { kind, value, part, staff, start, because, ...optional } = fields(kit);
  return kit.record({ id: kit.id, kind, value, part, staff, start, because }, optional).custom((m: Marking) => {
    const fault = markingFault(m);
    if (fault) throw new Error(fault);
    return m;
  });
}

/** Schema of a change: some fields of a marking; a value comes with its kind. A word to the player, or a place of its own, is let go with null. */
export function changeSchema(kit: SchemaKit): ObjectSchema {
  const { remark, placing, ...rest } = fields(kit);
  return kit
    .record({}, { ...rest, remark: kit.orNull(remark), placing: kit.orNull(placing) })
    .min(1)
    .with('value', 'kind')
    .custom((change: Partial<Marking>) => {
      const fault = change.value !== undefined && change.kind ? valueFault(change.kind, change.value) : null;
      if (fault) throw new Error(fault);
      return change;
    });
}
