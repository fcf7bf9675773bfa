import type { SchoolKey } from '../../style/schools.ts';
import { schoolKey } from './answers.ts';
import type { CommandDescription } from './command.ts';

export interface PostponeQuestion {
  key: SchoolKey;
  on: string;
}

export const postponeQuestion: CommandDescription<PostponeQuestion> = {
  schema: (kit) => ({ key: schoolKey(kit), on: kit.day }),
  apply: (reading, { key, on }) => ({ ...reading, postponed: { ...reading.postponed, [key]: on } }),
  words: () => 'putting a question off'
};
