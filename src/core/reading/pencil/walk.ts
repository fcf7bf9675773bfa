import { cmp, lte } from '../../score/fraction.ts';
import type { Note, Score } from '../../score/model.ts';
import { midi } from '../../score/pitch.ts';

/** What one voice has at one moment: a note, a chord, a rest; highest note first. */
type Moment = readonly Note[];

const height = (n: Note): number => (n.pitch ? midi(n.pitch) : 0);

/** The notes and rests of one part in the order in which one walks through them: along a voice, and across voices and staves. */
export class Walk {
  /** Voices from the top staff down. */
  private readonly lines: Moment[][];
  private readonly places = new Map<string, { line: number; at: number }>();

  constructor(score: Score, part: number) {
    const byVoice = new Map<string, Note[]>();
    for (const n of score.notes) {
      if (n.part !== part || n.cue || n.hidden) continue;
      const key = `${String(n.staff).padStart(2, '0')}|${n.voice.padStart(4, '0')}`;
      const voice = byVoice.get(key);
      if (voice) voice.push(n);
      else byVoice.set(key, [n]);
    }
    this.lines = [...byVoice.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, notes]) => inMoments(notes));
    this.lines.forEach((moments, line) => moments.forEach((moment, at) => moment.forEach((n) => this.places.set(n.id, { line, at }))));
  }

  has(id: string): boolean {
    return this.places.has(id);
  }

  /** The highest note of the first or last moment of the uppermost voice. */
  edge(last: boolean): Note | null {
    return this.lines[0]?.at(last ? -1 : 0)?.[0] ?? null;
  }

  /** All that sounds with a note in its voice, the highest first. */
  moment(id: string): Moment {
    const place = this.places.get(id);
    return place ? this.lines[place.line][place.at] : [];
  }

  /** The next note, chord or rest of the voice, or the one before; null at its end. */
  along(id: string, by: number): Note | null {
    const place = this.places.get(id);
    return (place && this.lines[place.line][place.at + by]?.[0]) ?? null;
  }

  /** The note above or below in its chord, else what is begun or held in the next voice or staff. */
  across(id: string, up: boolean): Note | null {
    const place = this.places.get(id);
    if (!place) return null;
    const moment = this.moment(id);
    const within = moment[moment.findIndex((n) => n.id === id) + (up ? -1 : 1)];
    if (within) return within;
    const other = this.lines[place.line + (up ? -1 : 1)];
    if (!other) return null;
    const there = other.findLast((m) => lte(m[0].start, moment[0].start)) ?? other[0];
    return there[up ? there.length - 1 : 0];
  }

  /** Moments of one voice from one note to another, both included and in order; of another voice, the one that is nearest. */
  between(from: string, to: string): Moment[] {
    const [a, b] = [this.places.get(from), this.places.get(to)];
    if (!a || !b) return [];
    const line = this.lines[a.line];
    const goal = b.line === a.line ? b.at : line.findLastIndex((m) => lte(m[0].start, this.moment(to)[0].start));
    const end = Math.max(0, goal);
    return line.slice(Math.min(a.at, end), Math.max(a.at, end) + 1);
  }

  /** The highest note of the first moment of the uppermost voice in a bar. */
  inBar(measure: number): Note | null {
    for (const line of this.lines) {
      const moment = line.find((m) => m[0].measure === measure);
      if (moment) return moment[0];
    }
    return null;
  }

  /** The last note or rest of a staff in a bar: what stands before its bar line. */
  beforeBarLine(measure: number, staff: number): Note | null {
    const lines = this.lines.filter((l) => l[0][0].staff === staff);
    for (const line of lines) {
      const moment = line.findLast((m) => m[0].measure === measure);
      if (moment) return moment[0];
    }
    return null;
  }
}

function inMoments(notes: readonly Note[]): Moment[] {
  const moments: Note[][] = [];
  // Stable: small notes stand before the note that they belong to, as they do in the source.
  for (const n of [...notes].sort((a, b) => cmp(a.start, b.start))) {
    const last = moments.at(-1);
    if (n.chord && last && cmp(last[0].start, n.start) === 0 && Boolean(last[0].grace) === Boolean(n.grace)) last.push(n);
    else moments.push([n]);
  }
  return moments.map((m) => m.sort((a, b) => height(b) - height(a)));
}
