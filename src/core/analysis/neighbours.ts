import type { Score, Note } from '../score/model.ts';
import { fifthsOf, signatureAlter, type Pitch } from '../score/pitch.ts';
import { signatureShift } from '../score/transposition.ts';
import { cmp } from '../score/fraction.ts';
import type { Facts } from './facts.ts';
import { keySignature } from './keys.ts';

const mod = (a: number, n: number): number => ((a % n) + n) % n;

/**
 * The neighbour of a note, so many steps above (or below), in the key of its place at written pitch; the leading
 * note of minor is raised. @returns the pitch, and whether the printed signature has another alteration there
 */
export function neighbourOf(score: Score, facts: Facts, note: Note, by: number): { pitch: Pitch; altered: boolean } | null {
  if (!note.pitch) return null;
  const part = score.parts[note.part];
  const shift = signatureShift(part.transpose.chromatic);
  const printed = part.changes.filter((x) => x.measure <= note.measure && x.keys?.length).at(-1)?.keys?.[0].key.fifths ?? 0;
  const key = facts.keys.findLast((k) => cmp(k.start, note.start) <= 0)?.key;
  const written = key ? keySignature(key) - shift : printed;
  const at = note.pitch.step + by;
  const step = mod(at, 7);
  const leading = key?.minor && mod(fifthsOf({ step, alter: 0, octave: 4 }) - (key.tonic - shift), 7) === 5;
  const alter = signatureAlter(step, written) + (leading ? 1 : 0);
  return { pitch: { step, alter, octave: note.pitch.octave + Math.floor(at / 7) }, altered: alter !== signatureAlter(step, printed) };
}
