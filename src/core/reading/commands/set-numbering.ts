import { NUMBERINGS, type Numbering } from '../reading.ts';
import type { CommandDescription } from './command.ts';

export interface SetNumbering {
  numbering: Numbering;
}

export const setNumbering: CommandDescription<SetNumbering> = {
  schema: ({ oneOf }) => ({ numbering: oneOf(NUMBERINGS) }),
  apply: (reading, { numbering }) => ({ ...reading, numbering }),
  words: ({ numbering }) => `bar numbers as ${numbering}`
};
