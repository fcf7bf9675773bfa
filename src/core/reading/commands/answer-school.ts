import type { SchoolKey } from '../../style/schools.ts';
import { option, schoolKey } from './answers.ts';
import { without, type CommandDescription } from './command.ts';

export interface AnswerSchool {
  key: SchoolKey;
  option: string;
  /** Day on which it was given. */
  on: string;
}

export const answerSchool: CommandDescription<AnswerSchool> = {
  schema: (kit) => ({ key: schoolKey(kit), option: option(kit), on: kit.day }),
  apply: (reading, { key, option, on }) => ({
    ...reading,
    postponed: without(reading.postponed, key),
    schools: { ...reading.schools, [key]: { option, on } }
  }),
  words: ({ key, option }) => `${key}: ${option}`
};
