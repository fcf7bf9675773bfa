import type { Command } from './index.ts';
import { LIMITS } from '../../style/limits.ts';
import type { CommandDescription } from './command.ts';

/** Several acts as one. */
export interface Together {
  /** What they do, in words. */
  what: string;
  commands: Command[];
}

export const together: CommandDescription<Together> = {
  schema: (kit, single) => ({ what: kit.key, commands: kit.list(single, LIMITS.together).min(1) }),
  apply: (reading, { commands }, apply) => commands.reduce(apply, reading),
  words: ({ what }) => what
};
