import { namedPlayerSchema, type NamedPlayer } from '../../players/player.ts';
import type { CommandDescription } from './command.ts';

/** Whom the reading is for; null for nobody in particular. */
export interface SetPlayer {
  player: NamedPlayer | null;
}

export const setPlayer: CommandDescription<SetPlayer> = {
  schema: (kit) => ({ player: kit.orNull(namedPlayerSchema(kit)) }),
  apply: (reading, { player }) => ({ ...reading, player }),
  words: ({ player }) => (player ? `it is for ${player.name}` : 'it is for nobody in particular')
};
