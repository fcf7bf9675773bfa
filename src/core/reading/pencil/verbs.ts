import { isKindFor, ownWords, valuesFor } from '../../markings/describe.ts';
import type { MarkingKind } from '../../markings/marking-kind.ts';
import { can, type Instrument } from '../../style/instruments/instrument.ts';

/** What a teacher does to notes with the pencil. The word contains the letter of its key. */
export interface Verb {
  key: string;
  word: string;
  kind: MarkingKind;
  /** The value that it puts; without one it asks. */
  value?: string;
  /** Of several chosen notes it takes each, or the last; else the first. */
  takes?: 'each' | 'last';
  /** Asked for so often that it always stands in the strip. */
  often?: true;
}

/** In the order in which they stand in the strip. Letters are those of our own words. */
const VERBS: readonly Verb[] = [
  { key: 'g', word: 'Grow', kind: 'hairpin', value: 'crescendo', often: true },
  { key: 'f', word: 'Fade', kind: 'hairpin', value: 'diminuendo', often: true },
  { key: 'j', word: 'Join', kind: 'slur', value: 'slur', often: true },
  { key: 'b', word: 'Breathe', kind: 'breath', value: 'breath', takes: 'last', often: true },
  { key: 'b', word: 'Break', kind: 'comma', value: 'comma', takes: 'last', often: true },
  { key: 'u', word: 'Up bow', kind: 'bowing', value: 'up-bow', often: true },
  { key: 'd', word: 'Down bow', kind: 'bowing', value: 'down-bow', often: true },
  { key: 'l', word: 'Level', kind: 'dynamic', often: true },
  { key: 't', word: 'Touch', kind: 'articulation', takes: 'each', often: true },
  { key: 'w', word: 'Weigh', kind: 'accent', takes: 'each', often: true },
  { key: 's', word: 'Say', kind: 'text', often: true },
  { key: 'a', word: 'Pause', kind: 'fermata', value: 'fermata', takes: 'last' },
  { key: 'm', word: 'Tempo', kind: 'tempo' },
  { key: 'o', word: 'Ornament', kind: 'ornament' },
  { key: 'i', word: 'String', kind: 'string' },
  { key: 'n', word: 'Harmonic', kind: 'harmonic' },
  { key: 'k', word: 'Stick', kind: 'sticking', takes: 'each' },
  { key: 'k', word: 'Take with', kind: 'hand' },
  { key: 'p', word: 'Pedal', kind: 'pedal', value: 'pedal' },
  { key: 'v', word: 'Octave', kind: 'octave' },
  { key: 'y', word: 'Play as', kind: 'manner' },
  { key: 'z', word: 'Jazz', kind: 'inflection', takes: 'each' },
  { key: 'c', word: 'Cue', kind: 'cue' },
  { key: 'e', word: 'Emend', kind: 'emendation' }
];

/** Any figure is a finger. */
export const FINGER: Verb = { key: '1', word: 'Finger', kind: 'fingering', often: true };

const FINGERS = /^[0-5]$/;

/** What can be done to the notes of an instrument. */
export function verbsFor(instrument: Instrument): Verb[] {
  const fitting = VERBS.filter((v) => isKindFor(v.kind, instrument));
  // Who breathes has the breath under its key; where nothing is known of the instrument, the small parting is for all.
  const breathes = can(instrument, 'breathes');
  const usual = fitting.filter((v) => v.key !== 'b' || (v.kind === 'breath') === breathes);
  return isKindFor(FINGER.kind, instrument) ? [...usual, FINGER] : usual;
}

/** The verb of a key for an instrument, with the value that the key gives by itself. */
export function verbOfKey(key: string, instrument: Instrument): Verb | null {
  const verbs = verbsFor(instrument);
  if (FINGERS.test(key)) return verbs.includes(FINGER) ? { ...FINGER, value: key } : null;
  return verbs.find((v) => v.key === key.toLowerCase() && v !== FINGER) ?? null;
}

/** Values among which a verb asks; null where it takes words of one's own, or asks nothing. */
export const choicesOf = (verb: Verb, instrument: Instrument): readonly string[] | null =>
  verb.value !== undefined ? null : (valuesFor(verb.kind, instrument) ?? ownWords(verb.kind)?.offered?.(instrument) ?? null);

/** What stands in the empty field of a verb that takes words of one's own. */
export const hintOf = (verb: Verb): string => ownWords(verb.kind)?.hint ?? '';
