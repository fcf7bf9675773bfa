import type { MarkingKind } from '$core/markings/marking-kind';
import type { Marking } from '$core/markings/marking';
import type { Reading } from '$core/reading/reading';
import type { HowItLies, LyingMark } from '$core/technique/how-it-lies';

/** What may be written into a part of how it lies, by what players call it. */
export const LYING_NAMES = {
  bowing: 'bow',
  fingering: 'finger',
  string: 'string',
  breath: 'breath',
  sticking: 'stick'
} as const satisfies Partial<Record<MarkingKind, string>>;
export type LyingKind = keyof typeof LYING_NAMES;

/** What could be written and does not stand yet. */
export const unwritten = (lies: HowItLies | null, { markings }: Pick<Reading, 'markings'>): LyingMark[] => {
  const standing = new Set(markings.map((m) => `${m.kind} ${m.note}`));
  return lies?.marks.filter((m) => !standing.has(`${m.kind} ${m.note}`)) ?? [];
};

/** Begins the ids of signs that stand on the page without being written. */
export const LYING_ID = 'lies-';

/** As they would look on the page. */
export const onPage = (marks: readonly LyingMark[], part: number): Marking[] =>
  marks.map(({ kind, value, note, start, staff }) => ({
    id: `${LYING_ID}${kind}-${note}`,
    kind,
    value,
    note,
    start,
    staff,
    part,
    because: []
  }));
