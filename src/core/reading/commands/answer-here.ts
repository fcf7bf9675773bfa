import { cmp } from '../../score/fraction.ts';
import type { LocalAnswer } from '../../style/schools.ts';
import { option, schoolKey } from './answers.ts';
import type { CommandDescription } from './command.ts';

export interface AnswerHere {
  answer: LocalAnswer;
}

export const answerHere: CommandDescription<AnswerHere> = {
  schema: (kit) => ({
    answer: kit.record({ key: schoolKey(kit), option: option(kit), from: kit.fraction, to: kit.fraction, on: kit.day })
  }),
  apply: (reading, { answer }) => {
    const others = reading.localAnswers.filter((a) => a.key !== answer.key || cmp(a.from, answer.from) !== 0);
    return { ...reading, localAnswers: [...others, answer] };
  },
  words: ({ answer }) => `${answer.key}: ${answer.option} here`
};
