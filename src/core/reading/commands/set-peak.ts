import type { CommandDescription } from './command.ts';

export interface SetPeak {
  measure: number | null;
}

export const setPeak: CommandDescription<SetPeak> = {
  schema: ({ orNull, measure }) => ({ measure: orNull(measure) }),
  apply: (reading, { measure }) => ({ ...reading, plan: { ...reading.plan, peak: measure } }),
  words: ({ measure }) => (measure === null ? 'letting the peak go' : 'setting the peak')
};
