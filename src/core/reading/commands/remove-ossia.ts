import type { CommandDescription } from './command.ts';

export interface RemoveOssia {
  id: string;
}

export const removeOssia: CommandDescription<RemoveOssia> = {
  schema: ({ id }) => ({ id }),
  apply: (reading, { id }) => ({ ...reading, ossias: reading.ossias.filter((o) => o.id !== id) }),
  words: () => 'taking an ossia away'
};
