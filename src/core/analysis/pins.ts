import type { AnySchema } from 'joi';
import type { SchemaKit } from '../schema-kit.ts';
import type { Fraction } from '../score/fraction.ts';
import { CADENCE_TYPES, type CadenceType } from './facts.ts';
import { NOTE_ROLES, VOICE_NAMES, type NoteRole, type VoiceName } from './roles.ts';

/** All that there is to say about one kind of correction. @typeParam F its fields, without id, kind and beginning */
interface PinDescription<F> {
  schema(kit: SchemaKit): Record<keyof F & string, AnySchema>;
  words(pin: F): string;
}

const described = <F>(description: PinDescription<F>): PinDescription<F> => description;

/** Longest name of a key, a chord or a note in a correction, in characters. */
const NAME = 20;
const LABEL = 24;

/** All kinds of corrections by the instructor; times as in the facts. */
const PINS = {
  key: described<{ end: Fraction; key: string }>({
    schema: ({ joi, fraction }) => ({ end: fraction, key: joi.string().max(NAME) }),
    words: ({ key }) => `key ${key}`
  }),
  chord: described<{ end: Fraction; roman: string }>({
    schema: ({ joi, fraction }) => ({ end: fraction, roman: joi.string().max(NAME) }),
    words: ({ roman }) => `chord ${roman}`
  }),
  'phrase-start': described<{ here: boolean }>({
    schema: ({ joi }) => ({ here: joi.boolean() }),
    words: ({ here }) => (here ? 'a phrase begins' : 'no phrase begins')
  }),
  cadence: described<{ type: CadenceType }>({
    schema: ({ oneOf }) => ({ type: oneOf(CADENCE_TYPES) }),
    words: ({ type }) => `cadence ${type}`
  }),
  /** A section begins here and bears this label; an empty label means that none begins here. */
  section: described<{ label: string }>({
    schema: ({ words }) => ({ label: words(LABEL) }),
    words: ({ label }) => (label ? `section ${label} begins` : 'no section begins')
  }),
  role: described<{ note: string; role: NoteRole }>({
    schema: ({ key, oneOf }) => ({ note: key, role: oneOf(NOTE_ROLES) }),
    words: ({ role }) => `note is ${role}`
  }),
  /** The note belongs to this voice of a line that holds several. */
  voice: described<{ note: string; voice: VoiceName }>({
    schema: ({ key, oneOf }) => ({ note: key, voice: oneOf(VOICE_NAMES) }),
    words: ({ voice }) => `note in the ${voice} voice`
  }),
  /** Two places of equal length, in quarters, are the same music. */
  'same-music': described<{ other: Fraction; length: Fraction }>({
    schema: ({ fraction }) => ({ other: fraction, length: fraction }),
    words: () => 'the same music in two places'
  }),
  /** A fact that the instructor does not want to see, by its id. */
  dismiss: described<{ fact: string; what: string }>({
    schema: ({ key, joi }) => ({ fact: key, what: joi.string().max(80) }),
    words: ({ what }) => `${what} dismissed`
  })
};

type PinKind = keyof typeof PINS;
type FieldsOf<D> = D extends PinDescription<infer F> ? F : never;

/** A correction by the instructor. */
export type Pin = { [K in PinKind]: { id: string; kind: K; start: Fraction } & FieldsOf<(typeof PINS)[K]> }[PinKind];

const PIN_KINDS = Object.keys(PINS) as PinKind[];

/** A correction in words. */
export const pinWords = (pin: Pin): string => (PINS[pin.kind] as PinDescription<unknown>).words(pin);

/** Schema of a correction, by its kind. */
export function pinSchema(kit: SchemaKit): AnySchema {
  return kit.joi.alternatives().conditional('.kind', {
    switch: PIN_KINDS.map((kind) => ({
      is: kind,
      then: kit.record({ id: kit.id, kind: kit.oneOf([kind]), start: kit.fraction, ...PINS[kind].schema(kit) })
    })),
    otherwise: kit.record({ kind: kit.oneOf(PIN_KINDS) }).unknown()
  });
}
