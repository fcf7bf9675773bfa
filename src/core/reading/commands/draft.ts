import { LIMITS } from '../../style/limits.ts';
import { keep, type Keep } from './keep.ts';
import type { CommandDescription } from './command.ts';

/** Many proposals kept at once. */
export interface Draft {
  kept: Keep[];
}

export const draft: CommandDescription<Draft> = {
  schema: (kit, single) => ({ kept: kit.list(kit.record(keep.schema(kit, single)), LIMITS.together).min(1) }),
  apply: (reading, { kept }, apply) => kept.reduce((s, k) => keep.apply(s, k, apply), reading),
  words: ({ kept }) => `drafting ${kept.length} ${kept.length === 1 ? 'marking' : 'markings'}`
};
