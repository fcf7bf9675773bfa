import { PULL } from '../../style/performance-weights.ts';
import { setOrLet, type CommandDescription } from './command.ts';

export interface PullTime {
  measure: number;
  /** Planned over unpulled length; null lets it go. */
  ratio: number | null;
}

export const pullTime: CommandDescription<PullTime> = {
  schema: ({ joi, measure, orNull }) => ({ measure, ratio: orNull(joi.number().min(PULL.least).max(PULL.most)) }),
  apply: (reading, { measure, ratio }) => ({ ...reading, timePulls: setOrLet(reading.timePulls, measure, ratio) }),
  words: ({ ratio }) => (ratio === null ? 'letting a bar’s time go' : 'pulling a bar’s time')
};
