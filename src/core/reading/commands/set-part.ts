import type { CommandDescription } from './command.ts';

export interface SetPart {
  part: number;
}

export const setPart: CommandDescription<SetPart> = {
  schema: ({ part }) => ({ part }),
  apply: (reading, { part }) => ({ ...reading, part }),
  words: () => 'choosing the part'
};
