import { keyAlter } from '../score/accidentals.ts';
import { atStaffStep, staffStep, type Pitch } from '../score/pitch.ts';
import { topOf } from './player-line.ts';
import type { Technique } from './technique.ts';

/** The written pitch with which an attack is trilled, in the key of its bar; null where it is not. */
export function upperOf(t: Pick<Technique, 'line'>, at: number): Pitch | null {
  const top = topOf(t.line.attacks[at]);
  if (!top.pitch || !top.marks?.some((m) => m.name === 'trill-mark')) return null;
  const upper = atStaffStep(staffStep(top.pitch) + 1, 0);
  return { ...upper, alter: keyAlter(t.line.score.measures[top.measure].key, upper.step) };
}
