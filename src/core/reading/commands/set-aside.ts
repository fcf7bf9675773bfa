import { withoutKept } from './decisions.ts';
import type { CommandDescription } from './command.ts';

export interface SetAside {
  /** Of the proposal. */
  key: string;
}

export const setAside: CommandDescription<SetAside> = {
  schema: ({ key }) => ({ key }),
  apply: (reading, { key }) => ({
    ...reading,
    markings: withoutKept(reading, key),
    decisions: { ...reading.decisions, [key]: { status: 'set aside' } }
  }),
  words: () => 'setting a proposal aside'
};
