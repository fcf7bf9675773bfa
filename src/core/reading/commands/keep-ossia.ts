import { ossiaSchema, type Ossia } from '../ossia.ts';
import type { CommandDescription } from './command.ts';

/** Another way to play some bars is kept, or one that is known is changed. */
export interface KeepOssia {
  ossia: Ossia;
}

export const keepOssia: CommandDescription<KeepOssia> = {
  schema: (kit) => ({ ossia: ossiaSchema(kit) }),
  apply: (reading, { ossia }) => {
    const known = reading.ossias.some((o) => o.id === ossia.id);
    return { ...reading, ossias: known ? reading.ossias.map((o) => (o.id === ossia.id ? ossia : o)) : [...reading.ossias, ossia] };
  },
  words: ({ ossia }) => `ossia “${ossia.label}”`
};
