import { pinSchema, pinWords, type Pin } from '../../analysis/pins.ts';
import type { CommandDescription } from './command.ts';

export interface PinAct {
  pin: Pin;
}

export const pin: CommandDescription<PinAct> = {
  schema: (kit) => ({ pin: pinSchema(kit) }),
  apply: (reading, { pin }) => ({ ...reading, pins: [...reading.pins.filter((p) => p.id !== pin.id), pin] }),
  words: ({ pin }) => pinWords(pin)
};
