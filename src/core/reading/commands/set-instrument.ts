import { INSTRUMENTS, instrumentByKey, type InstrumentKey } from '../../style/instruments/index.ts';
import { setOrLet, type CommandDescription } from './command.ts';

/** The instrument of a part, where its name does not tell; null lets the name tell again. */
export interface SetInstrument {
  part: number;
  instrument: InstrumentKey | null;
}

export const setInstrument: CommandDescription<SetInstrument> = {
  schema: ({ part, oneOf, orNull }) => ({ part, instrument: orNull(oneOf(INSTRUMENTS.map((i) => i.key))) }),
  apply: (reading, { part, instrument }) => ({ ...reading, instruments: setOrLet(reading.instruments, part, instrument) }),
  words: ({ instrument }) =>
    instrument === null ? 'letting the name tell the instrument' : `the instrument is the ${instrumentByKey(instrument)!.name}`
};
