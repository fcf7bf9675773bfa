import type { AttributeChange, KeySignature, Note, Score } from './model.ts';
import { cmp } from './fraction.ts';
import { signatureAlter, staffStep } from './pitch.ts';

export interface AlteredNote {
  note: Note;
  /** The page shows its accidental; false when an earlier one in the bar, or a tie, carries it. */
  printed: boolean;
}

export const keyAlter = (key: KeySignature, step: number): number =>
  key.steps ? (key.steps[step] ?? 0) : signatureAlter(step, key.fifths);

/**
 * All notes whose written pitch differs from the key signature in force on their staff, in document order. What is printed
 * is what the file says; only one that says nothing of accidentals at all is read as an engraver would set it.
 */
export function alteredNotes(score: Score): AlteredNote[] {
  const result: AlteredNote[] = [];
  const says = score.notes.some((n) => n.accidental !== undefined);
  for (const part of score.parts) {
    const changes = part.changes.filter((c) => c.keys);
    const notes = score.notes.filter((n) => n.part === part.index);
    // Accidentals last for a bar in order of time, whatever the voice; grace notes come before their main note.
    const ordered = notes.map((note, k) => ({ note, k })).sort((a, b) => cmp(a.note.start, b.note.start) || a.k - b.k);
    const keys = new Map<number, KeySignature>();
    let next = 0;
    let measure = -1;
    let inBar = new Map<string, number>();
    const ringing = new Map<string, number>();
    for (const { note } of ordered) {
      while (next < changes.length && !isAfter(changes[next], note)) applyKeys(changes[next++], keys);
      if (note.measure !== measure) {
        measure = note.measure;
        inBar = new Map();
      }
      if (!note.pitch || note.cue) continue;
      const place = `${note.staff}|${staffStep(note.pitch)}`;
      const expected = keyAlter(keys.get(note.staff) ?? keys.get(0) ?? { fifths: 0 }, note.pitch.step);
      const tied = note.tie?.stop === true && ringing.get(place) === note.pitch.alter;
      const carried = tied || inBar.get(place) === note.pitch.alter;
      if (note.pitch.alter !== expected) {
        result.push({ note, printed: says ? note.accidental !== undefined : !carried });
      }
      if (!tied) inBar.set(place, note.pitch.alter);
      if (note.tie?.start) ringing.set(place, note.pitch.alter);
      else ringing.delete(place);
    }
  }
  return result;
}

const isAfter = (change: AttributeChange, note: Note): boolean =>
  change.measure > note.measure || (change.measure === note.measure && cmp(change.onset, note.onset) > 0);

function applyKeys(change: AttributeChange, keys: Map<number, KeySignature>): void {
  for (const { staff, key } of change.keys ?? []) {
    if (staff === null) keys.clear();
    keys.set(staff ?? 0, key);
  }
}
