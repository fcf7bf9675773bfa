import { without, type CommandDescription } from './command.ts';

export interface RemoveMarking {
  id: string;
}

export const removeMarking: CommandDescription<RemoveMarking> = {
  schema: ({ id }) => ({ id }),
  apply: (reading, { id }) => {
    const key = reading.markings.find((m) => m.id === id)?.proposal;
    const kept = key !== undefined && reading.decisions[key]?.status === 'kept';
    return {
      ...reading,
      markings: reading.markings.filter((m) => m.id !== id),
      decisions: kept ? without(reading.decisions, key) : reading.decisions
    };
  },
  words: () => 'removing a marking'
};
