import { LIMITS } from '../../style/limits.ts';
import type { CommandDescription } from './command.ts';

/** What is to be remembered on the card for the stand; null lets the drafted lines stand again. */
export interface WriteCard {
  lines: string[] | null;
}

export const writeCard: CommandDescription<WriteCard> = {
  schema: ({ joi, list, orNull }) => ({ lines: orNull(list(joi.string().max(300), LIMITS.toRemember)) }),
  apply: (reading, { lines }) => ({ ...reading, card: lines }),
  words: ({ lines }) => (lines === null ? 'drafting the card again' : 'writing the card')
};
