import type { ObjectSchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import { midi, parsePitch } from '../score/pitch.ts';
import { INSTRUMENTS, type InstrumentKey } from '../style/instruments/index.ts';

/** A fingering that this player uses, or its teacher wants; it stands in the place of ours. */
export interface OwnFingering {
  /** As it is written for the instrument: "F#5". */
  pitch: string;
  /** Keys as the charts write them, "13" for valves, "4" for a slide. */
  fingering: string;
}

/** Somebody whom a reading is for. What is null is as usual. */
export interface Player {
  /** Its name among all players, given once. */
  key: string;
  name: string;
  instrument: InstrumentKey | null;
  /** Seconds on one breath at mf in the middle register. */
  breath: number | null;
  /** Semitones from the lowest to the highest key that a hand spans. */
  reach: number | null;
  /** Sounding pitches between which this player is sure. */
  lowest: string | null;
  highest: string | null;
  fingerings: OwnFingering[];
}

/** What a reading says of its player: enough to know who is meant where the player is not. */
export type NamedPlayer = Pick<Player, 'key' | 'name'>;

/** Of a player: seconds of a breath, semitones of a hand. */
export const BREATH_RANGE = { least: 1, most: 60 };
export const REACH_RANGE = { least: 7, most: 20 };
export const MOST_FINGERINGS = 200;
const LONGEST_NAME = 80;

export const namedPlayerSchema = (kit: SchemaKit): ObjectSchema<NamedPlayer> =>
  kit.record({ key: kit.id, name: kit.joi.string().trim().min(1).max(LONGEST_NAME) });

/** Schema of a player as it is sent and stored; its key comes from elsewhere. */
export function playerSchema(kit: SchemaKit): ObjectSchema<Omit<Player, 'key'>> {
  const { joi, orNull } = kit;
  const pitch = joi
    .string()
    .max(5)
    .custom((value: string, helpers) =>
      parsePitch(value)
        ? value
        : helpers.message({ custom: '{#label} is a letter, an accidental if it has one, and an octave: F#4, Bb3, C5' })
    );
  const between = ({ least, most }: { least: number; most: number }) => orNull(joi.number().min(least).max(most));
  return kit
    .record({
      name: joi.string().trim().min(1).max(LONGEST_NAME),
      instrument: orNull(kit.oneOf(INSTRUMENTS.map((i) => i.key))),
      breath: between(BREATH_RANGE),
      reach: between(REACH_RANGE),
      lowest: orNull(pitch),
      highest: orNull(pitch),
      fingerings: kit.list(kit.record({ pitch, fingering: joi.string().trim().min(0).allow('').max(40) }), MOST_FINGERINGS)
    })
    .custom((player: Player, helpers) => {
      const [low, high] = [player.lowest, player.highest].map((p) => (p ? midi(parsePitch(p)!) : null));
      return low !== null && high !== null && low > high ? helpers.message({ custom: 'the lowest note lies above the highest' }) : player;
    });
}

/** A player of whom nothing is known but the name. */
export const newPlayer = (name: string): Omit<Player, 'key'> => ({
  name,
  instrument: null,
  breath: null,
  reach: null,
  lowest: null,
  highest: null,
  fingerings: []
});
