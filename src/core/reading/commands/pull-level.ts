import type { Steps } from '../../units.ts';
import { level } from './levels.ts';
import { setOrLet, type CommandDescription } from './command.ts';

export interface PullLevel {
  measure: number;
  /** In steps; null lets it go. */
  level: Steps | null;
}

export const pullLevel: CommandDescription<PullLevel> = {
  schema: (kit) => ({ measure: kit.measure, level: kit.orNull(level(kit)) }),
  apply: (reading, { measure, level }) => ({
    ...reading,
    plan: { ...reading.plan, levels: setOrLet(reading.plan.levels, measure, level) }
  }),
  words: ({ level }) => (level === null ? 'letting a level go' : 'pulling a level')
};
