import { PERIODS, type Period } from '../../style/profiles.ts';
import type { CommandDescription } from './command.ts';

export interface SetPeriod {
  period: Period;
}

export const setPeriod: CommandDescription<SetPeriod> = {
  schema: ({ oneOf }) => ({ period: oneOf(PERIODS) }),
  apply: (reading, { period }) => ({ ...reading, period }),
  words: ({ period }) => `period ${period}`
};
