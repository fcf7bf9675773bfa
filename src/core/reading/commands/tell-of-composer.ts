import type { ComposerNote } from '../reading.ts';
import type { CommandDescription } from './command.ts';

/** What the instructor knows of the composer; null lets it go. */
export interface TellOfComposer {
  composer: ComposerNote | null;
}

export const tellOfComposer: CommandDescription<TellOfComposer> = {
  schema: ({ record, words, orNull }) => ({ composer: orNull(record({ dates: words(100), practice: words(), source: words(300) })) }),
  apply: (reading, { composer }) => ({ ...reading, composer }),
  words: ({ composer }) => (composer === null ? 'letting the note on the composer go' : 'a note on the composer')
};
