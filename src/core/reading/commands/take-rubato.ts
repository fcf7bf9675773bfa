import { TAPS } from '../../style/performance-weights.ts';
import type { CommandDescription } from './command.ts';

export interface TakeRubato {
  /** Change of length of each beat as a share of it, by measure index; null lets all go. */
  bars: Record<number, number[]> | null;
}

export const takeRubato: CommandDescription<TakeRubato> = {
  schema: ({ joi, list, orNull }) => {
    const change = joi
      .number()
      .min(TAPS.least - 1)
      .max(TAPS.most - 1);
    return {
      bars: orNull(
        joi
          .object()
          .pattern(/^\d{1,6}$/, list(change, 1024))
          .max(5000)
      )
    };
  },
  apply: (reading, { bars }) => ({ ...reading, rubato: bars === null ? {} : { ...reading.rubato, ...bars } }),
  words: ({ bars }) => (bars === null ? 'letting the own rubato go' : 'taking over a tapped rubato')
};
