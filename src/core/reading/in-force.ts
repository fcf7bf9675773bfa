import { cmp, lte, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { metronomeQuarters, tempoMarks } from '../score/tempo.ts';
import { dynamicStep } from '../style/dynamics.ts';
import type { Marking } from './markings.ts';

/** A dynamic level that holds from a moment on. */
export interface Level {
  start: Fraction;
  part: number;
  staff: number;
  sign: string;
  step: number;
  editorial: boolean;
}

/** All dynamic levels, printed and editorial, in order of time. Accents such as sf are left out. */
export function dynamicLevels(score: Score, markings: readonly Marking[] = []): Level[] {
  const levels: Level[] = [];
  for (const d of score.directions) {
    if (d.kind !== 'dynamic') continue;
    const step = dynamicStep(d.value);
    if (step !== null) levels.push({ start: d.start, part: d.part, staff: d.staff, sign: d.value, step, editorial: false });
  }
  for (const m of markings) {
    if (m.kind !== 'dynamic') continue;
    const step = dynamicStep(m.value);
    if (step !== null) levels.push({ start: m.start, part: m.part, staff: m.staff, sign: m.value, step, editorial: true });
  }
  return levels.sort((a, b) => cmp(a.start, b.start));
}

/** The level in force in a part at a moment; null where nothing has been said yet. */
export function levelInForce(levels: readonly Level[], part: number, at: Fraction): Level | null {
  let found: Level | null = null;
  for (const level of levels) {
    if (!lte(level.start, at)) break;
    if (level.part === part) found = level;
  }
  return found;
}

/** Editorial metronome marks with their tempo in quarters a minute, in order of time. */
export const metronomeMarkings = (markings: readonly Marking[]): { start: Fraction; tempo: number }[] =>
  markings
    .flatMap((m) => {
      const match = m.kind === 'metronome' ? /^\s*(\w+)(\.*)\s*=\s*(.+)$/.exec(m.value) : null;
      const tempo = match ? metronomeQuarters({ unit: match[1], dots: match[2].length, perMinute: match[3] }) : 0;
      return tempo ? [{ start: m.start, tempo }] : [];
    })
    .sort((a, b) => cmp(a.start, b.start));

/** Tempo of a reading at a moment in quarters a minute: of the last mark, printed or editorial; an editorial one outweighs the page at its moment. */
export function tempoOfReading(score: Score, markings: readonly Marking[], at: Fraction): number | null {
  const own = metronomeMarkings(markings).findLast((m) => lte(m.start, at));
  const printed = tempoMarks(score).findLast((m) => lte(m.start, at));
  if (own && (!printed || lte(printed.start, own.start))) return own.tempo;
  return printed ? (printed.low + printed.high) / 2 : null;
}
