import { neighbourOf } from '../analysis/neighbours.ts';
import type { Facts } from '../analysis/facts.ts';
import { add, cmp, frac, min, mul, sub, toNumber, ZERO, type Fraction } from '../score/fraction.ts';
import type { Note, NoteMark, Score } from '../score/model.ts';
import { midi, transpose, type Pitch } from '../score/pitch.ts';
import { APPOGGIATURA_SHARE, EVEN_TURN, FLICK_NOTES, TRILL_RATE } from '../style/ornaments.ts';
import { SMALL_NOTES } from '../style/performance-weights.ts';
import { PLAYER_WORDS } from '../style/player-words.ts';

/** One note of an ornament as it is played; times in quarters from the beginning of the written note. */
export interface OrnamentNote {
  /** Written pitch. */
  pitch: Pitch;
  midi: number;
  /** Negative for small notes before the beat. */
  at: Fraction;
  length: Fraction;
  /** The written note itself, or what stays of it. */
  main: boolean;
}

/** An ornament written out, with what it takes for granted. */
export interface Realisation {
  notes: OrnamentNote[];
  /** "trill from above, 8 notes" */
  says: string;
  /** Seconds of its shortest note at the tempo it was written out for. */
  shortest: number;
  /** It is to be played before the beat: the note itself keeps its time. */
  before: boolean;
}

/** An answer to the pipers' question of placing; undefined for others. */
export const placingOf = (answer: string | undefined): OrnamentSchool['placing'] =>
  answer === 'on-beat' || answer === 'before-beat' ? answer : undefined;

export interface OrnamentSchool {
  trillStart: 'upper' | 'main';
  appoggiatura: 'long' | 'short';
  /** Where the pipers' movements stand; elsewhere the school of the appoggiatura decides. */
  placing?: 'before-beat' | 'on-beat';
  /** Words of the reading at the note ("turn late", "with an ending", "one flick"). */
  words: readonly string[];
}

const ALTERS: Record<string, number> = { sharp: 1, flat: -1, natural: 0, 'double-sharp': 2, 'flat-flat': -2 };

/** Written-out forms of the ornaments of a note, exact fractions of its value. Handbook 8. */
class Writer {
  private readonly notes: OrnamentNote[] = [];
  private at: Fraction = ZERO;

  constructor(
    private readonly score: Score,
    private readonly facts: Facts,
    private readonly note: Note,
    private readonly mark: NoteMark | null
  ) {}

  /** Adds a neighbour (or the note itself for 0) of a length. */
  put(by: number, length: Fraction): void {
    const pitch = by === 0 ? this.note.pitch! : this.neighbour(by);
    this.notes.push({
      pitch,
      midi: midi(transpose(pitch, this.score.parts[this.note.part].transpose)),
      at: this.at,
      length,
      main: by === 0
    });
    this.at = add(this.at, length);
  }

  done(says: string, tempo: number): Realisation {
    const shortest = Math.min(...this.notes.map((n) => toNumber(n.length)));
    return { notes: this.notes, says, shortest: (shortest * 60) / tempo, before: false };
  }

  /** A sign at the ornament outweighs the key: above for the upper note, below for the lower. */
  private neighbour(by: number): Pitch {
    const found = neighbourOf(this.score, this.facts, this.note, by)!.pitch;
    const sign = this.mark?.accidentals?.find((a) => (by > 0 ? a.placement !== 'below' : a.placement === 'below'));
    return sign && sign.value in ALTERS ? { ...found, alter: ALTERS[sign.value] } : found;
  }
}

/** Numbers of equal notes into which a trill may divide its note. */
const DIVISIONS = [4, 6, 8, 12, 16, 24, 32, 48, 64, 96, 128, 192, 256];

/**
 * The ornament of a note written out; null when it bears none that is played.
 * @param length written length in quarters, ties included
 * @param tempo quarters a minute
 * @param next the note after it, for a trill's ending
 */
export function realise(
  score: Score,
  facts: Facts,
  note: Note,
  length: Fraction,
  tempo: number,
  school: OrnamentSchool,
  graces: readonly Note[] = [],
  next: Note | null = null
): Realisation | null {
  if (!note.pitch) return null;
  const mark = note.marks?.find((m) => m.group === 'ornament' && m.name !== 'accidental-mark' && m.name !== 'wavy-line') ?? null;
  if (graces.length) return small(score, note, length, tempo, school, graces);
  if (!mark) return null;
  const w = new Writer(score, facts, note, mark);
  const says = (text: string): boolean => school.words.some((x) => x.includes(text));
  switch (mark.name) {
    case 'trill-mark': {
      const seconds = (toNumber(length) * 60) / tempo;
      const most = Math.floor(2 * TRILL_RATE.most * seconds);
      const from = says(PLAYER_WORDS.trillFrom.upper) ? 'upper' : says(PLAYER_WORDS.trillFrom.main) ? 'main' : school.trillStart;
      if (most < 4 || says(PLAYER_WORDS.flick)) {
        // On a very short note one flick is a trill (handbook 8.2).
        const part = mul(length, frac(1, 4));
        const flick = from === 'upper' ? FLICK_NOTES.upper : FLICK_NOTES.main;
        flick.slice(0, -1).forEach((by) => w.put(by, part));
        w.put(flick.at(-1)!, sub(length, mul(part, frac(flick.length - 1))));
        return w.done(PLAYER_WORDS.flick, tempo);
      }
      const count = DIVISIONS.findLast((d) => d <= most) ?? 4;
      const step = mul(length, frac(1, count));
      const rises = next?.pitch && midi(next.pitch) - midi(note.pitch) > 0 && midi(next.pitch) - midi(note.pitch) <= 2;
      const ending = count >= 6 && (rises || says(PLAYER_WORDS.ending));
      const turns = ending ? count - 2 : count;
      const first = from === 'upper' ? 1 : 0;
      // It ends on the main note: one that began there holds its last note for two.
      for (let k = 0; k < turns; k++) {
        const by = (k + first) % 2;
        const last = k === turns - 2 && (turns - 1 + first) % 2 === 1;
        w.put(by, last ? add(step, step) : step);
        if (last) break;
      }
      if (ending) {
        w.put(-1, step);
        w.put(0, step);
      }
      return w.done(`trill from ${from === 'upper' ? 'above' : 'the main note'}${ending ? ', with an ending' : ''}`, tempo);
    }
    case 'shake':
    case 'inverted-mordent':
    case 'mordent': {
      const by = mark.name === 'mordent' ? -1 : 1;
      const step = min(frac(1, 8), mul(length, frac(1, 4)));
      w.put(0, step);
      w.put(by, step);
      w.put(0, sub(length, add(step, step)));
      return w.done(mark.name === 'mordent' ? 'mordent' : 'short trill', tempo);
    }
    case 'turn':
    case 'delayed-turn':
    case 'inverted-turn':
    case 'delayed-inverted-turn':
    case 'vertical-turn':
    case 'inverted-vertical-turn': {
      const order = mark.name.includes('inverted') ? [-1, 0, 1, 0] : [1, 0, -1, 0];
      const late = mark.name.startsWith('delayed') || says(PLAYER_WORDS.lateTurn);
      // Four notes in the time of a sixteenth are 64ths (handbook 1.7); never more than half of the note.
      // On a short note it fills the note evenly.
      const short = !late && (toNumber(length) * 60) / tempo <= EVEN_TURN;
      const group = short ? length : min(frac(1, 2), mul(length, late ? frac(1, 4) : frac(1, 2)));
      const step = mul(group, frac(1, 4));
      if (late) w.put(0, sub(length, group));
      order.slice(0, 3).forEach((by) => w.put(by, step));
      w.put(0, late ? step : sub(length, mul(step, frac(3))));
      return w.done(late ? 'turn, late' : 'turn', tempo);
    }
    case 'tremolo': {
      const strokes = Number(mark.value ?? 3);
      if (!(strokes >= 1 && strokes <= 4) || note.spans?.some((s) => s.kind === 'tremolo')) return null;
      const step = frac(1, 2 ** strokes);
      const count = Math.floor(toNumber(length) / toNumber(step));
      if (count < 2) return null;
      for (let k = 0; k < count; k++) w.put(0, step);
      return w.done(`${count} notes`, tempo);
    }
    default:
      return null;
  }
}

/** Small notes: the long one takes half or two thirds of its note, short ones come quickly, with a stroke before the beat. Handbook 8.1. */
function small(
  score: Score,
  note: Note,
  length: Fraction,
  tempo: number,
  school: OrnamentSchool,
  graces: readonly Note[]
): Realisation | null {
  const pitched = graces.filter((g) => g.pitch && g.sounding);
  if (!pitched.length) return null;
  const one = pitched.length === 1 ? pitched[0] : null;
  const long =
    one &&
    !school.placing &&
    !one.grace!.slash &&
    school.appoggiatura === 'long' &&
    cmp(length, frac(1, 2)) >= 0 &&
    !school.words.some((x) => x.includes(PLAYER_WORDS.shortSmallNotes));
  if (long) {
    const share = mul(length, note.dots ? APPOGGIATURA_SHARE.dotted : APPOGGIATURA_SHARE.plain);
    const notes = [
      { pitch: one.pitch!, midi: midi(one.sounding!), at: ZERO, length: share, main: false },
      { pitch: note.pitch!, midi: midi(note.sounding!), at: share, length: sub(length, share), main: true }
    ];
    return { notes, says: `takes ${note.dots ? 'two thirds' : 'half'}`, shortest: (toNumber(notes[1].length) * 60) / tempo, before: false };
  }
  // Short notes of whole 960ths of a quarter, near their usual seconds.
  const usual = frac(Math.max(8, Math.round((SMALL_NOTES.seconds * tempo * 960) / 60)), 960);
  const step = min(usual, mul(length, frac(Math.round(SMALL_NOTES.mostOfNote * 100), 100 * pitched.length)));
  const onBeat = school.placing ? school.placing === 'on-beat' : school.appoggiatura === 'long' && !pitched[0].grace!.slash;
  let at = onBeat ? ZERO : mul(step, frac(-pitched.length));
  const notes: OrnamentNote[] = pitched.map((g) => {
    const n = { pitch: g.pitch!, midi: midi(g.sounding!), at, length: step, main: false };
    at = add(at, step);
    return n;
  });
  notes.push({ pitch: note.pitch!, midi: midi(note.sounding!), at, length: sub(length, onBeat ? at : ZERO), main: true });
  return { notes, says: `${onBeat ? 'on' : 'before'} the beat`, shortest: (toNumber(step) * 60) / tempo, before: !onBeat };
}
