import type { CommandDescription } from './command.ts';

export interface Unpin {
  id: string;
}

export const unpin: CommandDescription<Unpin> = {
  schema: ({ id }) => ({ id }),
  apply: (reading, { id }) => ({ ...reading, pins: reading.pins.filter((p) => p.id !== id) }),
  words: () => 'taking a correction back'
};
