import { LIMITS } from '../../style/limits.ts';
import type { Recording } from '../reading.ts';
import type { CommandDescription } from './command.ts';

export interface KeepRecording {
  id: string;
  recording: Recording | null;
}

export const keepRecording: CommandDescription<KeepRecording> = {
  schema: ({ joi, id, measure, list, record, orNull }) => {
    const time = record({ measure, seconds: joi.number().min(0).max(LIMITS.recording) });
    return { id, recording: orNull(record({ id, label: joi.string().max(120), times: list(time, 5000) })) };
  },
  apply: (reading, { id, recording }) => {
    const others = reading.recordings.filter((r) => r.id !== id);
    return { ...reading, recordings: recording ? [...others, recording] : others };
  },
  words: ({ recording }) => (recording ? `the recording “${recording.label}”` : 'removing a recording')
};
