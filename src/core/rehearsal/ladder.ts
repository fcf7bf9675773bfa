import { METRONOME } from '../style/drills.ts';

/** The next step of a metronome up or down; the same at its ends. */
export function step(tempo: number, by: 1 | -1): number {
  const scale: readonly number[] = METRONOME;
  const found = by > 0 ? scale.find((t) => t > tempo) : scale.findLast((t) => t < tempo);
  return found ?? tempo;
}

/** A drill's document at another tempo: its metronome mark and what it sounds. */
export const atTempo = (document: string, tempo: number): string =>
  document
    .replace(/<per-minute>[^<]*<\/per-minute>/, `<per-minute>${tempo}</per-minute>`)
    .replace(/<sound tempo="[^"]*"\/>/, `<sound tempo="${tempo}"/>`);
