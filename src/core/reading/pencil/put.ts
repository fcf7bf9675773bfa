import { againstPrinted, clash, inWords, kindOf, valueFault } from '../../markings/describe.ts';
import type { Marking, NewMarking } from '../../markings/marking.ts';
import { add, cmp, lt, type Fraction } from '../../score/fraction.ts';
import type { Note, Score } from '../../score/model.ts';
import type { Command } from '../commands/index.ts';
import type { Verb } from './verbs.ts';
import type { Walk } from './walk.ts';

/** What a verb makes of the chosen notes: acts, the marking that is then in hand, and what print says against it. */
export interface Put {
  commands: Command[];
  marking: string;
  against: string | null;
  /** "hairpin crescendo", for the one act that several make. */
  what: string;
}

/** Why nothing was put, in one sentence. */
export interface Refused {
  refused: string;
}

export const isRefused = (result: object): result is Refused => 'refused' in result;

const endOf = (n: Note): Fraction => add(n.start, n.duration);

/**
 * Puts what a verb says on chosen notes.
 * @param from,to the first and last chosen note, the same for one; a stretch over one note reaches as far as one would draw it
 * @param existing markings of the reading: one of the kind at its place is changed and not doubled
 * @param name makes the id of a marking
 */
export function put(
  score: Score,
  walk: Walk,
  existing: readonly Marking[],
  verb: Verb,
  value: string,
  from: Note,
  to: Note,
  name: () => string
): Put | Refused {
  const fault = valueFault(verb.kind, value);
  if (fault) return { refused: fault };
  const moments = walk.between(from.id, to.id).map((m) => m.find((n) => n.id === from.id) ?? m[0]);
  const made = placedOn(walk, verb, value, moments);
  if ('refused' in made) return made;
  if (!made.length) return { refused: 'There is no note here that lasts.' };
  const commands = made.map((m): Command & { id?: string } => {
    const same = existing.find((e) => isAgain(m, e));
    if (!same) return { type: 'add-marking', marking: { ...m, id: name() } };
    const { kind, start, end, note, endNote } = m;
    const change = { kind, value, start, ...(end ? { end } : {}), ...(note ? { note } : {}), ...(endNote ? { endNote } : {}) };
    return { type: 'change-marking', id: same.id, change };
  });
  const [first] = commands;
  return {
    commands,
    marking: first.type === 'add-marking' ? first.marking.id : (first as { id: string }).id,
    against: made.map((m) => againstPrinted(score, m)).find(Boolean) ?? null,
    what: inWords(made[0])
  };
}

/** Whether a marking is put where one of its kind begins already. What only overlaps, and other words, stand beside it. */
const isAgain = (m: NewMarking, e: Marking): boolean =>
  e.part === m.part && e.staff === m.staff && e.note === m.note && cmp(e.start, m.start) === 0 && clash(m, e);

function placedOn(walk: Walk, { kind, takes }: Verb, value: string, moments: readonly Note[]): NewMarking[] | Refused {
  const { hangs, name } = kindOf(kind);
  const [first] = moments;
  const base = (n: Note): NewMarking => ({ kind, value, part: n.part, staff: n.staff, start: n.start, because: [] });
  const notes = moments.filter((n) => !n.rest);
  if (hangs === 'moment') return [base(first)];
  if (!notes.length) return { refused: `A ${name} needs a note; a rest is chosen.` };
  if (hangs === 'note') {
    const chosen = takes === 'each' ? notes : [takes === 'last' ? notes.at(-1)! : notes[0]];
    return chosen.map((n) => ({ ...base(n), note: n.id }));
  }
  if (hangs === 'stretch') return overStretch(walk, base, notes);
  const last = notes.length > 1 ? notes.at(-1)! : reach(walk, notes[0]);
  return last && last !== notes[0] && lt(notes[0].start, last.start)
    ? [{ ...base(notes[0]), note: notes[0].id, end: last.start, endNote: last.id }]
    : { refused: `A ${name} needs a later note to end on; a rest follows, or the music ends.` };
}

/** From the beginning of the first note to the end of the last; small notes take no time of their own. */
function overStretch(walk: Walk, base: (n: Note) => NewMarking, notes: readonly Note[]): NewMarking[] {
  const whole = notes.filter((n) => !n.grace);
  let first: Note | null = whole[0] ?? notes[0];
  while (first?.grace) first = walk.along(first.id, 1);
  if (!first || first.rest) return [];
  const last = whole.length > 1 ? whole.at(-1)! : (reach(walk, first) ?? first);
  return [{ ...base(first), end: endOf(last) }];
}

/** How far one draws from a single note: to the end of its bar, of the next from its last note; never over a rest. Null for no further. */
function reach(walk: Walk, from: Note): Note | null {
  let last: Note | null = null;
  for (let n = walk.along(from.id, 1); n && !n.rest; n = walk.along(n.id, 1)) {
    if (n.grace) continue;
    if (n.measure > from.measure && last && last.measure === from.measure) break;
    if (n.measure > from.measure + 1) break;
    last = n;
  }
  return last;
}

/**
 * The change that puts an end of a stretch on another note; refused where it would end before it begins.
 * @param which the end that is moved
 */
export function endOn(marking: Marking, which: 'start' | 'end', note: Note): { change: Partial<Omit<Marking, 'id'>> } | Refused {
  const { hangs, name } = kindOf(marking.kind);
  const backwards = { refused: `A ${name} has to end after it begins.` };
  if (note.rest && hangs !== 'stretch') return { refused: `A ${name} needs a note; a rest is chosen.` };
  if (which === 'start') {
    if (marking.end && cmp(note.start, marking.end) >= 0) return backwards;
    return { change: { start: note.start, staff: note.staff, ...(hangs === 'note' || hangs === 'notes' ? { note: note.id } : {}) } };
  }
  if (hangs === 'stretch') return lt(marking.start, endOf(note)) ? { change: { end: endOf(note) } } : backwards;
  if (hangs === 'notes') return lt(marking.start, note.start) ? { change: { end: note.start, endNote: note.id } } : backwards;
  return endOn(marking, 'start', note);
}

/** The note that an end of a marking stands on: where a step of it begins. */
export function noteAtEnd(walk: Walk, score: Score, marking: Marking, which: 'start' | 'end'): Note | null {
  const hung = which === 'end' ? marking.endNote : marking.note;
  if (hung) return score.notes.find((n) => n.id === hung) ?? null;
  const on = score.notes.filter((n) => n.part === marking.part && n.staff === marking.staff && !n.grace && walk.has(n.id));
  // Voices stand one after the other in a source: it is time that counts, of equals the upper voice.
  if (which === 'end' && marking.end)
    return on.filter((n) => lt(n.start, marking.end!)).reduce<Note | null>((a, b) => (a && cmp(b.start, a.start) <= 0 ? a : b), null);
  return on.filter((n) => cmp(n.start, marking.start) >= 0).reduce<Note | null>((a, b) => (a && cmp(a.start, b.start) <= 0 ? a : b), null);
}
