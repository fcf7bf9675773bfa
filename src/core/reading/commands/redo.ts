import type { CommandDescription } from './command.ts';

export const redo: CommandDescription<object> = {
  schema: () => ({}),
  apply: (reading) => reading,
  words: () => 'redo'
};
