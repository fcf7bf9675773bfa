import { ZERO } from '../score/fraction.ts';
import type { Part, Score } from '../score/model.ts';
import { staffStep } from '../score/pitch.ts';
import { PARTS } from '../style/collation-weights.ts';
import { common, count } from './multiset.ts';
import type { SourceDifference } from './difference.ts';

const nameOf = (p: Part): string => p.name.toLowerCase();

/** What stands in each part, wherever it stands: heights at moments of the bar. */
function contents(score: Score): Map<string, number>[] {
  const parts = score.parts.map(() => new Map<string, number>());
  for (const n of score.notes) if (n.pitch && !n.grace && !n.cue) count(parts[n.part], `${n.onset.n}/${n.onset.d}|${staffStep(n.pitch)}`);
  return parts;
}

/**
 * For each part of a source the part of another that it is, by its name where only one bears it, else by what is in it;
 * null where the other has none.
 */
export function matchParts(a: Score, b: Score): (number | null)[] {
  const match: (number | null)[] = a.parts.map(() => null);
  const free = new Set(b.parts.map((p) => p.index));
  const pair = (i: number, j: number): void => {
    match[i] = j;
    free.delete(j);
  };
  const only = (score: Score, name: string): Part | null => {
    const bearers = score.parts.filter((p) => nameOf(p) === name);
    return bearers.length === 1 ? bearers[0] : null;
  };
  for (const p of a.parts) {
    const other = nameOf(p) ? only(b, nameOf(p)) : null;
    if (other && only(a, nameOf(p))) pair(p.index, other.index);
  }
  const [ours, theirs] = [contents(a), contents(b)];
  // Sources of the same parts are paired whatever is in them; a part more or less must not be taken for another.
  const least = a.parts.length === b.parts.length ? 0 : PARTS.least;
  const pairs = match
    .flatMap((known, i) => (known === null ? [...free].map((j) => ({ i, j, likeness: common(ours[i], theirs[j]) })) : []))
    .sort((x, y) => y.likeness - x.likeness || Math.abs(x.i - x.j) - Math.abs(y.i - y.j));
  for (const { i, j, likeness } of pairs) if (match[i] === null && free.has(j) && likeness >= least) pair(i, j);
  return match;
}

/** A part that a source does not have. */
const missing = (index: number): Part => ({ ...NO_PART, index });
const NO_PART: Part = {
  index: 0,
  id: '',
  name: '',
  staves: 0,
  transpose: { diatonic: 0, chromatic: 0 },
  changes: [],
  measureSpans: []
};
export const isMissing = (p: Part): boolean => p.staves === 0;

/** Another source with its parts in the order of the first; a part that it lacks is an empty one, those that it has more come last. */
export function inPartsOf(a: Score, b: Score): Score {
  const match = matchParts(a, b);
  if (a.parts.length === b.parts.length && match.every((j, i) => j === i)) return b;
  const further = b.parts.map((p) => p.index).filter((j) => !match.includes(j));
  const order = [...match, ...further];
  const place = new Map(order.flatMap((j, i) => (j === null ? [] : [[j, i] as const])));
  const moved = <T extends { part: number }>(list: readonly T[]): T[] => list.map((x) => ({ ...x, part: place.get(x.part)! }));
  return {
    ...b,
    parts: order.map((j, index) => (j === null ? missing(index) : { ...b.parts[j], index })),
    notes: moved(b.notes),
    directions: moved(b.directions),
    hairpins: moved(b.hairpins),
    harmonies: moved(b.harmonies)
  };
}

/** The parts of a source in the order in which its document has them, as the engraver counts its staves. */
export const inDocumentOrder = (parts: readonly Part[]): Part[] =>
  parts.filter((p) => !isMissing(p)).sort((p, q) => p.measureSpans[0].outer.from - q.measureSpans[0].outer.from);

/** Parts that one of the sources lacks. @param b with its parts in the order of the first */
export function collateParts(a: Score, b: Score, out: SourceDifference[]): void {
  const tell = (part: Part, side: 'a' | 'b'): void => {
    const named = `the part “${part.name || `number ${part.index + 1}`}”`;
    out.push({
      id: `part-${side}-${part.index}`,
      kind: 'parts',
      part: side === 'a' ? part.index : 0,
      measure: 0,
      other: side === 'b' ? 0 : null,
      onset: ZERO,
      ours: side === 'a' ? named : 'no such part',
      theirs: side === 'b' ? named : 'no such part',
      ourNotes: [],
      theirNotes: [],
      takeable: false
    });
  };
  for (const p of a.parts) if (isMissing(b.parts[p.index])) tell(p, 'a');
  for (const p of b.parts.slice(a.parts.length)) tell(p, 'b');
}
