import { MOMENTS } from '../search.ts';
import { add, cmp, eq, lt, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { metricLevel } from '../score/meter.ts';
import type { Note, Score } from '../score/model.ts';
import { midi } from '../score/pitch.ts';
import { tempoMarks } from '../score/tempo.ts';

/** What a player begins to play at one moment. */
export interface Attack {
  /** Its heads, from low to high. */
  notes: Note[];
  /** Heads that are tied to them and not played again. */
  held: Note[];
  grace: boolean;
  start: Fraction;
  /** Where the last of it ends, ties counted. */
  end: Fraction;
  /** Seconds from the beginning, repeats not unfolded. */
  from: number;
  to: number;
  /** Slurred to the next one. */
  joined: boolean;
}

/** What one player plays, in order of time. */
export interface PlayerLine {
  score: Score;
  part: number;
  attacks: Attack[];
  /** Slurs from one attack to another, by index. */
  slurs: { from: number; to: number }[];
}

/** Seconds from the beginning of the piece at a place, quarters from the beginning. */
export type SecondsAt = (at: Fraction) => number;

/**
 * At the tempi of the page, before any of which `fallback` quarters a minute hold; or at one tempo throughout.
 * @param editorial tempi that the teacher has set beside them
 */
export function secondsAt(
  score: Score,
  fallback: number,
  throughout: number | null = null,
  editorial: readonly { start: Fraction; tempo: number }[] = []
): SecondsAt {
  const own = editorial.map(({ start, tempo }) => ({ start, low: tempo, high: tempo }));
  const marks = throughout === null ? [...tempoMarks(score), ...own].sort((a, b) => cmp(a.start, b.start)) : [];
  const from = [0];
  const tempi = [throughout ?? fallback];
  const seconds = [0];
  for (const m of marks) {
    const at = toNumber(m.start);
    seconds.push(seconds.at(-1)! + ((at - from.at(-1)!) * 60) / tempi.at(-1)!);
    from.push(at);
    tempi.push((m.low + m.high) / 2);
  }
  return (place) => {
    const at = toNumber(place);
    let k = from.length - 1;
    while (k > 0 && from[k] > at) k--;
    return seconds[k] + ((at - from[k]) * 60) / tempi[k];
  };
}

/**
 * As a performance has it: the first time that each beat is played, in written order.
 * @param beats of the performance: bar, how often it was played before, written quarters and planned seconds
 */
export function secondsPlayed(
  score: Score,
  beats: readonly { measure: number; pass: number; quarters: number; planned: number }[]
): SecondsAt {
  const from: number[] = [];
  const seconds: number[] = [];
  let at = 0;
  let bar = -1;
  let inside = 0;
  const first = beats.filter((b) => b.pass === 0).sort((a, b) => a.measure - b.measure);
  for (const b of first) {
    if (b.measure !== bar) [bar, inside] = [b.measure, 0];
    from.push(toNumber(score.measures[b.measure].start) + inside);
    seconds.push(at);
    inside += b.quarters;
    at += b.planned;
  }
  const last = first.at(-1);
  return (place) => {
    const when = toNumber(place);
    const k = Math.max(0, MOMENTS.lastBegun(from, when, 0, from.length));
    const { quarters = 1, planned = 1 } = (k === first.length - 1 ? last : first[k]) ?? {};
    return (seconds[k] ?? 0) + ((when - (from[k] ?? 0)) * planned) / (quarters || 1);
  };
}

/** How long a grace note takes where nothing else is known, in seconds. [M] */
export const GRACE_SECONDS = 0.08;

/** @param fits which notes of the part belong to this player or hand */
export function playerLine(score: Score, part: number, seconds: SecondsAt, fits: (note: Note) => boolean = () => true): PlayerLine {
  const own = score.notes.filter((n) => n.part === part && !n.rest && !n.cue && (n.pitch || n.unpitched) && fits(n));
  const attacks: Attack[] = [];
  const attackOf = new Map<string, number>();
  const order = own.map((note, at) => ({ note, at }));
  order.sort((a, b) => cmp(a.note.start, b.note.start) || graceRank(a.note) - graceRank(b.note) || a.at - b.at);
  for (const { note } of order) {
    const end = add(note.start, note.duration);
    if (note.tie?.stop && !note.grace) {
      // It goes on from what sounds: not played again.
      const from = attacks.findLastIndex((a) => eq(a.end, note.start) && a.notes.some((n) => samePitch(n, note)));
      if (from >= 0) {
        const attack = attacks[from];
        attack.held.push(note);
        attack.end = end;
        attack.to = seconds(end);
        attackOf.set(note.id, from);
        continue;
      }
    }
    const last = attacks.at(-1);
    if (last && eq(last.start, note.start) && (note.grace ? last.grace && note.chord : !last.grace)) {
      last.notes.push(note);
      if (lt(last.end, end)) {
        last.end = end;
        last.to = seconds(end);
      }
    } else {
      const at = seconds(note.start);
      attacks.push({
        notes: [note],
        held: [],
        grace: !!note.grace,
        start: note.start,
        end,
        from: at,
        to: note.grace ? at + GRACE_SECONDS : seconds(end),
        joined: false
      });
    }
    attackOf.set(note.id, attacks.length - 1);
  }
  for (const a of attacks) a.notes.sort((x, y) => height(x) - height(y));
  const slurs = score.slurs.flatMap(({ kind, from, to }) => {
    const [a, b] = [attackOf.get(from), attackOf.get(to)];
    return kind === 'slur' && a !== undefined && b !== undefined && a < b ? [{ from: a, to: b }] : [];
  });
  for (const { from, to } of slurs) for (let k = from; k < to; k++) attacks[k].joined = true;
  return { score, part, attacks, slurs };
}

/** Grace notes come before the note whose moment they share. */
const graceRank = (n: Note): number => (n.grace ? 0 : 1);

const samePitch = (a: Note, b: Note): boolean => a.pitch?.step === b.pitch?.step && a.pitch?.octave === b.pitch?.octave;

/** Sounding height, MIDI number; what has no pitch lies low. */
export const height = (n: Note): number => (n.sounding ? midi(n.sounding) : n.pitch ? midi(n.pitch) : 0);

/** Metrical level of a note (see `metricLevel`); in a short bar that completes another it counts to the end of a full one. */
export function levelOf(score: Score, note: Note): number {
  const measure = score.measures[note.measure];
  const full = measure.time?.quarters;
  const short = measure.index > 0 && measure.implicit && full && lt(measure.length, full);
  return metricLevel(measure, short ? add(sub(full, measure.length), note.onset) : note.onset);
}

/** The attack that grace notes lead to; itself where it is none. */
export function mainAttack({ attacks }: PlayerLine, from: number): number {
  let k = from;
  while (attacks[k].grace && k + 1 < attacks.length) k++;
  return k;
}

/** Seconds of silence before an attack; 0 for the first. */
export const silenceBefore = (line: PlayerLine, at: number): number =>
  at ? Math.max(0, line.attacks[at].from - line.attacks[at - 1].to) : 0;

export const lasts = (a: Attack): number => a.to - a.from;
export const topOf = (a: Attack): Note => a.notes[a.notes.length - 1];
