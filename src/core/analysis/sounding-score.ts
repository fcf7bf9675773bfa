import { searchBy } from '../search.ts';
import { frac, lcm, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { Note, Score } from '../score/model.ts';
import { fifthsOf, midi, staffStep } from '../score/pitch.ts';
import { HARMONY } from '../style/harmony-weights.ts';

/** A sounding note with its ties joined; times in ticks of the sounding score. */
export interface Tone {
  note: Note;
  start: number;
  end: number;
  midi: number;
  fifths: number;
  /** Height on the staff at sounding pitch, in steps. */
  height: number;
  /** Weight as evidence for a chord, from how the line reaches and leaves it. */
  weight: number;
  /** Place in its line: previous and next tone of the same voice. */
  previous: Tone | null;
  next: Tone | null;
}

/** A stretch of time in which one chord is looked for; a half beat, or a third of a compound one. */
export interface Slot {
  start: number;
  end: number;
  measure: number;
  /** 3 bar line, 2 strong beat, 1 beat, 0 inside a beat. */
  level: number;
  tones: Tone[];
  /** A note begins here. */
  fresh: boolean;
}

export interface SoundingScore {
  ticksPerQuarter: number;
  tones: Tone[];
  /** The highest line: at most one tone at a time, in order. */
  melody: Tone[];
  slots: Slot[];
  /** At most one note at a time nearly everywhere. */
  singleLine: boolean;
  measureStarts: number[];
  totalTicks: number;
}

/** Finer grids than this are rounded; beats stay exact. */
const MAX_TICKS = 50_400;

export const toTicks = (sounding: SoundingScore, time: Fraction): number => Math.round(toNumber(time) * sounding.ticksPerQuarter);
export const fromTicks = (sounding: SoundingScore, ticks: number): Fraction => frac(ticks, sounding.ticksPerQuarter);

/** Builds the texture of some or all parts. */
export function soundingScore(score: Score, parts: readonly number[] | null = null): SoundingScore {
  const chosen = parts ? new Set(parts) : null;
  const notes = score.notes.filter((n) => n.sounding && !n.cue && (!chosen || chosen.has(n.part)));
  let grid = 24;
  for (const measure of score.measures) grid = Math.min(lcm(grid, measure.length.d), MAX_TICKS);
  for (const n of notes) {
    if (grid < MAX_TICKS && !n.grace) grid = Math.min(lcm(lcm(grid, n.start.d), n.duration.d), MAX_TICKS);
  }
  const ticks = (f: Fraction): number => Math.round((f.n * grid) / f.d);
  const tones = joinTies(notes, ticks);
  const last = score.measures[score.measures.length - 1];
  const sounding: SoundingScore = {
    ticksPerQuarter: grid,
    tones,
    melody: [],
    slots: [],
    singleLine: false,
    measureStarts: score.measures.map((m) => ticks(m.start)),
    totalTicks: ticks(last.start) + ticks(last.length)
  };
  linkLines(tones);
  sounding.melody = topLine(tones);
  sounding.slots = slotsOf(score, sounding);
  const chords = sounding.slots.filter((s) => s.tones.length > 1 && countTogether(s) > 1).length;
  const filled = sounding.slots.filter((s) => s.tones.length > 0).length;
  sounding.singleLine = chords < 0.2 * Math.max(1, filled);
  for (const tone of tones) tone.weight = weightOf(tone, sounding);
  return sounding;
}

function joinTies(notes: Note[], ticks: (f: Fraction) => number): Tone[] {
  const tones: Tone[] = [];
  const ringing = new Map<string, Tone>();
  for (const note of notes) {
    const start = ticks(note.start);
    const end = start + ticks(note.duration);
    const height = staffStep(note.sounding!);
    const key = `${note.part}|${height}|${note.sounding!.alter}`;
    const before = note.tie?.stop ? ringing.get(key) : undefined;
    if (before && before.end === start) {
      before.end = end;
      if (!note.tie?.start) ringing.delete(key);
      continue;
    }
    const tone: Tone = {
      note,
      start,
      end,
      midi: midi(note.sounding!),
      fifths: fifthsOf(note.sounding!),
      height,
      weight: 1,
      previous: null,
      next: null
    };
    tones.push(tone);
    if (note.tie?.start) ringing.set(key, tone);
  }
  return tones
    .map((tone, k) => ({ tone, k }))
    .sort((a, b) => a.tone.start - b.tone.start || a.k - b.k)
    .map((t) => t.tone);
}

/** Links each tone with its neighbours in the same part, staff and voice; chords by their top note. */
function linkLines(tones: Tone[]): void {
  const last = new Map<string, Tone>();
  for (const tone of tones) {
    if (tone.note.grace) continue;
    const key = `${tone.note.part}|${tone.note.voice}|${tone.note.staff}`;
    const before = last.get(key);
    if (before && before.start === tone.start) {
      if (before.midi >= tone.midi) {
        tone.previous = before.previous;
        continue;
      }
      tone.previous = before.previous;
      if (before.previous) before.previous.next = tone;
    } else if (before) {
      tone.previous = before;
      before.next = tone;
    }
    last.set(key, tone);
  }
}

function topLine(tones: Tone[]): Tone[] {
  const line: Tone[] = [];
  for (const tone of tones) {
    if (tone.note.grace || tone.note.part !== tones[0].note.part) continue;
    const last = line[line.length - 1];
    if (last && last.start === tone.start) {
      if (tone.midi > last.midi) line[line.length - 1] = tone;
    } else if (
      !last ||
      tone.start >= last.end ||
      tone.midi >= last.midi ||
      (tone.note.staff === last.note.staff && tone.note.voice === last.note.voice)
    )
      line.push(tone);
  }
  return line;
}

function slotsOf(score: Score, sounding: SoundingScore): Slot[] {
  const slots: Slot[] = [];
  score.measures.forEach((measure, k) => {
    const { beat, slots: perBeat, strongEvery } = beatOfMeter(measure);
    const beatTicks = Math.max(1, Math.round(toNumber(beat) * sounding.ticksPerQuarter));
    const slotTicks = Math.max(1, Math.round(beatTicks / perBeat));
    const from = sounding.measureStarts[k];
    const to = k + 1 < sounding.measureStarts.length ? sounding.measureStarts[k + 1] : sounding.totalTicks;
    const nominal = measure.time?.quarters ? Math.round(toNumber(measure.time.quarters) * sounding.ticksPerQuarter) : to - from;
    // An upbeat counts from the end of a full bar; the second part of a divided bar goes on where the first ended.
    const before = k > 0 ? from - sounding.measureStarts[k - 1] : 0;
    const shift =
      to - from >= nominal ? 0 : k === 0 ? nominal - (to - from) : before < nominal && before + to - from <= nominal ? before : 0;
    for (let t = from; t < to; t += slotTicks) {
      const inBar = t - from + shift;
      const level = inBar === 0 ? 3 : inBar % beatTicks !== 0 ? 0 : (inBar / beatTicks) % strongEvery === 0 ? 2 : 1;
      slots.push({ start: t, end: Math.min(to, t + slotTicks), measure: k, level, tones: [], fresh: false });
    }
  });
  let first = 0;
  for (const tone of sounding.tones) {
    if (tone.note.grace) continue;
    while (first < slots.length && slots[first].end <= tone.start) first++;
    for (let s = first; s < slots.length && slots[s].start < tone.end; s++) {
      slots[s].tones.push(tone);
      if (tone.start >= slots[s].start) slots[s].fresh = true;
    }
  }
  return slots;
}

function countTogether(slot: Slot): number {
  let most = 0;
  for (const a of slot.tones) {
    let together = 0;
    for (const b of slot.tones) if (b.start <= a.start && b.end > a.start) together++;
    most = Math.max(most, together);
  }
  return most;
}

const isStep = (a: Tone, b: Tone): boolean => Math.abs(a.height - b.height) === 1 && Math.abs(a.midi - b.midi) <= 3;

function weightOf(tone: Tone, sounding: SoundingScore): number {
  if (sounding.singleLine) return weightInLine(tone, sounding);
  const R = HARMONY.role;
  if (tone.note.grace) return R.grace;
  const { previous, next } = tone;
  if (!previous || !next) return R.plain;
  const length = tone.end - tone.start;
  const onBeat = levelAt(sounding, tone.start) >= 1;
  if (isStep(previous, tone) && isStep(tone, next)) {
    const shorter = length <= previous.end - previous.start || length < sounding.ticksPerQuarter;
    if (!onBeat && shorter) return R.passingWeak;
    return length <= sounding.ticksPerQuarter / 2 ? R.passingStrong : R.plain;
  }
  if (!isStep(previous, tone) && !isStep(tone, next) && previous.midi !== tone.midi && next.midi !== tone.midi) return R.leaping;
  return R.plain;
}

/** The same in a line alone, where held and leaning notes are told from the chord's own. */
function weightInLine(tone: Tone, sounding: SoundingScore): number {
  const R = HARMONY.roleInLine;
  const { previous, next } = tone;
  if (tone.note.grace) return R.grace;
  if (!previous || !next) return R.plain;
  const length = tone.end - tone.start;
  const onBeat = levelAt(sounding, tone.start) >= 1;
  const falls = next.height === tone.height - 1;
  if (onBeat && falls && previous.midi === tone.midi) return R.prepared;
  if (isStep(previous, tone) && isStep(tone, next)) {
    const shorter = length <= previous.end - previous.start || length < sounding.ticksPerQuarter;
    if (!onBeat && shorter) return R.passingWeak;
    return length <= sounding.ticksPerQuarter / 2 ? R.passingStrong : R.plain;
  }
  const leapt = !isStep(previous, tone) && previous.midi !== tone.midi;
  if (leapt && !isStep(tone, next) && next.midi !== tone.midi) return R.leaping;
  if (onBeat && leapt && falls && length <= next.end - next.start) return R.leaning;
  return R.plain;
}

const byStart = searchBy((tone: Tone) => tone.start);

/** Index of the first tone of an ordered line that begins at a tick or later. */
export const firstFrom = (line: readonly Tone[], ticks: number): number => byStart.firstFrom(line, ticks);

/** Metrical level of a tick: that of the slot that begins there, -1 inside a slot. */
export function levelAt(sounding: SoundingScore, ticks: number): number {
  const slot = slotAt(sounding, ticks);
  return slot && slot.start === ticks ? slot.level : -1;
}

/** The slot that holds a tick. */
export function slotAt(sounding: SoundingScore, ticks: number): Slot | null {
  return sounding.slots[slotIndexAt(sounding, ticks)] ?? null;
}

/** Highest level of the slots that begin after one tick and before another; -1 where none does. */
export function strongestWithin(sounding: SoundingScore, from: number, to: number): number {
  let level = -1;
  for (let k = slotIndexAt(sounding, from) + 1; k < sounding.slots.length && sounding.slots[k].start < to; k++)
    level = Math.max(level, sounding.slots[k].level);
  return level;
}

export function slotIndexAt(sounding: SoundingScore, ticks: number): number {
  const { slots } = sounding;
  let low = 0;
  let high = slots.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (slots[middle].start <= ticks) low = middle;
    else high = middle - 1;
  }
  return low;
}
