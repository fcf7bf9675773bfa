import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { Score } from '../score/model.ts';
import { instrumentByKey, UNKNOWN_INSTRUMENT } from '../style/instruments/index.ts';
import { can } from '../style/instruments/instrument.ts';
import { velocityOf, withinRange } from './loudness.ts';
import { heightIn, type Turn } from './inflections.ts';
import { MOMENTS } from '../search.ts';
import type { Performance, PlayedNote } from './perform.ts';

/** Ticks of a quarter in the files. */
export const MIDI_TICKS = 960;
/** Wood block on the percussion channel, for notes without pitch. General MIDI level 1. */
const UNPITCHED = 76;
/** Seconds between two points of a swell. */
const SWELL_STEP = 0.05;
/** Semitones that the wheel turns a channel's pitch, as the file asks for where anything is bent. */
const WHEEL = 12;
/** Seconds between two points of a bend. */
const BEND_STEP = 0.01;
/** Seconds by which the file's clock may be away from the plan; a fifth of a tick at 120 quarters a minute. */
const MOST_LOST = 1e-4;
/** Slowest quarter, in microseconds, that a file can hold. */
const SLOWEST = 0xffffff;

interface Timed {
  at: number;
  order: number;
  event: MidiEvent;
}

/** The tempo of each beat, so that the file's own clock runs as the performance does. */
class TempoMap {
  readonly events: Timed[] = [];
  private readonly ticks: number[] = [0];
  private readonly seconds: number[] = [0];
  private readonly perQuarter: number[] = [];

  constructor(performance: Performance) {
    let tick = 0;
    let second = 0;
    for (const b of performance.beats) {
      const length = Math.max(1, Math.round(b.quarters * MIDI_TICKS));
      // What rounding lost is given back before it can be heard, so that nothing adds up and a steady tempo stays one event.
      const lost = b.start - second;
      const wanted = Math.max(1e-4, b.planned + (Math.abs(lost) > MOST_LOST ? lost : 0));
      const tempo = Math.max(1, Math.min(SLOWEST, Math.round((wanted * 1e6 * MIDI_TICKS) / length)));
      if (tempo !== this.perQuarter.at(-1))
        this.events.push({ at: tick, order: 0, event: { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: tempo } });
      this.perQuarter.push(tempo);
      tick += length;
      second += (length * tempo) / (1e6 * MIDI_TICKS);
      this.ticks.push(tick);
      this.seconds.push(second);
    }
  }

  /** Tick of a moment in seconds. */
  tickAt(seconds: number): number {
    const low = MOMENTS.lastBegun(this.seconds, seconds, 0, this.perQuarter.length);
    return Math.max(
      0,
      Math.round(this.ticks[low] + ((seconds - this.seconds[low]) * 1e6 * MIDI_TICKS) / (this.perQuarter[low] ?? 500_000))
    );
  }
}

/**
 * A performance as a Standard MIDI File: type 1, a track of tempi and one a part; velocities for beginnings,
 * expression (controller 11) for what happens inside a held note.
 */
export function midiFile(score: Score, performance: Performance): Uint8Array {
  const map = new TempoMap(performance);
  const conductor: Timed[] = [
    { at: 0, order: 0, event: { deltaTime: 0, meta: true, type: 'trackName', text: score.title || 'Untitled' } },
    ...map.events,
    ...meters(score, performance, map)
  ];
  const fitted = withinRange(performance.notes.map(loudest));
  const tracks = [conductor];
  let melodic = 0;
  for (const part of score.parts) {
    const instrument = instrumentByKey(performance.instruments[part.index]) ?? UNKNOWN_INSTRUMENT;
    // Channel 10 is the percussion's.
    const own = melodic++ % 15;
    const channel = own >= 9 ? own + 1 : own;
    const track: Timed[] = [
      { at: 0, order: 0, event: { deltaTime: 0, meta: true, type: 'trackName', text: part.name || part.id } },
      { at: 0, order: 1, event: { deltaTime: 0, type: 'programChange', channel, programNumber: instrument.program } },
      { at: 0, order: 1, event: { deltaTime: 0, type: 'controller', channel, controllerType: 11, value: 127 } }
    ];
    if (performance.notes.some((n) => n.part === part.index && n.turns)) track.push(...wheelRange(channel));
    for (const n of performance.notes) {
      if (n.part !== part.index) continue;
      const on = map.tickAt(n.onset);
      const off = Math.max(on + 1, map.tickAt(n.end));
      const where = n.midi === null ? 9 : channel;
      const noteNumber = n.midi ?? UNPITCHED;
      track.push({
        at: on,
        order: 4,
        event: { deltaTime: 0, type: 'noteOn', channel: where, noteNumber, velocity: velocityOf(fitted(loudest(n))) }
      });
      track.push({ at: off, order: 2, event: { deltaTime: 0, type: 'noteOff', channel: where, noteNumber, velocity: 64 } });
      if (n.turns && n.midi !== null) bend(track, n, n.turns, channel, map);
      if (can(instrument, 'holds') && n.midi !== null) swell(track, n, channel, map, fitted);
    }
    tracks.push(track);
  }
  const data: MidiData = { header: { format: 1, numTracks: tracks.length, ticksPerBeat: MIDI_TICKS }, tracks: tracks.map(inOrder) };
  return Uint8Array.from(writeMidi(data));
}

/** Levels of a note from beginning to end. */
const levels = (n: PlayedNote): number[] => [n.db, ...(n.inside ?? []), n.dbEnd];
const loudest = (n: PlayedNote): number => Math.max(...levels(n));

/** Expression over a note that does not stay as loud: its velocity is that of its loudest moment. */
function swell(track: Timed[], n: PlayedNote, channel: number, map: TempoMap, fitted: (db: number) => number): void {
  const points = levels(n).map(fitted);
  const most = Math.max(...points);
  const flat = most - Math.min(...points) < 0.5;
  const put = (seconds: number, db: number, order: number): void => {
    const value = Math.max(1, Math.min(127, Math.round((127 * velocityOf(db)) / velocityOf(most))));
    track.push({ at: map.tickAt(seconds), order, event: { deltaTime: 0, type: 'controller', channel, controllerType: 11, value } });
  };
  put(n.onset, flat ? most : points[0], 3);
  if (flat) return;
  for (let t = n.onset + SWELL_STEP; t < n.end; t += SWELL_STEP) {
    const x = ((t - n.onset) / (n.end - n.onset)) * (points.length - 1);
    const k = Math.min(points.length - 2, Math.floor(x));
    put(t, points[k] + (points[k + 1] - points[k]) * (x - k), 3);
  }
}

/** Registered parameter 0: how far the wheel turns. */
const wheelRange = (channel: number): Timed[] =>
  (
    [
      [101, 0],
      [100, 0],
      [6, WHEEL],
      [38, 0]
    ] as const
  ).map(([controllerType, value]) => ({ at: 0, order: 1, event: { deltaTime: 0, type: 'controller', channel, controllerType, value } }));

/** The wheel over a note whose pitch turns; back in its middle when the note has ended. */
function bend(track: Timed[], n: PlayedNote, turns: readonly Turn[], channel: number, map: TempoMap): void {
  let before = 0;
  const put = (at: number, semitones: number, order: number): void => {
    const value = Math.max(-8192, Math.min(8191, Math.round((8192 * semitones) / WHEEL)));
    if (value !== before) track.push({ at, order, event: { deltaTime: 0, type: 'pitchBend', channel, value } });
    before = value;
  };
  for (let t = 0; n.onset + t < n.end; t += BEND_STEP) put(map.tickAt(n.onset + t), heightIn(turns, t), 3);
  put(Math.max(map.tickAt(n.onset) + 1, map.tickAt(n.end)), 0, 2.5);
}

function meters(score: Score, performance: Performance, map: TempoMap): Timed[] {
  let before = '';
  return performance.bars.flatMap((b): Timed[] => {
    const time = score.measures[b.measure].time;
    const count = time?.groups.reduce((s, g) => s + g, 0);
    const text = `${count}/${time?.unit}`;
    // The file can hold powers of two below the line only.
    if (!time || !count || count > 255 || !Number.isInteger(Math.log2(time.unit)) || text === before) return [];
    before = text;
    return [
      {
        at: map.tickAt(b.start),
        order: 0,
        event: {
          deltaTime: 0,
          meta: true,
          type: 'timeSignature',
          numerator: count,
          denominator: time.unit,
          metronome: 24,
          thirtyseconds: 8
        }
      }
    ];
  });
}

function inOrder(track: Timed[]): MidiEvent[] {
  const sorted = track.map((e, k) => ({ e, k })).sort((a, b) => a.e.at - b.e.at || a.e.order - b.e.order || a.k - b.k);
  let at = 0;
  const events: MidiEvent[] = sorted.map(({ e }) => {
    const event = { ...e.event, deltaTime: e.at - at };
    at = e.at;
    return event;
  });
  events.push({ deltaTime: 0, meta: true, type: 'endOfTrack' });
  return events;
}
