import { clash } from '../../markings/describe.ts';
import type { MarkingKind } from '../../markings/marking-kind.ts';
import type { Marking } from '../../markings/marking.ts';
import type { Note, Score } from '../../score/model.ts';
import type { Command } from '../commands/index.ts';

/** Note values of a part in some bars, the most frequent first: "quarter", "dotted eighth". */
export function valuesIn(score: Score, part: number, from: number, to: number): string[] {
  const counts = new Map<string, number>();
  for (const n of chosen(score, part, from, to)) counts.set(valueOf(n), (counts.get(valueOf(n)) ?? 0) + 1);
  return [...counts.entries()].sort((a, b) => b[1] - a[1]).map(([value]) => value);
}

const valueOf = (n: Note): string => `${n.dots ? 'dotted ' : ''}${n.type ?? 'note'}`;

const chosen = (score: Score, part: number, from: number, to: number): Note[] =>
  score.notes.filter(
    (n) => n.part === part && n.measure >= from && n.measure <= to && !n.rest && !n.grace && !n.chord && !n.cue && !n.hidden
  );

/**
 * One mark on every note of a value in some bars; notes that have one of the kind already, printed or editorial, keep it.
 * @param noteValue as `valuesIn` names it; null for all
 * @param from,to measure indices, both included
 */
export function onEach(
  score: Score,
  existing: readonly Marking[],
  kind: MarkingKind,
  value: string,
  part: number,
  from: number,
  to: number,
  noteValue: string | null,
  name: () => string
): Command[] {
  return chosen(score, part, from, to).flatMap((n): Command[] => {
    if (noteValue !== null && valueOf(n) !== noteValue) return [];
    const marking: Marking = { id: name(), kind, value, part, staff: n.staff, start: n.start, note: n.id, because: [] };
    const taken = existing.some((m) => m.note === n.id && clash(marking, m)) || n.marks?.some((m) => m.name === value);
    // The end of a tie is no note of its own.
    return taken || n.tie?.stop ? [] : [{ type: 'add-marking', marking }];
  });
}
