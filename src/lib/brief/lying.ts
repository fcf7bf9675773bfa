import { nanoid } from 'nanoid';
import type { Command } from '$core/reading/commands/index';
import type { RowEntry } from '$core/edition/mei';
import type { MarkingKind } from '$core/markings/marking-kind';
import type { Marking } from '$core/markings/marking';
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

/** What already stands in the part. */
interface Marked {
  readonly part: number;
  readonly markings: readonly Marking[];
}

const placeOf = ({ kind, note, start }: Pick<LyingMark, 'kind' | 'note' | 'start'>): string => `${kind} ${note ?? `${start.n}/${start.d}`}`;

/** What could be written, an editor would write, and does not stand yet. */
export const unwritten = (lies: HowItLies | null, { markings }: Pick<Marked, 'markings'>): LyingMark[] => {
  const standing = new Set(markings.map((m) => placeOf({ ...m, note: m.end ? undefined : m.note })));
  return lies?.marks.filter((m) => m.needed && !standing.has(placeOf(m))) ?? [];
};

/** Begins the ids of signs that stand on the page without being written. */
export const LYING_ID = 'lies-';

const marking = ({ measure: _, needed: __, ...mark }: LyingMark, part: number, id: string, because: Marking['because']): Marking => ({
  ...mark,
  id,
  part,
  because
});

/** As they would look on the page. */
export const onPage = (marks: readonly LyingMark[], part: number): Marking[] =>
  marks.map((m) => marking(m, part, `${LYING_ID}${placeOf(m).replace(/[ /]/g, '-')}`, []));

/** Written into the part they stay, and the rest is looked for around them; what stood in their place goes. */
export function writing(marks: readonly LyingMark[], { markings, part }: Marked): Command[] {
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

/** What some notes are played with and do not say yet. */
export function lyingAt(lies: HowItLies | null, reading: Pick<Marked, 'markings'>, notes: ReadonlySet<string>): LyingMark[] {
  if (!lies || !notes.size) return [];
  const standing = new Set(reading.markings.filter((m) => m.note && notes.has(m.note)).map((m) => `${m.kind} ${m.note}`));
  return lies.marks.filter((m) => m.note && notes.has(m.note) && !standing.has(`${m.kind} ${m.note}`));
}

/** Where the bow passes over a string, as short lines between the notes. */
export const crossingRows = (lies: HowItLies | null): RowEntry[] =>
  (lies?.crossings ?? []).map(({ from, to, start }) => ({
    id: `crossing-${from}`,
    start,
    text: '',
    row: 'crossings',
    between: [from, to]
  }));

/** Seconds at breaths, or names at movements, over the staff of the part. */
export const wordRows = (lies: HowItLies | null, of: 'breath' | 'movement', staff: number): RowEntry[] =>
  (lies?.words ?? [])
    .filter((w) => w.of === of)
    .map(({ start, text }) => ({ id: `lies-word-${of}-${start.n}-${start.d}`, start, text, row: 'lies', staff }));
