import { cmp, type Fraction } from '../../score/fraction.ts';
import { EFFECTS, MOST_AMOUNT, type EffectKey } from '../../style/effects.ts';
import { setOrLet, type CommandDescription } from './command.ts';

export interface SetAmount {
  effect: EffectKey;
  /** 0 off, 1 as usual, 2 twice; null lets it go. */
  amount: number | null;
  /** The whole piece where it is null. */
  range: { from: Fraction; to: Fraction } | null;
}

export const setAmount: CommandDescription<SetAmount> = {
  schema: ({ joi, oneOf, record, orNull, fraction }) => ({
    effect: oneOf(EFFECTS.map((e) => e.key)),
    amount: orNull(joi.number().min(0).max(MOST_AMOUNT)),
    range: orNull(record({ from: fraction, to: fraction }))
  }),
  apply: (reading, { effect, amount, range }) => {
    if (!range) return { ...reading, amounts: setOrLet(reading.amounts, effect, amount) };
    const others = reading.localAmounts.filter((a) => a.effect !== effect || cmp(a.from, range.from) !== 0 || cmp(a.to, range.to) !== 0);
    return { ...reading, localAmounts: amount === null ? others : [...others, { effect, amount, ...range }] };
  },
  words: ({ effect, amount }) => (amount === null ? `${effect} as usual` : `${effect} ${Math.round(100 * amount)} %`)
};
