import { richTextSchema, type RichText } from '../rich-text.ts';
import type { CommandDescription } from './command.ts';

/** The preface in the instructor's words; null lets the drafted one stand again. */
export interface WritePreface {
  text: RichText | null;
}

export const writePreface: CommandDescription<WritePreface> = {
  schema: (kit) => ({ text: kit.orNull(richTextSchema(kit)) }),
  apply: (reading, { text }) => ({ ...reading, preface: text }),
  words: ({ text }) => (text === null ? 'drafting the preface again' : 'writing the preface')
};
