import { soundOf } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { add, toNumber } from '../../score/fraction.ts';
import type { Note, Score } from '../../score/model.ts';
import { measureAt } from '../../score/position.ts';
import { DRAFT } from '../../style/draft-weights.ts';
import { searchBy } from '../../search.ts';
import { dynamicStep } from '../../style/dynamics.ts';

/** A stretch of time in quarters. */
export interface Stretch {
  from: number;
  to: number;
}

export interface LevelMark {
  at: number;
  step: number;
}

/** A note of the part with its times in quarters. */
interface Timed {
  note: Note;
  from: number;
  to: number;
}

const TIMED = searchBy((t: Timed) => t.from);

/** Signs that stand on a page: printed ones, and those that were chosen. Times in quarters. */
interface Signs {
  levels: LevelMark[];
  hairpins: (Stretch & { up: boolean })[];
  slurs: Stretch[];
  /** Words, tempi and metronome marks. */
  words: number[];
  /** Ids of notes that carry a sign of attack, length or breath. */
  marked: Set<string>;
  /** Chosen signs that begin in each measure. */
  chosen: Map<number, number>;
  /** Kinds with their values that were chosen. */
  values: Set<string>;
}

/** What does not change while marks are chosen. */
interface Ground {
  score: Score;
  part: number;
  timed: Timed[];
  longest: number;
  byStart: Map<number, Note[]>;
  /** Printed signs of the part. */
  printed: number;
}

/** What stands on the page of one part, printed and chosen: what a further mark must fit. */
export class PartPage {
  private constructor(
    private readonly ground: Ground,
    readonly signs: Signs
  ) {}

  /** The page as it is printed. */
  static of(score: Score, part: number): PartPage {
    const timed = score.notes
      .filter((n) => n.part === part && !n.cue && !n.grace)
      .map((note) => ({ note, from: toNumber(note.start), to: toNumber(add(note.start, note.duration)) }))
      .sort((a, b) => a.from - b.from);
    const signs: Signs = { levels: [], hairpins: [], slurs: [], words: [], marked: new Set(), chosen: new Map(), values: new Set() };
    const byStart = new Map<number, Note[]>();
    let printed = 0;
    for (const { note, from } of timed) {
      const here = byStart.get(from);
      if (here) here.push(note);
      else byStart.set(from, [note]);
      if (!note.marks?.length) continue;
      printed++;
      signs.marked.add(note.id);
    }
    for (const d of score.directions) {
      if (d.part !== part || (d.kind !== 'dynamic' && d.kind !== 'words')) continue;
      printed++;
      const step = d.kind === 'dynamic' ? dynamicStep(d.value) : null;
      if (step !== null) signs.levels.push({ at: toNumber(d.start), step });
      if (d.kind === 'words') signs.words.push(toNumber(d.start));
    }
    for (const h of score.hairpins)
      if (h.part === part) {
        printed++;
        signs.hairpins.push({ from: toNumber(h.start), to: toNumber(h.end), up: h.kind === 'crescendo' });
      }
    const starts = new Map(timed.map((t) => [t.note.id, t.from]));
    for (const s of score.slurs) {
      const [from, to] = [starts.get(s.from), starts.get(s.to)];
      if (s.kind !== 'slur' || from === undefined || to === undefined) continue;
      printed++;
      signs.slurs.push({ from, to });
    }
    const longest = Math.max(0, ...timed.map((t) => t.to - t.from));
    return new PartPage({ score, part, timed, longest, byStart, printed }, signs);
  }

  copy(): PartPage {
    const s = this.signs;
    return new PartPage(this.ground, {
      levels: [...s.levels],
      hairpins: [...s.hairpins],
      slurs: [...s.slurs],
      words: [...s.words],
      marked: new Set(s.marked),
      chosen: new Map(s.chosen),
      values: new Set(s.values)
    });
  }

  get part(): number {
    return this.ground.part;
  }

  /** Printed signs a bar. */
  get density(): number {
    return this.ground.printed / Math.max(1, this.ground.score.measures.length);
  }

  /** Takes a chosen mark onto the page. */
  take(m: Omit<Marking, 'id'>): void {
    const { signs } = this;
    const at = toNumber(m.start);
    const measure = measureAt(this.ground.score, m.start).index;
    signs.chosen.set(measure, (signs.chosen.get(measure) ?? 0) + 1);
    signs.values.add(`${m.kind} ${m.value}`);
    const { sign } = soundOf(m);
    const step = sign === undefined ? null : dynamicStep(sign);
    if (step !== null) signs.levels.push({ at, step });
    if (m.kind === 'hairpin' && m.end) signs.hairpins.push({ from: at, to: toNumber(m.end), up: m.value === 'crescendo' });
    if (m.kind === 'slur' && m.end) signs.slurs.push({ from: at, to: toNumber(m.end) });
    if (m.kind === 'text' || m.kind === 'tempo' || m.kind === 'metronome') signs.words.push(at);
    if (m.note && m.kind !== 'slur') signs.marked.add(m.note);
    if (m.kind === 'breath' || m.kind === 'comma') signs.marked.add(`${m.note} breath`);
  }

  /** The level in force at a moment, marks at it included; null where nothing has been said. */
  levelAt(at: number): LevelMark | null {
    let found: LevelMark | null = null;
    for (const l of this.signs.levels) if (l.at <= at && (!found || l.at >= found.at)) found = l;
    return found;
  }

  nextLevel(after: number): LevelMark | null {
    let found: LevelMark | null = null;
    for (const l of this.signs.levels) if (l.at > after && (!found || l.at < found.at)) found = l;
    return found;
  }

  /** Notes and rests that begin within a stretch. */
  within({ from, to }: Stretch): Timed[] {
    const { timed } = this.ground;
    const found: Timed[] = [];
    for (let k = this.indexAt(from); k < timed.length && timed[k].from < to; k++) found.push(timed[k]);
    return found;
  }

  /** Some voice sounds all the way from one moment to another, short silences aside. */
  sounds({ from, to }: Stretch): boolean {
    const { timed, longest } = this.ground;
    let reached = from;
    for (let k = this.indexAt(from - longest); k < timed.length && timed[k].from < to; k++) {
      const { note, from: start, to: end } = timed[k];
      if (note.rest || end <= from) continue;
      if (start - reached >= DRAFT.silence) return false;
      reached = Math.max(reached, end);
    }
    return to - reached < DRAFT.silence;
  }

  notesAt(at: number): readonly Note[] {
    return this.ground.byStart.get(at) ?? [];
  }

  /** The first note or rest that begins at or after a moment. */
  private indexAt(at: number): number {
    return TIMED.firstFrom(this.ground.timed, at);
  }
}
