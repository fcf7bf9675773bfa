import { fifthsName } from '../score/pitch.ts';
import type { ChordFact } from './facts.ts';
import { keySignature, parseKey } from './keys.ts';
import type { Tonality } from './tonality.ts';
import { inSigns } from './words.ts';
import { romanOf, TONES, VOCABULARY, type ChordType } from './vocabulary.ts';

/** A chord of colour beside the plain chord that would stand in its place. */
export interface PlainChord {
  roman: string;
  /** Notes of the plain chord and of the coloured one, spelled, from the bass up. */
  plain: string[];
  coloured: string[];
  /** What differs, in words: "D♭ where the scale has D". */
  words: string;
}

/** A place on the line of fifths as the scale of the signature has its letter. */
function inScale(fifths: number, signature: number): number {
  // Places a letter apart are seven fifths apart; the scale's own lie from one below the tonic of the major key to five above.
  let place = fifths;
  while (place < signature - 1) place += 7;
  while (place > signature + 5) place -= 7;
  return place;
}

const pretty = (fifths: number): string => inSigns(fifthsName(fifths));

/** Turns chord tones so that the one in the bass comes first. */
const fromBass = (tones: readonly number[], inversion: number): number[] => [...tones.slice(inversion), ...tones.slice(0, inversion)];

/**
 * The plain chord in place of one that has notes outside the scale: an applied dominant, a Neapolitan or augmented sixth, a chord
 * borrowed from the other mode. `tonality`: what the key is there, where neither major nor minor. Common practice.
 * @returns null where the chord is plain itself, or no plain chord stands on the same letters
 */
export function plainChord(chord: ChordFact, tonality?: Tonality): PlainChord | null {
  // In the blues and the modes those notes are the scale's own.
  if (tonality) return null;
  const { key } = chord;
  const root = parseKey(`${chord.root} major`)?.tonic;
  if (root === undefined || chord.cadential) return null;
  const signature = keySignature(key);
  const coloured = TONES[chord.quality].map((t) => root + t);
  // The leading note of minor is at home in dominants.
  const atHome = (f: number): boolean => inScale(f, signature) === f || (key.minor && chord.role === 'dominant' && f === key.tonic + 5);
  const foreign = coloured.filter((f) => !atHome(f));
  if (!foreign.length) return null;
  const plain = coloured.map((f) => (atHome(f) ? f : inScale(f, signature)));
  // An augmented sixth stands over the bass of the subdominant's sixth: the plain chord is that subdominant.
  const isSixth = chord.special === 'augmented sixth';
  const names = VOCABULARY[key.minor ? 'minor' : 'major'];
  const fits = (t: ChordType): boolean => {
    const own = TONES[t.quality].map((x) => key.tonic + t.root + x);
    return own.length === Math.min(plain.length, isSixth ? 3 : plain.length) && own.every((x) => plain.includes(x));
  };
  const found = names.filter((t) => t.role !== 'applied' && !t.special).find(fits);
  if (!found) return null;
  const tones = TONES[found.quality].map((x) => key.tonic + found.root + x);
  const bass = isSixth ? plain[0] : plain[Math.min(chord.inversion, plain.length - 1)];
  const inversion = Math.max(0, tones.indexOf(bass));
  const colouredFromBass = isSixth ? coloured : fromBass(coloured, chord.inversion);
  return {
    roman: romanOf(found, inversion),
    plain: fromBass(tones, inversion).map(fifthsName),
    coloured: colouredFromBass.map(fifthsName),
    words: foreign.map((f) => `${pretty(f)} where the scale has ${pretty(inScale(f, signature))}`).join(', ')
  };
}
