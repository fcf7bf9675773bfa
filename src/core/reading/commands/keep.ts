import { inWords } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { markingSchema } from '../../markings/schema.ts';
import { withoutKept } from './decisions.ts';
import type { CommandDescription } from './command.ts';

export interface Keep {
  /** Of the proposal. */
  key: string;
  marking: Marking;
}

export const keep: CommandDescription<Keep> = {
  schema: (kit) => ({ key: kit.key, marking: markingSchema(kit) }),
  apply: (reading, { key, marking }) => ({
    ...reading,
    markings: [...withoutKept(reading, key), { proposed: marking.value, ...marking, proposal: key }],
    decisions: { ...reading.decisions, [key]: { status: 'kept', marking: marking.id } }
  }),
  words: ({ marking }) => `keeping ${inWords(marking)}`
};
