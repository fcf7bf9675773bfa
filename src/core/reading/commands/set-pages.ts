import { pageSettingsSchema, type PageSettings } from '../page-settings.ts';
import type { CommandDescription } from './command.ts';

export interface SetPages {
  pages: PageSettings;
}

export const setPages: CommandDescription<SetPages> = {
  schema: (kit) => ({ pages: pageSettingsSchema(kit) }),
  apply: (reading, { pages }) => ({ ...reading, pages }),
  words: () => 'setting the pages'
};
