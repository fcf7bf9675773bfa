import type { CommandDescription } from './command.ts';

export interface WriteBrief {
  /** Measures, both included. */
  from: number;
  to: number;
  text: string | null;
}

export const writeBrief: CommandDescription<WriteBrief> = {
  schema: ({ joi, measure, orNull }) => ({ from: measure, to: measure.min(joi.ref('from')), text: orNull(joi.string().max(8000)) }),
  apply: (reading, { from, to, text }) => {
    const others = reading.briefs.filter((b) => b.from !== from || b.to !== to);
    return { ...reading, briefs: text === null ? others : [...others, { from, to, text }] };
  },
  words: ({ text }) => (text === null ? 'letting a brief go' : 'writing a brief')
};
