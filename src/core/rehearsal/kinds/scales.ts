import { inSigns } from '../../analysis/words.ts';
import { keyName, keySignature, type Key } from '../../analysis/keys.ts';
import { frac, ZERO } from '../../score/fraction.ts';
import type { KeySignature } from '../../score/model.ts';
import { atStaffStep, midi, staffStep, stepOf, type Pitch } from '../../score/pitch.ts';
import { keyAlter } from '../../score/accidentals.ts';
import { barOf, inARow, rest, type DrillBar, type DrillSound } from '../material.ts';

const MOST_SIGNS = 7;

/**
 * Scale, thirds and chord of a key over what the piece has of the instrument: eighths in 4/4, from the lowest tonic up and down.
 * @param key as it is written @returns nothing where the range holds no octave from a tonic
 */
export function scaleOf(like: DrillBar, key: Key, low: Pitch, high: Pitch): DrillBar[] {
  const fifths = keySignature(key);
  if (Math.abs(fifths) > MOST_SIGNS) return [];
  const signature: KeySignature = { fifths, mode: key.minor ? 'minor' : 'major' };
  const name = keyName(key);
  const tonic = stepOf(name[0]);
  let first = staffStep(low);
  while (((first % 7) + 7) % 7 !== tonic || midi(pitchAt(first, signature)) < midi(low)) first++;
  let octaves = 0;
  while (octaves < 3 && midi(pitchAt(first + 7 * (octaves + 1), signature)) <= midi(high)) octaves++;
  if (!octaves) return [];
  const top = 7 * octaves;
  const degrees = Array.from({ length: top + 1 }, (_, k) => k);
  // In minor the sixth and seventh are raised on the way up. [C]
  const up = (k: number): Pitch => {
    const p = pitchAt(first + k, signature);
    return key.minor && (k % 7 === 5 || k % 7 === 6) ? { ...p, alter: p.alter + 1 } : p;
  };
  const down = (k: number): Pitch => pitchAt(first + k, signature);
  const scale = [...degrees.map(up), ...degrees.slice(0, -1).reverse().map(down)];
  const thirds = degrees.slice(0, -2).flatMap((k) => [down(k), down(k + 2)]);
  const chord = degrees.filter((k) => [0, 2, 4].includes(k % 7)).map(down);
  const bars = (pitches: readonly Pitch[], words: string): DrillBar[] => {
    const sounds = pitches.map((pitch): DrillSound => ({ ...rest(ZERO, frac(1, 2)), heads: [{ pitch, tie: false }] }));
    const result: DrillBar[] = [];
    for (let k = 0; k < sounds.length; k += 8)
      result.push({ ...barOf(like, frac(4), inARow(sounds.slice(k, k + 8)), k ? undefined : words), key: signature, beat: frac(1) });
    return result;
  };
  return [...bars(scale, inSigns(name)), ...bars(thirds, 'in thirds'), ...bars([...chord, ...chord.slice(0, -1).reverse()], 'its chord')];
}

function pitchAt(step: number, key: KeySignature): Pitch {
  const natural = atStaffStep(step, 0);
  return { ...natural, alter: keyAlter(key, natural.step) };
}
