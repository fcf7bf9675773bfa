import { inWords } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { markingSchema } from '../../markings/schema.ts';
import type { CommandDescription } from './command.ts';

export interface AddMarking {
  marking: Marking;
}

export const addMarking: CommandDescription<AddMarking> = {
  schema: (kit) => ({ marking: markingSchema(kit) }),
  apply: (reading, { marking }) => ({
    ...reading,
    markings: [...reading.markings.filter((m) => m.id !== marking.id), marking]
  }),
  words: ({ marking }) => `adding ${inWords(marking)}`
};
