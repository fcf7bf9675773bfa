import type { CommandDescription } from './command.ts';

export interface SetPart {
  part: number;
}

export const setPart: CommandDescription<SetPart> = {
  schema: ({ integer }) => ({ part: integer.min(0).max(200) }),
  apply: (reading, { part }) => ({ ...reading, part }),
  words: () => 'choosing the part'
};
