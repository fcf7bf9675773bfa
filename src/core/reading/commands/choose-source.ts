import type { SourceChoice } from '../../collation/difference.ts';
import type { CommandDescription } from './command.ts';

/** What is decided about a difference between sources; null leaves it open again. */
export interface ChooseSource {
  source: string;
  difference: string;
  choice: SourceChoice | null;
}

export const chooseSource: CommandDescription<ChooseSource> = {
  schema: ({ joi, hash, source, words, day, oneOf, record, orNull }) => {
    const difference = joi.string().max(120);
    const choice = record({ source, difference, take: oneOf(['ours', 'theirs']), because: words(), on: day });
    return { source: hash, difference, choice: orNull(choice) };
  },
  apply: (reading, { source, difference, choice }) => {
    const others = reading.sourceChoices.filter((c) => c.source !== source || c.difference !== difference);
    return { ...reading, sourceChoices: choice ? [...others, choice] : others };
  },
  words: ({ choice }) => (choice ? 'choosing between sources' : 'leaving a difference open')
};
