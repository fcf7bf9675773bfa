import { cmp, type Fraction } from '../../score/fraction.ts';
import type { SchoolKey } from '../../style/schools.ts';
import { schoolKey } from './answers.ts';
import { without, type CommandDescription } from './command.ts';

export interface WithdrawAnswer {
  key: SchoolKey;
  /** Where the local answer begins; null for the answer of the whole piece. */
  from: Fraction | null;
}

export const withdrawAnswer: CommandDescription<WithdrawAnswer> = {
  schema: (kit) => ({ key: schoolKey(kit), from: kit.orNull(kit.fraction) }),
  apply: (reading, { from, key }) =>
    from
      ? { ...reading, localAnswers: reading.localAnswers.filter((a) => a.key !== key || cmp(a.from, from) !== 0) }
      : { ...reading, schools: without(reading.schools, key) },
  words: () => 'taking an answer back'
};
