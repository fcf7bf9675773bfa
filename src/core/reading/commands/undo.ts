import type { CommandDescription } from './command.ts';

export const undo: CommandDescription<object> = {
  schema: () => ({}),
  apply: (reading) => reading,
  words: () => 'undo'
};
