/**
 * What the compiler asks of whoever adds a kind, a command, an instrument or a room. Each line below must be an error; where one
 * is not any more, the check of types fails.
 */
import type { MarkingDescription } from '../../src/core/markings/description.ts';
import { KINDS } from '../../src/core/markings/kinds/index.ts';
import type { MarkingKind } from '../../src/core/markings/marking-kind.ts';
import type { CommandDescription } from '../../src/core/reading/commands/command.ts';
import type { Command } from '../../src/core/reading/commands/index.ts';
import type { Instrument } from '../../src/core/style/instruments/instrument.ts';
import { ROOMS, type RoomDescription } from '../../src/lib/rooms.ts';

// @ts-expect-error -- a kind that is named needs its description
export const kinds: Record<MarkingKind | 'capo', MarkingDescription> = KINDS;

// @ts-expect-error -- and all of it: where it hangs, values, names, legend, MEI, MusicXML, clashes, print, sound
export const kind: MarkingDescription = { name: 'capo', says: 'A bar across the strings.' };

// @ts-expect-error -- a command has a schema, a way to apply it, and words
export const command: CommandDescription<{ cents: number }> = { schema: () => ({}) };

// @ts-expect-error -- what is sent is one of the commands that are described
export const sent: Command = { type: 'set-tuning', cents: 5 };

// @ts-expect-error -- an instrument says its family, what it can do, its names, sounds, range, clefs, transposition and samples
export const instrument: Instrument = { key: 'viola-damore', name: 'viola d’amore' };

// @ts-expect-error -- a room says what it is for
export const room: RoomDescription = { name: 'Practice' };

export const rooms: Record<keyof typeof ROOMS, RoomDescription> = ROOMS;
