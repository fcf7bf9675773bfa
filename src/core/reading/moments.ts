import { cmp, sub, type Fraction } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { barLabel, beatWords, measureAt, positionIn } from '../score/position.ts';

/** A moment at which a marking may stand. */
export interface Place {
  start: Fraction;
  /** The note that begins there (the top one of a chord), if it is no rest. */
  note?: string;
  staff: number;
  label: string;
}

/** "bar 12, beat 3", "upbeat, beat 3". */
export function placeName(score: Score, time: Fraction): string {
  const measure = measureAt(score, time);
  const { beat } = positionIn(measure, sub(time, measure.start));
  return `${barLabel(score.measures, measure)}, beat ${beatWords(beat)}`;
}

/** All moments of one part in a range of measures (both included) at which something begins, by staff. */
export function placesIn(score: Score, part: number, from: number, to: number): Place[] {
  const byMoment = new Map<string, { note: Note; top: Note }>();
  for (const note of score.notes) {
    if (note.part !== part || note.measure < from || note.measure > to || note.cue || note.grace) continue;
    const key = `${note.staff}|${note.start.n}/${note.start.d}`;
    const found = byMoment.get(key);
    if (!found) byMoment.set(key, { note, top: note });
    else if (found.top.rest && !note.rest) found.top = note;
  }
  const staves = score.parts[part].staves > 1;
  return [...byMoment.values()]
    .map(({ top }) => {
      const place: Place = {
        start: top.start,
        staff: top.staff,
        label: placeName(score, top.start) + (staves ? ` (staff ${top.staff})` : '')
      };
      if (!top.rest) place.note = top.id;
      return place;
    })
    .sort((a, b) => a.staff - b.staff || cmp(a.start, b.start));
}
