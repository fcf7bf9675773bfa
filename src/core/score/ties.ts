import { add, eq, sub, type Fraction } from './fraction.ts';
import type { Note, Score } from './model.ts';

/** Written length of a note with all that is tied to it, in quarters. */
export function tiedLength(score: Score, note: Note): Fraction {
  let end = add(note.start, note.duration);
  for (let last: Note | undefined = note; last?.tie?.start;) {
    last = score.notes.find(
      (n) =>
        n.tie?.stop &&
        n.part === note.part &&
        eq(n.start, end) &&
        n.pitch?.step === note.pitch?.step &&
        n.pitch?.octave === note.pitch?.octave
    );
    if (last) end = add(end, last.duration);
  }
  return sub(end, note.start);
}
