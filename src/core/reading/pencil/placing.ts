import type { Marking, Placing } from '../../markings/marking.ts';
import { FARTHEST } from '../../markings/schema.ts';

/** Least distance by which a marking is moved: half a staff space. */
export const STEP = 0.5;

const inSteps = (spaces: number): number => Math.max(-FARTHEST, Math.min(FARTHEST, Math.round(spaces / STEP) * STEP));

/** Where a marking stands after it was moved by staff spaces, to the right and up; null where it stands by itself again. */
export function movedBy({ placing = {} }: Pick<Marking, 'placing'>, right: number, up: number): Placing | null {
  const moved: Placing = { ...placing, right: inSteps((placing.right ?? 0) + right), up: inSteps((placing.up ?? 0) + up) };
  if (!moved.right) delete moved.right;
  if (!moved.up) delete moved.up;
  return Object.keys(moved).length ? moved : null;
}

/** On the other side of the staff, where it begins anew at its usual distance. */
export const turnedOver = (side: 'above' | 'below'): Placing => ({ side });
