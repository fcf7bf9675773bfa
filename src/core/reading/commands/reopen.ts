import { withoutKept } from './decisions.ts';
import { without, type CommandDescription } from './command.ts';

export interface Reopen {
  /** Of the proposal. */
  key: string;
}

export const reopen: CommandDescription<Reopen> = {
  schema: ({ key }) => ({ key }),
  apply: (reading, { key }) => ({ ...reading, markings: withoutKept(reading, key), decisions: without(reading.decisions, key) }),
  words: () => 'opening a proposal again'
};
