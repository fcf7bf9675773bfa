import type { Fraction } from '../score/fraction.ts';
import type { Note, NoteMark } from '../score/model.ts';
import type { BarCollector } from './bar-collector.ts';
import { listed, momentOf, type DifferenceKind } from './difference.ts';
import { noteName } from './notes.ts';

const markName = (m: NoteMark): string => m.name.replace(/-/g, ' ') + (m.value && m.group !== 'arpeggio' ? ` ${m.value}` : '');

/** By moment and staff: what stands over the notes there, whichever note of a chord bears it. */
function atMoments(notes: readonly Note[], says: (n: Note) => string[]): Map<string, { onset: Fraction; what: string[]; notes: Note[] }> {
  const map = new Map<string, { onset: Fraction; what: string[]; notes: Note[] }>();
  for (const n of notes) {
    const key = `${n.staff}|${momentOf(n.onset)}`;
    const entry = map.get(key) ?? { onset: n.onset, what: [], notes: [] };
    entry.what.push(...says(n));
    entry.notes.push(n);
    map.set(key, entry);
  }
  for (const e of map.values()) e.what.sort();
  return map;
}

export function collateSigns(ours: readonly Note[], theirs: readonly Note[], out: BarCollector): void {
  const compare = (kind: DifferenceKind, says: (n: Note) => string[]): void => {
    const [mine, other] = [atMoments(ours, says), atMoments(theirs, says)];
    for (const [key, m] of mine) {
      const o = other.get(key);
      // Where the notes themselves differ in time, their signs go with them.
      if (o && m.what.join() !== o.what.join()) out.add(kind, m.onset, listed(m.what), listed(o.what), m.notes, o.notes);
    }
  };
  compare('articulation', (n) =>
    (n.marks ?? []).filter((m) => ['articulation', 'technical', 'fermata', 'arpeggio'].includes(m.group)).map(markName)
  );
  compare('ornament', (n) => [
    ...(n.grace ? [`small note ${noteName(n)}${n.grace.slash ? ' with a stroke' : ''}`] : []),
    ...(n.marks ?? []).filter((m) => m.group === 'ornament').map(markName)
  ]);
}
