import { LADDER as W } from '../style/practice.ts';
import { clicks } from '../style/tempo-words.ts';

/** Where one stands on a ladder of tempi. Handbook 21.3. */
export interface Ladder {
  /** Quarters a minute: where the day began, where one is, where it goes. */
  start: number;
  at: number;
  goal: number;
  /** Runs in a row at this tempo. */
  clean: number;
  missed: number;
  /** The quickest that was clean often enough; null before the first. */
  best: number | null;
  /** All runs of the day. */
  runs: { clean: number; missed: number };
}

/** A day begins some steps under the best of before, never under where the task began. @param best of the days before; null where there was none */
export function beginLadder({ start, goal }: { start: number; goal: number }, best: number | null): Ladder {
  const at = best === null ? start : Math.min(goal, Math.max(start, clicks(best, -W.under)));
  return { start: at, at, goal, clean: 0, missed: 0, best: null, runs: { clean: 0, missed: 0 } };
}

/** A clean run: enough of them in a row lead one step up, to the goal and no further. */
export function cleanRun(l: Ladder): Ladder {
  const runs = { ...l.runs, clean: l.runs.clean + 1 };
  if (l.clean + 1 < W.clean) return { ...l, clean: l.clean + 1, missed: 0, runs };
  return { ...l, clean: 0, missed: 0, best: Math.max(l.best ?? 0, l.at), at: Math.min(l.goal, Math.max(l.at, clicks(l.at, 1))), runs };
}

/** A run that failed: the row begins anew; two of them lead two steps back. */
export function missedRun(l: Ladder): Ladder {
  const runs = { ...l.runs, missed: l.runs.missed + 1 };
  if (l.missed + 1 < W.failures) return { ...l, clean: 0, missed: l.missed + 1, runs };
  return { ...l, clean: 0, missed: 0, at: clicks(l.at, -W.back), runs };
}

/** A tempo set by hand; the row begins anew. */
export const atStep = (l: Ladder, by: 1 | -1): Ladder => ({ ...l, at: Math.min(l.goal, clicks(l.at, by)), clean: 0, missed: 0 });

/** A drill's document at another tempo: its metronome mark and what it sounds. */
export const atTempo = (document: string, tempo: number): string =>
  document
    .replace(/<per-minute>[^<]*<\/per-minute>/, `<per-minute>${tempo}</per-minute>`)
    .replace(/<sound tempo="[^"]*"\/>/, `<sound tempo="${tempo}"/>`);
