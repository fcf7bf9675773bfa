import type { SurveyNote } from '../reading.ts';
import { setOrLet, type CommandDescription } from './command.ts';

export interface NoteSurvey {
  line: string;
  note: SurveyNote | null;
}

export const noteSurvey: CommandDescription<NoteSurvey> = {
  schema: ({ joi, words, record, orNull }) => {
    const note = record({}, { ticked: joi.boolean(), comment: words(), text: words(), preface: joi.boolean() });
    return { line: joi.string().max(300), note: orNull(note) };
  },
  apply: (reading, { line, note }) => ({ ...reading, survey: setOrLet(reading.survey, line, note) }),
  words: ({ note }) => (note ? 'a note on the survey' : 'removing a note on the survey')
};
