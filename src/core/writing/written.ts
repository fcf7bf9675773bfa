/**
 * A score that is being written from paper: bars of sounds in voices, as plain records. Rhythm stands first; a sound whose
 * pitch is not known yet is open. It becomes a document through the same writer as a typed tune.
 */
import type { AbcSound } from '../score/abc/model.ts';
import { readMeterField } from '../score/abc/fields.ts';
import { add, eq, lt, sub, ZERO, type Fraction } from '../score/fraction.ts';
import type { KeySignature, TimeSignature } from '../score/model.ts';
import { lengthWords } from './values.ts';

/** A note, chord or rest; `joined` is worked out from the meter when it is written. */
export type Sound = Omit<AbcSound, 'joined'> & {
  /** Kept through every correction, so that markings stay at their notes. */
  id: string;
  /** Its pitch is not said yet. */
  open?: boolean;
  /** Words printed at it. */
  words?: { text: string; placement: 'above' | 'below' };
};

/** A voice of a staff, by its place in a bar's list. */
export interface Lane {
  /** 1-based, from above. */
  staff: number;
  /** 1 or 2 within its staff. */
  voice: number;
}

export interface WrittenBar {
  id: string;
  /** Sounds by lane. */
  lanes: Sound[][];
  meter?: string;
  key?: KeySignature;
  repeatStart?: boolean;
  /** Times that the repeated passage is played; 0 for none. */
  repeatEnd?: number;
  ending?: string;
  doubleBar?: boolean;
  /** Rehearsal letter. */
  letter?: string;
}

export interface WrittenHead {
  title: string;
  composer: string;
  instrument: string;
  /** Semitones from written to sounding pitch. */
  transpose: number;
  clefs: string[];
  key: KeySignature;
  /** "3/4", "C", "C|", or empty for none. */
  meter: string;
  tempo: { words: string; unit: Fraction | null; perMinute: string | null };
  /** Quarters before the first bar line; null for none. */
  upbeat: Fraction | null;
}

/** A head before anything is said in it. */
export const EMPTY_HEAD: WrittenHead = {
  title: '',
  composer: '',
  instrument: '',
  transpose: 0,
  clefs: ['treble'],
  key: { fifths: 0, mode: 'major' },
  meter: '4/4',
  tempo: { words: '', unit: null, perMinute: null },
  upbeat: null
};

export interface Written {
  head: WrittenHead;
  lanes: Lane[];
  bars: WrittenBar[];
}

export const emptyBar = (id: string, lanes: number): WrittenBar => ({ id, lanes: Array.from({ length: lanes }, () => []) });

/** Without empty bars at its end, which wait to be written. */
export const finished = (w: Written): Written => {
  const last = w.bars.findLastIndex((b) => b.lanes.some((l) => l.length));
  return { ...w, bars: w.bars.slice(0, Math.max(1, last + 1)) };
};

/** A score of one staff or two with one empty bar. */
export function emptyWritten(head: WrittenHead, id: string): Written {
  const lanes = head.clefs.map((_, k): Lane => ({ staff: k + 1, voice: 1 }));
  return { head, lanes, bars: [emptyBar(id, lanes.length)] };
}

/** What bars say last before and in a bar. */
function inForce<T>(w: Written, bar: number, said: (b: WrittenBar) => T | undefined): T | undefined {
  for (let k = bar; k >= 0; k--) {
    const here = said(w.bars[k]);
    if (here !== undefined) return here;
  }
  return undefined;
}

/** The meter in force at a bar. */
export const meterAt = (w: Written, bar: number): string => inForce(w, bar, (b) => b.meter) ?? w.head.meter;

export const keyAt = (w: Written, bar: number): KeySignature => inForce(w, bar, (b) => b.key) ?? w.head.key;

export const timeOf = (meter: string): TimeSignature | null => readMeterField(meter) ?? null;

/** Quarters that a bar holds; null where no meter counts. */
export const roomOf = (w: Written, bar: number): Fraction | null =>
  bar === 0 && w.head.upbeat ? w.head.upbeat : (timeOf(meterAt(w, bar))?.quarters ?? null);

export const lengthOf = (sounds: readonly Sound[]): Fraction => sounds.reduce((sum, s) => (s.grace ? sum : add(sum, s.duration)), ZERO);

const laneName = (w: Written, lane: number): string => {
  const { staff, voice } = w.lanes[lane];
  const staves = Math.max(...w.lanes.map((l) => l.staff));
  const voices = w.lanes.filter((l) => l.staff === staff).length;
  return (
    (staves > 1 ? `, ${staff === 1 ? 'upper' : 'lower'} staff` : '') + (voices > 1 ? `, ${voice === 1 ? 'upper' : 'lower'} voice` : '')
  );
};

const barLength = (bar: WrittenBar): Fraction => bar.lanes.map(lengthOf).reduce((a, b) => (lt(a, b) ? b : a), ZERO);

/** Whether a line between two bars may cut a bar in two: a repeat, a double bar. */
const cuts = (before: WrittenBar, after: WrittenBar | undefined): boolean =>
  !after || !!before.repeatEnd || !!before.doubleBar || !!after.repeatStart;

/** Whether a short bar is made whole by another: its rest stands behind a repeat or double bar, or at the beginning of its section. */
function isMadeWhole(w: Written, bar: number, length: Fraction, room: Fraction): boolean {
  const { bars } = w;
  const completes = (other: WrittenBar | undefined): boolean => other !== undefined && eq(add(barLength(other), length), room);
  if (cuts(bars[bar], bars[bar + 1]) && completes(bars[bar + 1])) return true;
  if (bar > 0 && cuts(bars[bar - 1], bars[bar]) && completes(bars[bar - 1])) return true;
  if (!cuts(bars[bar], bars[bar + 1])) return false;
  const begin = bars.findLastIndex((b, k) => k <= bar && (k === 0 || !!b.repeatStart));
  return begin < bar && completes(bars[begin]);
}

const NAMES = new WeakMap<Written, string[]>();

/** "Bar 5", "Upbeat": counted from the first whole bar; two that make one whole across a repeat have one number. */
export function barNumber(w: Written, bar: number): string {
  const known = NAMES.get(w);
  if (known) return known[bar];
  let number = 0;
  let waits: Fraction | null = null;
  const names = w.bars.map((b, k) => {
    const length = barLength(b);
    const room = timeOf(meterAt(w, k))?.quarters ?? null;
    const short = room !== null && length.n > 0 && lt(length, room);
    const completes: boolean = short && waits !== null && eq(add(waits, length), room);
    waits = short && !completes ? length : null;
    if (k === 0 && w.head.upbeat) return 'Upbeat';
    if (completes) return `Bar ${number} from its repeat`;
    return `Bar ${++number}`;
  });
  NAMES.set(w, names);
  return names[bar];
}

/** What does not add up in a lane of a bar, in a sentence; null where it does, or nothing stands there. */
export function laneFault(w: Written, bar: number, lane: number): string | null {
  const room = roomOf(w, bar);
  const sounds = w.bars[bar].lanes[lane];
  if (!room || !sounds.length) return null;
  const length = lengthOf(sounds);
  const over = lt(room, length);
  if (eq(length, room) || (!over && isMadeWhole(w, bar, length, room))) return null;
  return `${barNumber(w, bar)}${laneName(w, lane)} is ${lengthWords(over ? sub(length, room) : sub(room, length))} too ${over ? 'long' : 'short'}.`;
}

export const barFaults = (w: Written, bar: number): string[] => w.lanes.flatMap((_, lane) => laneFault(w, bar, lane) ?? []);

export const isComplete = (w: Written, bar: number): boolean =>
  !barFaults(w, bar).length && w.bars[bar].lanes.every((l) => l.every((s) => !s.open)) && w.bars[bar].lanes.some((l) => l.length);

/** A rest for a whole bar. */
export const barRest = (id: string, room: Fraction): Sound => ({
  kind: 'sound',
  id,
  pitches: [],
  wholeMeasure: true,
  duration: room,
  decorations: [],
  slurStarts: 0,
  slurStops: 0,
  lyrics: []
});
