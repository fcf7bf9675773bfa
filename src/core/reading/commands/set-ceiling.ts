import type { Steps } from '../../units.ts';
import { level } from './levels.ts';
import type { CommandDescription } from './command.ts';

export interface SetCeiling {
  /** In steps; null lifts it. */
  level: Steps | null;
}

export const setCeiling: CommandDescription<SetCeiling> = {
  schema: (kit) => ({ level: kit.orNull(level(kit)) }),
  apply: (reading, { level }) => ({ ...reading, plan: { ...reading.plan, ceiling: level } }),
  words: ({ level }) => (level === null ? 'lifting the ceiling' : 'setting a ceiling')
};
