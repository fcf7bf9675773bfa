import { BRASS } from './brass.ts';
import type { Instrument } from './instrument.ts';
import { KEYBOARDS } from './keyboards.ts';
import { PERCUSSION } from './percussion.ts';
import { STRINGS } from './strings.ts';
import { VOICES } from './voices.ts';
import { WINDS } from './winds.ts';

const ROWS = [...STRINGS, ...WINDS, ...BRASS, ...KEYBOARDS, ...VOICES, ...PERCUSSION] as const;

export type InstrumentKey = (typeof ROWS)[number]['key'];

/** All instruments, in score order by family. */
export const INSTRUMENTS: readonly (Instrument & { key: InstrumentKey })[] = ROWS;

export const instrumentByKey = (key: string): Instrument | null => INSTRUMENTS.find((i) => i.key === key) ?? null;

/** What nothing is known of: it plays notes. Sounds like a piano, which is clear to listen to. */
export const UNKNOWN_INSTRUMENT: Instrument = {
  key: 'unknown',
  name: 'instrument',
  family: 'other',
  can: [],
  names: [],
  sounds: [],
  range: null,
  clefs: [],
  transpositions: [],
  program: 0,
  samples: 'piano'
};
