import { eq } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';

/** A tune of a set: measures from the first to the last. */
export interface SetTune {
  from: number;
  to: number;
  meter: string | null;
}

/** Where one tune goes into the next. */
export interface SetJoin {
  /** First measure of the next tune. */
  measure: number;
  last: Note;
  next: Note;
  sameMeter: boolean;
}

/** The tunes of a set: each ends with a final bar line that is no repeat. Handbook 19.3. */
export function tunesOf(score: Score): SetTune[] {
  const tunes: SetTune[] = [];
  let from = 0;
  for (const m of score.measures) {
    const final = m.barline === 'light-heavy' && (m.repeatEnd === undefined || score.measures[m.index + 1]?.rehearsal !== undefined);
    if (!final && m.index < score.measures.length - 1) continue;
    tunes.push({ from, to: m.index, meter: score.measures[from].time?.text ?? null });
    from = m.index + 1;
  }
  return tunes;
}

/** How they join: from the last melody note of one to the first of the next. */
export function joinsOf(score: Score, part: number): SetJoin[] {
  const tunes = tunesOf(score);
  const melody = score.notes.filter((n) => n.part === part && !n.rest && !n.grace && n.pitch);
  return tunes.slice(1).flatMap((tune, k): SetJoin[] => {
    const last = melody.findLast((n) => n.measure <= tunes[k].to);
    const next = melody.find((n) => n.measure >= tune.from);
    const [a, b] = [score.measures[tunes[k].from].time, score.measures[tune.from].time];
    const sameMeter = !a?.quarters || !b?.quarters || (eq(a.quarters, b.quarters) && a.unit === b.unit);
    return last && next ? [{ measure: tune.from, last, next, sameMeter }] : [];
  });
}
