import { add, cmp, eq, lt, lte, mul, sub, toNumber, frac, type Fraction } from '../../score/fraction.ts';
import { beatOfMeter, metricLevel } from '../../score/meter.ts';
import type { Note, Score } from '../../score/model.ts';
import { measureAt } from '../../score/position.ts';
import { midi } from '../../score/pitch.ts';

/** The printed notes as they are read back, without any analysis. */
export interface Page {
  note(id: string): Note | undefined;
  /** Notes by id, in the given order; null where one of them is missing or a rest. */
  notes(ids: readonly string[] | undefined): Note[] | null;
  /** Where a note ends, tied notes joined. */
  end(note: Note): Fraction;
  /** What comes next in the note's own voice, rests included, and what came before it. */
  next(note: Note): Note | null;
  previous(note: Note): Note | null;
  /** Sounding notes of a part in a measure, small and cue notes left out. */
  inMeasure(part: number, measure: number): readonly Note[];
  /** Those that begin within [from, to). */
  within(part: number, from: Fraction, to: Fraction): Note[];
  /** Small notes before a note. */
  graces(note: Note): Note[];
}

const pages = new WeakMap<Score, Page>();

export function pageOf(score: Score): Page {
  const known = pages.get(score);
  if (known) return known;
  const page = readPage(score);
  pages.set(score, page);
  return page;
}

function readPage(score: Score): Page {
  const graces = new Map<string, Note[]>();
  const byId = new Map(score.notes.map((n) => [n.id, n]));
  const bars = new Map<string, Note[]>();
  const voices = new Map<string, Note[]>();
  const put = (map: Map<string, Note[]>, key: string, note: Note): void => {
    const list = map.get(key);
    if (list) list.push(note);
    else map.set(key, [note]);
  };
  for (const n of score.notes) {
    if (n.grace && !n.cue) put(graces, staffMoment(n), n);
    if (n.cue || n.grace) continue;
    put(voices, voiceOf(n), n);
    if (!n.rest) put(bars, `${n.part} ${n.measure}`, n);
  }
  for (const list of voices.values()) list.sort((a, b) => cmp(a.start, b.start));
  /** Index of the first in a note's voice that begins at a moment or later. */
  const firstFrom = (list: readonly Note[], at: Fraction): number => {
    let low = 0;
    let high = list.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (lt(list[middle].start, at)) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const voice = (note: Note): readonly Note[] => voices.get(voiceOf(note)) ?? [];
  const next = (note: Note): Note | null => voice(note)[firstFrom(voice(note), add(note.start, note.duration))] ?? null;
  const tied = (note: Note): Note | null => {
    if (!note.tie?.start) return null;
    const at = add(note.start, note.duration);
    const { index } = measureAt(score, at);
    const same = (bars.get(`${note.part} ${index}`) ?? []).find(
      (n) => n.tie?.stop && eq(n.start, at) && n.pitch?.step === note.pitch?.step && n.pitch?.octave === note.pitch?.octave
    );
    return same ?? null;
  };
  const last = (note: Note): Note => {
    let at = note;
    for (let more = tied(at); more && more !== at; more = tied(at)) at = more;
    return at;
  };
  const inMeasure = (part: number, measure: number): readonly Note[] => bars.get(`${part} ${measure}`) ?? [];
  return {
    note: (id) => byId.get(id),
    notes: (ids) => {
      const found = (ids ?? []).map((id) => byId.get(id));
      return found.length && found.every((n) => n && !n.rest) ? (found as Note[]) : null;
    },
    end: (note) => {
      const end = last(note);
      return add(end.start, end.duration);
    },
    next: (note) => next(last(note)),
    previous: (note) => voice(note)[firstFrom(voice(note), note.start) - 1] ?? null,
    inMeasure,
    within: (part, from, to) => {
      const found: Note[] = [];
      for (let m = measureAt(score, from).index; m < score.measures.length && lt(score.measures[m].start, to); m++)
        found.push(...inMeasure(part, m).filter((n) => lte(from, n.start) && lt(n.start, to)));
      return found;
    },
    graces: (note) => graces.get(staffMoment(note)) ?? []
  };
}

const staffMoment = (n: Note): string => `${n.part} ${n.staff} ${n.start.n}/${n.start.d}`;
const voiceOf = (n: Note): string => `${n.part} ${n.staff} ${n.voice}`;

/** Written pitch in semitones; 0 for what has none. */
export const pitchOf = (n: Note): number => (n.pitch ? midi(n.pitch) : 0);

/** Place on the staff, in steps. */
export const heightOf = (n: Note): number => (n.pitch ? 7 * n.pitch.octave + n.pitch.step : 0);

export const lengthOf = (page: Page, n: Note): Fraction => sub(page.end(n), n.start);

/** Length in quarters, ties joined. */
export const quartersOf = (page: Page, n: Note): number => toNumber(lengthOf(page, n));

export const marked = (n: Note, name: RegExp): boolean => n.marks?.some((m) => name.test(m.name)) ?? false;

/** Metrical level of the place at which a note begins: 3 bar line … -1 finer than half a beat. */
export const placeLevel = (score: Score, n: Note): number => levelIn(score, n.measure, n.onset);

/** Metrical level of an onset in a measure; the second part of a bar that a repeat divides counts on from the first. */
function levelIn(score: Score, index: number, onset: Fraction): number {
  const [before, bar] = [score.measures[index - 1], score.measures[index]];
  const full = bar.time?.quarters;
  const goesOn = before && full && lt(before.length, full) && eq(add(before.length, bar.length), full) && !eq(before.length, frac(0));
  return goesOn && index > 1 ? metricLevel({ ...bar, index: -1, length: full }, add(before.length, onset)) : metricLevel(bar, onset);
}

/** The highest metrical level that a note is held across. */
export function levelCrossed(score: Score, page: Page, n: Note): number {
  const end = page.end(n);
  let found = -2;
  for (let m = n.measure; m < score.measures.length && lt(score.measures[m].start, end); m++) {
    const bar = score.measures[m];
    const step = mul(beatOfMeter(bar).beat, frac(1, 2));
    for (let at = frac(0); lt(at, bar.length); at = add(at, step)) {
      const time = add(bar.start, at);
      if (lt(n.start, time) && lt(time, end)) found = Math.max(found, levelIn(score, m, at));
    }
  }
  return found;
}

/** Every note begins where the one before it ends. */
export const inARow = (page: Page, notes: readonly Note[]): boolean =>
  notes.every((n, k) => k === 0 || eq(n.start, page.end(notes[k - 1])));

/** A printed slur reaches from a note, or before it, to another, or beyond it. */
export const slurOver = (score: Score, page: Page, a: Note, b: Note): boolean =>
  score.slurs.some((s) => {
    if (s.kind !== 'slur') return false;
    const [from, to] = [page.note(s.from), page.note(s.to)];
    return from !== undefined && to !== undefined && from.part === a.part && lte(from.start, a.start) && lte(b.start, to.start);
  });

/** Nothing of the part begins between the end of a note and a later moment. */
export const silentAfter = (page: Page, n: Note): boolean => {
  const next = page.next(n);
  return !next || next.rest === true || lt(page.end(n), next.start);
};
