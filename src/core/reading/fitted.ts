import { markingName } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { add, cmp, eq, sub, ZERO } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { listed } from '../sentences.ts';
import type { Reading } from './reading.ts';

/** A reading without what its score cannot hold, and what was left out, in sentences. */
export interface Fitted {
  reading: Reading;
  remarks: string[];
}

/** Names of lost markings that are told one by one. */
const MOST_NAMED = 6;

/**
 * Markings at their notes as these stand now: a note that was moved takes its markings along; where a note is gone, what
 * hung on it goes to another that begins then on its staff, or is lost.
 */
function atTheirNotes(markings: readonly Marking[], notes: readonly Note[]): { kept: Marking[]; lost: Marking[] } {
  const byId = new Map(notes.map((n) => [n.id, n]));
  const lost: Marking[] = [];
  let changed = false;
  const kept = markings.flatMap((m): Marking[] => {
    if (!m.note) return [m];
    const note =
      byId.get(m.note) ?? notes.find((n) => !n.rest && !n.grace && n.part === m.part && n.staff === m.staff && eq(n.start, m.start));
    if (note && note.id === m.note && eq(note.start, m.start)) return [m];
    changed = true;
    if (!note) return (lost.push(m), []);
    // A span ends where its last note begins; where that is not known, it keeps its length.
    const end = m.end && ((m.endNote && byId.get(m.endNote)?.start) || add(m.end, sub(note.start, m.start)));
    return [{ ...m, note: note.id, start: note.start, ...(end && { end }) }];
  });
  return { kept: changed ? kept : [...markings], lost };
}

/**
 * Leaves out what hangs on parts and bars that the score does not have, as an earlier version of the program may have stored
 * it: pages, sound and files are made of the rest. Where all fits the reading is given back as it is.
 */
export function fitted(reading: Reading, score: Pick<Score, 'parts' | 'measures'> & Partial<Pick<Score, 'notes'>>): Fitted {
  const last = score.measures.at(-1);
  const remarks: string[] = [];
  let fits = reading;
  if (reading.part >= score.parts.length) {
    fits = { ...fits, part: 0 };
    remarks.push(`The reading is for part ${reading.part + 1}, which the piece does not have; the first one is taken.`);
  }
  const hangs = ({ part, start }: Reading['markings'][number]): boolean =>
    part < score.parts.length && last !== undefined && cmp(start, ZERO) >= 0 && cmp(start, add(last.start, last.length)) <= 0;
  const markings = reading.markings.filter(hangs);
  const lost = reading.markings.length - markings.length;
  if (lost) {
    fits = { ...fits, markings };
    remarks.push(
      `${lost === 1 ? 'A marking hangs' : `${lost} markings hang`} where the piece has no notes and ${lost === 1 ? 'is' : 'are'} left out.`
    );
  }
  if (score.notes) {
    const { kept, lost } = atTheirNotes(fits.markings, score.notes);
    if (kept.some((m, k) => m !== fits.markings[k]) || lost.length) fits = { ...fits, markings: kept };
    if (lost.length) {
      const names = lost
        .slice(0, MOST_NAMED)
        .map((m) => `${markingName(m).toLowerCase()} in bar ${measureAt(score as Score, m.start).number}`);
      const more = lost.length - names.length;
      remarks.push(
        `The note is gone on which ${lost.length === 1 ? 'one marking' : `${lost.length} markings`} hung: ${listed(more ? [...names, `${more} more`] : names)}.`
      );
    }
  }
  const { peak, levels, ceiling } = reading.plan;
  if (peak !== null && peak >= score.measures.length) {
    fits = { ...fits, plan: { peak: null, levels, ceiling } };
    remarks.push('The loudest bar that was chosen is none of the piece; it is found anew.');
  }
  return { reading: fits, remarks };
}
