import { cmp, lte, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
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
