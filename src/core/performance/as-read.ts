import { soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { cmp } from '../score/fraction.ts';
import type { Note } from '../score/model.ts';
import { midi } from '../score/pitch.ts';

/** What markings make of a printed note: another pitch, another ornament. */
interface Change {
  meant?: Note['pitch'];
  ornament?: string;
}

/** Notes as a reading has them where it departs from print: emended, an octave away, with an ornament of its own or without. */
export class NotesAsRead {
  private readonly changes = new Map<string, Change>();
  private readonly octaves: { m: Marking; by: number }[] = [];
  private readonly known = new Map<string, Note>();

  constructor(markings: readonly Marking[]) {
    for (const m of markings) {
      const { meant, ornament, octave } = soundOf(m);
      if (octave && m.end) this.octaves.push({ m, by: 12 * octave });
      if (m.note && (meant || ornament))
        this.changes.set(m.note, { ...this.changes.get(m.note), ...(meant ? { meant } : {}), ...(ornament ? { ornament } : {}) });
    }
  }

  /** The note as it is read; the printed one itself where nothing is changed. */
  note(printed: Note): Note {
    const change = this.changes.get(printed.id);
    if (!change) return printed;
    let read = this.known.get(printed.id);
    if (!read) {
      read = { ...printed };
      if (change.meant && printed.pitch) read.pitch = change.meant;
      if (change.ornament) {
        const others = (printed.marks ?? []).filter((m) => m.group !== 'ornament');
        read.marks = change.ornament === 'none' ? others : [...others, { group: 'ornament', name: change.ornament }];
      }
      this.known.set(printed.id, read);
    }
    return read;
  }

  /** Semitones that a note sounds higher than it is printed. */
  shift(printed: Note): number {
    const meant = this.changes.get(printed.id)?.meant;
    const emended = meant && printed.pitch ? midi(meant) - midi(printed.pitch) : 0;
    return emended + this.octave(printed);
  }

  /** Semitones by which the stretch that it stands in sounds higher. */
  octave({ part, staff, start }: Note): number {
    return this.octaves.reduce(
      (sum, { m, by }) => (m.part === part && m.staff === staff && cmp(m.start, start) <= 0 && cmp(start, m.end!) < 0 ? sum + by : sum),
      0
    );
  }
}
