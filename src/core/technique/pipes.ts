import { GRACE_SECONDS, GRACE_SHARE, MOVEMENTS, PIPE_NOTES, type MovementName } from '../style/pipe-movements.ts';
import { format } from '../score/fraction.ts';
import type { Pitch } from '../score/pitch.ts';
import { staffStep } from '../score/pitch.ts';
import { lasts, type PlayerLine } from './player-line.ts';

export interface FoundMovement {
  /** The melody note's attack. */
  at: number;
  name: MovementName;
  complete: boolean;
  /** Grace notes that are left out, by their letters. */
  missing: string[];
  /** Seconds that it needs, and that there are. */
  needs: number;
  has: number;
  /** From which note to which, and where in the bar: places that are alike want the same movement. */
  place: string;
}

/** Height of low G on the staff. */
const LOW_G = staffStep({ step: 4, alter: 0, octave: 4 });

/** The letter of a pipe's note; null for what the chanter does not have. */
export const pipeLetter = (p: Pitch): string | null => PIPE_NOTES[staffStep(p) - LOW_G] ?? null;

/** What a pattern has beyond the graces; null where these are not it with one left out. */
function leftOut(graces: string, pattern: string): string | null {
  if (graces.length !== pattern.length - 1) return null;
  for (let k = 0; k < pattern.length; k++) if (pattern.slice(0, k) + pattern.slice(k + 1) === graces) return pattern[k];
  return null;
}

/** Names the movement that grace notes make; null where they make none that has a name. */
export function movementOf(graces: string, from: string | null, to: string): { name: MovementName; missing: string[] } | null {
  const fits = MOVEMENTS.filter(
    (m) =>
      (!m.to || m.to.includes(to)) &&
      (!m.from || (from !== null && m.from.includes(from))) &&
      !(m.notFrom && from !== null && m.notFrom.includes(from))
  );
  // The one that says most of where it stands first.
  const exact = fits
    .filter((m) => m.graces === graces)
    .sort((a, b) => (b.to ? 1 : 0) + (b.from ? 1 : 0) - (a.to ? 1 : 0) - (a.from ? 1 : 0))[0];
  if (exact) return { name: exact.name, missing: [] };
  const height = (letter: string): number => PIPE_NOTES.indexOf(letter);
  // A lower note that parts two of the same.
  if (graces.length === 1) return from === to && height(graces) < height(to) ? { name: 'strike', missing: [] } : null;
  const descends = [...graces].every((g, k) => k === 0 || height(g) < height(graces[k - 1]));
  if (descends && /^[eg]/.test(graces) && height(graces.at(-1)!) > height(to)) return { name: 'cadence', missing: [] };
  for (const m of fits) {
    const missing = m.graces.length > 2 ? leftOut(graces, m.graces) : null;
    if (missing) return { name: m.name, missing: [missing] };
  }
  return null;
}

/** All movements of a line. @param tight how graces are played (school `pipe-movements`) */
export function movements({ attacks }: PlayerLine, tight: boolean): FoundMovement[] {
  const found: FoundMovement[] = [];
  let graces = '';
  let from: string | null = null;
  let before: number | null = null;
  attacks.forEach((a, at) => {
    const pitch = a.notes[0].pitch;
    const letter = pitch ? pipeLetter(pitch) : null;
    if (a.grace) {
      graces += letter ?? '?';
      return;
    }
    const movement = letter && graces ? movementOf(graces, from, letter) : null;
    if (movement) {
      const giver = attacks[before ?? at];
      found.push({
        at,
        ...movement,
        place: `${from}>${letter} ${format(a.notes[0].onset)}`,
        complete: !movement.missing.length,
        needs: graces.length * (tight ? GRACE_SECONDS.tight : GRACE_SECONDS.open),
        has: lasts(giver) * GRACE_SHARE
      });
    }
    graces = '';
    from = letter;
    before = at;
  });
  return found;
}

/** Grips that stand where the same step of the same beat has a taorluath more often. Handbook 19.2. */
export function gripsForTaorluaths(found: readonly FoundMovement[]): { at: number; like: number }[] {
  return found.flatMap((m) => {
    if (m.name !== 'grip') return [];
    const alike = found.filter((o) => o.place === m.place);
    const whole = alike.filter((o) => o.name === 'taorluath');
    return whole.length > alike.length - whole.length ? [{ at: m.at, like: whole[0].at }] : [];
  });
}
