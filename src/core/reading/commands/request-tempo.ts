import { TEMPI } from '../tempo-range.ts';
import type { TempoRange } from '../reading.ts';
import type { CommandDescription } from './command.ts';

export interface RequestTempo {
  range: TempoRange | null;
}

export const requestTempo: CommandDescription<RequestTempo> = {
  schema: ({ joi, record, orNull }) => {
    const rate = joi.number().min(TEMPI.least).max(TEMPI.most);
    return { range: orNull(record({ low: rate, high: rate.min(joi.ref('low')) })) };
  },
  apply: (reading, { range }) => ({ ...reading, requested: range }),
  words: ({ range }) => (range ? `asked for ${range.low} to ${range.high}` : 'no tempo is asked for')
};
