import { beatOfMeter } from '../score/meter.ts';
import { toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { SoundingScore, Tone } from './sounding-score.ts';

/** One beat of the piece, as it is compared with others. */
export interface Beat {
  start: number;
  end: number;
  measure: number;
  /** Position in the bar, in beats from 0; an upbeat bar counts from its end. */
  inBar: number;
  /** Melody tones that begin in the beat. */
  entries: Tone[];
  /** The tone that leads the beat: what begins on it, else what is held over, else what begins first. */
  lead: Tone | null;
  /** Lowest tone sounding in the beat, where it is not the melody itself. */
  bass: Tone | null;
  /** Heights (staff steps) that the melody has in the beat, the held one included. */
  steps: number[];
  /** Onsets within the beat, in 24ths of it, as one number: equal numbers are equal rhythms. */
  rhythm: number;
}

export const heightOf = (tone: Tone): number => tone.height;

/** The piece as a row of beats; the ground on which repetitions, sequences and parallel places are found. */
export function beatGrid(score: Score, sounding: SoundingScore): Beat[] {
  const beats: Beat[] = [];
  score.measures.forEach((measure, k) => {
    const length = Math.max(1, Math.round(toNumber(beatOfMeter(measure).beat) * sounding.ticksPerQuarter));
    const from = sounding.measureStarts[k];
    const to = sounding.measureStarts[k + 1] ?? sounding.totalTicks;
    const full = measure.time?.quarters ? Math.round(toNumber(measure.time.quarters) * sounding.ticksPerQuarter) : to - from;
    const shift = k === 0 && to - from < full ? full - (to - from) : 0;
    for (let t = from - (shift % length); t < to; t += length)
      beats.push({
        start: Math.max(from, t),
        end: Math.min(to, t + length),
        measure: k,
        inBar: Math.floor((t - from + shift) / length),
        entries: [],
        lead: null,
        bass: null,
        steps: [],
        rhythm: 0
      });
  });
  placeMelody(beats, sounding);
  placeBass(beats, sounding);
  return beats;
}

function placeMelody(beats: Beat[], sounding: SoundingScore): void {
  let first = 0;
  const { melody } = sounding;
  for (const beat of beats) {
    while (first < melody.length && melody[first].end <= beat.start) first++;
    const length = Math.max(1, beat.end - beat.start);
    const sounding: Tone[] = [];
    for (let k = first; k < melody.length && melody[k].start < beat.end; k++) if (melody[k].end > beat.start) sounding.push(melody[k]);
    beat.entries = sounding.filter((t) => t.start >= beat.start);
    beat.lead = sounding.find((t) => t.start === beat.start) ?? sounding.find((t) => t.start < beat.start) ?? sounding[0] ?? null;
    beat.steps = sounding.map(heightOf);
    for (const t of beat.entries) {
      const place = Math.round(((t.start - beat.start) * 24) / length);
      beat.rhythm |= 1 << Math.min(23, place);
    }
  }
}

function placeBass(beats: Beat[], sounding: SoundingScore): void {
  if (sounding.singleLine) return;
  let first = 0;
  const tones = sounding.tones.filter((t) => !t.note.grace);
  // Tones are in order of their start; long ones keep the window open.
  const longest = tones.reduce((m, t) => Math.max(m, t.end - t.start), 0);
  for (const beat of beats) {
    while (first < tones.length && tones[first].start + longest <= beat.start) first++;
    let low: Tone | null = null;
    for (let k = first; k < tones.length && tones[k].start < beat.end; k++)
      if (tones[k].end > beat.start && (!low || tones[k].midi < low.midi)) low = tones[k];
    beat.bass = low;
  }
}

/** Index of the beat in which a tick lies. */
export function beatIndexAt(beats: readonly Beat[], ticks: number): number {
  let low = 0;
  let high = beats.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (beats[middle].start <= ticks) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Beats of a usual bar: the commonest count. */
export function beatsPerBar(beats: readonly Beat[]): number {
  const counts = new Map<number, number>();
  for (let k = 0; k < beats.length;) {
    let end = k + 1;
    while (end < beats.length && beats[end].measure === beats[k].measure) end++;
    counts.set(end - k, (counts.get(end - k) ?? 0) + 1);
    k = end;
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 1;
}
