import { setOrLet, type CommandDescription } from './command.ts';

export interface AcceptFinding {
  finding: string;
  because: string | null;
}

export const acceptFinding: CommandDescription<AcceptFinding> = {
  schema: ({ key, words, orNull }) => ({ finding: key, because: orNull(words()) }),
  apply: (reading, { finding, because }) => ({ ...reading, accepted: setOrLet(reading.accepted, finding, because) }),
  words: ({ because }) => (because === null ? 'looking at a finding again' : 'accepting a finding')
};
