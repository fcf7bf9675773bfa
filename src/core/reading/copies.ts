import type { Facts, ParallelFact } from '../analysis/facts.ts';
import { add, cmp, lt, sub, type Fraction } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { barLabel, measureAt } from '../score/position.ts';
import { dynamicAt, dynamicStep } from '../style/dynamics.ts';
import { soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';

/** A place with the same music as some bars. */
export interface SamePlace {
  parallel: ParallelFact;
  /** True when the bars lie in the fact's second place, and the copy goes to its first. */
  backward: boolean;
  /** First bar of the other place, in words. */
  name: string;
}

/** Parallel places of what lies in [from, to), the longest first. */
export function samePlaces(score: Score, facts: Facts, from: Fraction, to: Fraction): SamePlace[] {
  const inside = (s: { start: Fraction; end: Fraction }): boolean => lt(s.start, to) && cmp(s.end, from) > 0;
  return facts.parallels
    .flatMap((parallel): SamePlace[] => {
      const places: SamePlace[] = [];
      const name = (at: Fraction): string => barLabel(score.measures, measureAt(score, at));
      if (inside(parallel.a)) places.push({ parallel, backward: false, name: name(parallel.b.start) });
      if (inside(parallel.b)) places.push({ parallel, backward: true, name: name(parallel.a.start) });
      return places;
    })
    .sort((a, b) => b.parallel.pairs.length - a.parallel.pairs.length);
}

/**
 * The same markings at the other place, note for note where the notes have partners and at the same distance
 * where a marking hangs on a moment. Dynamics move by `steps` ("same, but a step softer" is -1). What has no
 * partner there, and what stands there already, is left out.
 * @param id makes the id of a copy from its model's
 */
export function copiesAt(
  score: Score,
  markings: readonly Marking[],
  place: SamePlace,
  steps: number,
  id: (model: Marking) => string
): Marking[] {
  const { parallel, backward } = place;
  const partner = new Map(parallel.pairs.map(([a, b]) => (backward ? [b, a] : [a, b]) as [string, string]));
  const notes = new Map(score.notes.map((n) => [n.id, n]));
  const [from, to] = backward ? [parallel.b, parallel.a] : [parallel.a, parallel.b];
  const shift = sub(to.start, from.start);
  const noteAt = (own: string | undefined): Note | null => (own === undefined ? null : (notes.get(partner.get(own) ?? '') ?? null));
  return markings.flatMap((m): Marking[] => {
    if (lt(m.start, from.start) || !lt(m.start, from.end)) return [];
    const note = noteAt(m.note);
    if (m.note && !note) return [];
    const endNote = noteAt(m.endNote);
    if (m.endNote && !endNote) return [];
    const start = note?.start ?? add(m.start, shift);
    let value = m.value;
    const { sign } = soundOf(m);
    if (sign !== undefined && steps) {
      const step = dynamicStep(sign);
      if (step !== null) value = dynamicAt(step + steps);
    }
    if (markings.some((o) => o.kind === m.kind && o.value === value && cmp(o.start, start) === 0)) return [];
    const rest = { ...m };
    delete rest.proposal;
    const manner = steps === 0 ? 'the same' : steps < 0 ? 'the same, but softer' : 'the same, but louder';
    const copy: Marking = {
      ...rest,
      id: id(m),
      value,
      start,
      because: [...m.because, { text: `As in ${barLabel(score.measures, measureAt(score, m.start))}: ${manner}.`, facts: [parallel.id] }]
    };
    if (note) Object.assign(copy, { note: note.id, staff: note.staff });
    if (m.end) copy.end = endNote ? endNote.start : add(start, sub(m.end, m.start));
    if (endNote) copy.endNote = endNote.id;
    return [copy];
  });
}
