import { nanoid } from 'nanoid';
import type { Command } from '$core/reading/commands/index';
import type { MarkingKind } from '$core/markings/marking-kind';
import type { Marking } from '$core/markings/marking';
import type { Reading } from '$core/reading/reading';
import type { HowItLies, LyingMark } from '$core/technique/told/lying';

/** What may be written into a part of how it lies, by what players call it. */
export const LYING_NAMES = {
  bowing: 'bow',
  fingering: 'finger',
  string: 'string',
  breath: 'breath',
  sticking: 'stick',
  hand: 'hand',
  pedal: 'pedal'
} as const satisfies Partial<Record<MarkingKind, string>>;
export type LyingKind = keyof typeof LYING_NAMES;

const placeOf = ({ kind, note, start }: Pick<LyingMark, 'kind' | 'note' | 'start'>): string => `${kind} ${note ?? `${start.n}/${start.d}`}`;

/** What could be written and does not stand yet. */
export const unwritten = (lies: HowItLies | null, { markings }: Pick<Reading, 'markings'>): LyingMark[] => {
  const standing = new Set(markings.map((m) => placeOf({ ...m, note: m.end ? undefined : m.note })));
  return lies?.marks.filter((m) => !standing.has(placeOf(m))) ?? [];
};

/** Begins the ids of signs that stand on the page without being written. */
export const LYING_ID = 'lies-';

const marking = ({ measure: _, ...mark }: LyingMark, part: number, id: string, because: Marking['because']): Marking => ({
  ...mark,
  id,
  part,
  because
});

/** As they would look on the page. */
export const onPage = (marks: readonly LyingMark[], part: number): Marking[] =>
  marks.map((m) => marking(m, part, `${LYING_ID}${placeOf(m).replace(/[ /]/g, '-')}`, []));

/** Written into the part they stay, and the rest is looked for around them; what stood in their place goes. */
export function writing(marks: readonly LyingMark[], { markings, part }: Pick<Reading, 'markings' | 'part'>): Command[] {
  const places = new Set(marks.map(placeOf));
  const old = markings.filter((m) => m.part === part && places.has(placeOf({ ...m, note: m.end ? undefined : m.note })));
  return [
    ...old.map((m): Command => ({ type: 'remove-marking', id: m.id })),
    ...marks.map((m): Command => ({
      type: 'add-marking',
      marking: marking(m, part, `mark-${nanoid()}`, [{ text: 'As it lies on the instrument.' }])
    }))
  ];
}
