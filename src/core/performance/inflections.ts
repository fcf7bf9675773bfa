import { soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import type { Note } from '../score/model.ts';
import { INFLECTIONS, MOST_INFLECTED, PRINTED_INFLECTIONS, type Inflection, type InflectionName } from '../style/inflections.ts';

/** A moment in a note at which its pitch turns. */
export interface Turn {
  /** Seconds from the onset. */
  at: number;
  /** Semitones from its own pitch. */
  semitones: number;
}

/** The inflections of notes: an editorial one outweighs print. */
export class Inflections {
  private readonly editorial = new Map<string, InflectionName>();

  constructor(markings: readonly Marking[]) {
    for (const m of markings) {
      const { inflects } = soundOf(m);
      if (inflects && m.note) this.editorial.set(m.note, inflects);
    }
  }

  of(note: Note): InflectionName | undefined {
    const editorial = this.editorial.get(note.id);
    if (editorial || !note.marks) return editorial;
    const printed = note.marks.find((m) => m.name in PRINTED_INFLECTIONS);
    return printed && PRINTED_INFLECTIONS[printed.name];
  }
}

/** Seconds of a slide that stands for one between two half steps of a run. */
const AT_ONCE = 0.004;

/** How the pitch of a note goes that lasts so many seconds; in a short note all of it is quicker. */
export function turnsOf(name: InflectionName, seconds: number): Turn[] {
  const { turns, chromatic }: Inflection = INFLECTIONS[name];
  const times = turns.map(([at]) => at);
  const needs = Math.max(0, ...times) - Math.min(0, ...times);
  const scale = Math.min(1, (MOST_INFLECTED * seconds) / (needs || 1));
  const fromEnd = times.some((t) => t < 0);
  const points = turns.map(([at, semitones]): Turn => ({ at: fromEnd ? seconds + at * scale : at * scale, semitones }));
  return chromatic ? points.flatMap((p, k) => (k ? stepped(points[k - 1], p) : [p])) : points;
}

/** A run through the half steps from one height to another, the first of which stands already. */
function stepped(from: Turn, to: Turn): Turn[] {
  const count = Math.round(Math.abs(to.semitones - from.semitones));
  const each = (to.at - from.at) / Math.max(1, count);
  return Array.from({ length: count }, (_, k) => {
    const [before, after] = [k, k + 1].map((n) => from.semitones + (n * (to.semitones - from.semitones)) / count);
    const at = from.at + k * each;
    return [
      { at: at + each / 2, semitones: before },
      { at: at + each / 2 + Math.min(AT_ONCE, each / 4), semitones: after }
    ];
  }).flat();
}

/** Height at a moment of a note, in semitones from its own: straight between turns. */
export function heightIn(turns: readonly Turn[], at: number): number {
  const k = turns.findIndex((t) => t.at > at);
  if (k === 0) return turns[0].semitones;
  if (k < 0) return turns[turns.length - 1]?.semitones ?? 0;
  const [a, b] = [turns[k - 1], turns[k]];
  return a.semitones + ((b.semitones - a.semitones) * (at - a.at)) / (b.at - a.at);
}
